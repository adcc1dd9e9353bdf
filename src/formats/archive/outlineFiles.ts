import { AppError } from '../../core/errors/appError.ts';
import { eachOutline, LONG_OUTLINE_CHARS, withOutlines } from '../../core/job/jobOutlines.ts';
import { MAX_HELD_CHARS } from '../../core/outline/outlineSettings.ts';
import { packPath, unpackPath } from '../../core/outline/packedPath.ts';
import { Memo } from '../../core/task/memo.ts';
import { say } from '../../core/words/say.ts';
import { inTurns } from '../inTurns.ts';
import { sha256Of } from '../sha256.ts';

type Bytes = Uint8Array<ArrayBuffer>;

/** Of texts whose files are known, so that saving a job anew makes none of them again. */
const KNOWN_CHARS = 24_000_000;

/** An outline beside its job. */
export interface OutlineFile {
  /** The SHA-256 of its bytes. */
  readonly id: string;
  /** As `packPath` makes them. */
  readonly bytes: Bytes;
}

/** A job value whose long outlines lie beside it: where the job had `path` it has `curves`, the id of the file. */
export interface JobApart {
  readonly value: unknown;
  readonly files: readonly OutlineFile[];
}

/**
 * Puts the long outlines of jobs into files of their own, known by their hash: those edited by hand, and drawings that came in as outlines. So a job that is
 * saved anew, and each of its versions, writes what has changed alone.
 */
export class OutlineFiles {
  private readonly known = new Memo<OutlineFile>(KNOWN_CHARS);

  /** @param value a job, or what should have been one: nothing but its outlines is looked at. */
  async apart(value: unknown): Promise<JobApart> {
    const texts = longPaths(value);
    if (texts.size === 0) return { value, files: [] };
    const files = new Map<string, OutlineFile>();
    for (const text of texts) {
      const file = this.known.get(text) ?? (await fileOf(text));
      if (file === undefined) continue;
      this.known.set(text, file, text.length);
      files.set(text, file);
    }
    const changed = withOutlines(value, (outline) => {
      const { path, ...rest } = outline;
      const file = files.get(path as string);
      return file === undefined ? outline : { ...rest, curves: file.id };
    });
    return { value: changed, files: [...new Map([...files.values()].map((file) => [file.id, file])).values()] };
  }

  /**
   * Reads outlines, beside what is going on, for the jobs that name them.
   * @param mostChars of all of them together; what is more cannot be read.
   * @returns what gives a job value back as it was. It throws AppError `badJob` when one of its outlines is not there or cannot be read.
   */
  async read(files: readonly OutlineFile[], mostChars = Infinity): Promise<(value: unknown, file?: string) => unknown> {
    const paths = new Map<string, string | undefined>();
    let room = mostChars;
    for (const file of files) {
      const path = await pathIn(file.bytes, Math.min(room, MAX_HELD_CHARS));
      paths.set(file.id, path);
      if (path === undefined) continue;
      room -= path.length;
      this.known.set(path, file, path.length);
    }
    return (value, file = say('The job')) =>
      withOutlines(value, (outline) => {
        const { curves, ...rest } = outline;
        if (typeof curves !== 'string') return outline;
        const path = paths.get(curves);
        if (path !== undefined) return { ...rest, path };
        throw new AppError('badJob', { file, reason: paths.has(curves) ? say('an outline that belongs to it cannot be read') : say('an outline that belongs to it is missing') });
      });
  }
}

async function fileOf(text: string): Promise<OutlineFile | undefined> {
  const bytes = await inTurns(packPath(text));
  return bytes === undefined ? undefined : { id: await sha256Of(bytes), bytes };
}

/** The path that packed bytes hold; undefined when they hold none, or a longer one. */
async function pathIn(bytes: Bytes, maxChars: number): Promise<string | undefined> {
  try {
    return await inTurns(unpackPath(bytes, maxChars));
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    return undefined;
  }
}

function longPaths(value: unknown): Set<string> {
  const texts = new Set<string>();
  eachOutline(value, ({ path }) => void (typeof path === 'string' && path.length >= LONG_OUTLINE_CHARS && texts.add(path)));
  return texts;
}
