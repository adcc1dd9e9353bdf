import { forEdges, writeForEdges } from '../../colour/edgeMetric.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Rgba8 } from '../../raster/raster.ts';
import type { Task } from '../../task/task.ts';
import { broadCores } from './broadCores.ts';
import { lowestOf, SetsAround } from '../setsAround.ts';

/** How far around a pixel the ground of its stroke is looked for, px: past the edge of the stroke, or else past the strokes beside it in small lettering. */
const NEAR = 7;
const FAR = 12;
/** What differs from its ground by less than this, levels of 255 as edges weigh them, is what compression leaves beside strokes. */
const LEAST_APART = 24;
const ROWS_PER_TURN = 64;
const NONE = 255;

export interface TonedArt {
  readonly smooth: Rgba8;
  /** The nearest tone of every pixel. */
  readonly nearest: Uint8Array;
  /** 1 inside areas of one tone. */
  readonly core: Uint8Array;
  readonly tones: readonly Rgb[];
}

/** Strokes, each the pixels that hang together, also over corners, and differ from the one tone around them. */
export interface Strokes {
  readonly pixels: readonly number[];
  /** Where each stroke begins in them; one more at the end. */
  readonly starts: readonly number[];
  /** The tone around each. */
  readonly grounds: readonly number[];
}

/** The strokes of an art that are too thin to have an inside, and what lies around them: strokes that touch, as those of a letter do, are one. */
export function* findStrokes(art: TonedArt): Task<Strokes> {
  const { width, height } = art.smooth;
  const { grounds, apart } = yield* apartFromGround(art);
  const strokes = { pixels: [] as number[], starts: [0], grounds: [] as number[] };
  for (const start of apart) {
    if (grounds[start] === NONE) continue;
    strokes.grounds.push(grounds[start]);
    collect(start, grounds, strokes.pixels, width, height);
    strokes.starts.push(strokes.pixels.length);
  }
  return strokes;
}

/** The pixels that may be of a stroke, and the ground of each: the only tone with an inside nearby, from which the pixel differs. `NONE` elsewhere. */
function* apartFromGround({ smooth, nearest, core: all, tones }: TonedArt): Task<{ grounds: Uint8Array; apart: number[] }> {
  const { width, height, data } = smooth;
  const core = broadCores(nearest, all, width, height);
  const edge = forEdges(tones);
  const own = new Float64Array(3);
  const grounds = new Uint8Array(nearest.length).fill(NONE);
  const apart: number[] = [];
  const near = new SetsAround(nearest, core, width, height, NEAR);
  const far = new SetsAround(nearest, core, width, height, FAR);
  for (let y = 0; y < height; y++) {
    near.toRow(y);
    far.toRow(y);
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (core[i] !== 0) continue;
      const around = near.around(x) || far.around(x);
      if (around === 0 || (around & (around - 1)) !== 0) continue;
      const ground = lowestOf(around);
      writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], own, 0);
      const g = 3 * ground;
      if ((own[0] - edge[g]) ** 2 + (own[1] - edge[g + 1]) ** 2 + (own[2] - edge[g + 2]) ** 2 < LEAST_APART ** 2) continue;
      grounds[i] = ground;
      apart.push(i);
    }
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield y / height;
  }
  return { grounds, apart };
}

/** Takes what hangs together with a pixel out of the grounds. */
function collect(start: number, grounds: Uint8Array, pixels: number[], width: number, height: number): void {
  const ground = grounds[start];
  let head = pixels.length;
  pixels.push(start);
  grounds[start] = NONE;
  for (; head < pixels.length; head++) {
    const x = pixels[head] % width;
    const y = (pixels[head] - x) / width;
    for (let v = Math.max(0, y - 1); v <= Math.min(height - 1, y + 1); v++) {
      for (let j = v * width + Math.max(0, x - 1), last = v * width + Math.min(width - 1, x + 1); j <= last; j++) {
        if (grounds[j] !== ground) continue;
        grounds[j] = NONE;
        pixels.push(j);
      }
    }
  }
}
