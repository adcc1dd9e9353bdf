import { AppError } from '../core/errors/appError.ts';
import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import { translation } from '../core/geometry/affine.ts';
import { plainObjects } from '../core/job/objects.ts';
import type { FontFace } from '../core/lettering/fontFace.ts';
import { letterCurves, type LetteredText } from '../core/lettering/letterCurves.ts';
import type { Lettering } from '../core/lettering/lettering.ts';
import { boundsOf } from '../core/outline/curves.ts';
import { transformCurves } from '../core/outline/transformCurves.ts';
import { needsShapes, type DesignShapes } from '../core/run/designRun.ts';
import { canonicalJson } from '../core/task/hash.ts';

/** What is loaded when a job has lettering, or objects that cut. */
export interface ShapeTools {
  polygons(): Promise<PolygonLibrary>;
  /** @param text that it is wanted for. @throws AppError `badFont` for a font that is not shipped. */
  font(name: string, text?: string): Promise<FontFace>;
  /** A font from a file. @throws AppError `badFont`, `fileTooLarge`. */
  readFont(bytes: Uint8Array, file: string): Promise<FontFace>;
}

/** Letterings that are kept set: some more than one job has. */
const MOST_KEPT = 100;

/** Sets the letterings of jobs and keeps them: each keystroke sets one anew and no other. */
export class ShapeMaker {
  private readonly kept = new Map<string, LetteredText>();

  constructor(private readonly tools: ShapeTools | undefined) {}

  /** @throws AppError `unexpected` where nothing was handed in to do it with. */
  get using(): ShapeTools {
    if (this.tools === undefined) throw new AppError('unexpected', { message: 'lettering cannot be set, nor outlines combined, here' });
    return this.tools;
  }

  /** What a job's design needs of them; undefined when it needs nothing. */
  async of(job: Parameters<typeof needsShapes>[0]): Promise<DesignShapes | undefined> {
    const plain = plainObjects(job.objects);
    const letterings = plain.flatMap((object) => (object.kind === 'lettering' ? [object] : []));
    if (!needsShapes(job)) return undefined;
    const tools = this.using;
    const library = await tools.polygons();
    const lettered = new Map<string, LetteredText>();
    for (const { id, lettering } of letterings) lettered.set(id, await this.set(library, lettering, tools));
    return { library, lettered };
  }

  private async set(library: PolygonLibrary, lettering: Lettering, tools: ShapeTools): Promise<LetteredText> {
    const key = canonicalJson(lettering);
    const known = this.kept.get(key);
    if (known !== undefined) return known;
    const set = inTheMiddle(letterCurves(library, await tools.font(lettering.font, lettering.text), lettering));
    this.kept.set(key, set);
    for (const [oldest] of this.kept) {
      if (this.kept.size <= MOST_KEPT) break;
      this.kept.delete(oldest);
    }
    return set;
  }
}

/** By the middle of its box a text stays in its place while it is typed, and when it goes on a circle. One that another part places has its letters where they were set. */
function inTheMiddle(text: LetteredText): LetteredText {
  const box = boundsOf(text.curves);
  if (box === undefined || text.letters !== undefined) return text;
  return { ...text, curves: transformCurves(text.curves, translation(-(box.left + box.right) / 2, -(box.top + box.bottom) / 2)) };
}
