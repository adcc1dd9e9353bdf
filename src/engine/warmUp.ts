import { isAppError } from '../core/errors/appError.ts';
import { newJob } from '../core/job/newJob.ts';
import { propose, startedWith } from '../core/propose/propose.ts';
import { makeRgba8, type Rgba8 } from '../core/raster/raster.ts';
import { drain } from './drain.ts';
import { cleanPart, cutJob } from '../core/run/runJob.ts';
import { tracedPart } from '../core/job/tracedPart.ts';

/** Side of the drawing that is run through, px: large enough for its loops to be compiled, small enough to be done in a moment. */
const SIDE_PX = 360;
const TONES = ['#ffffff', '#22375f', '#bf5430', '#e3bf73', '#8fb3c9'].map((hex) => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)));

/**
 * Runs a drawing of its own from first look to films, so that the code that the first picture needs is compiled while that picture is being chosen. Leaves
 * nothing behind.
 * @param isWanted false as soon as there is real work: it ends then.
 */
export async function warmUp(isWanted: () => boolean): Promise<void> {
  try {
    await fromLookToFilms(() => !isWanted());
  } catch (error) {
    if (!isAppError(error) || error.code !== 'cancelled') throw error;
  }
}

async function fromLookToFilms(isStale: () => boolean): Promise<void> {
  const picture = drawing();
  const job = newJob('Warming up');
  const { proposals } = await drain(propose(job, picture, []), isStale);
  for (const proposal of proposals) {
    const started = startedWith(job, proposal);
    const part = tracedPart(started);
    const clean = await drain(cleanPart(part, picture, 'warm'), isStale);
    await drain(cutJob(started, new Map([[part.id, clean]])), isStale);
  }
}

/** Discs, rings, bars and rays in five tones, with mixed pixels along their edges. */
function drawing(): Rgba8 {
  const data = new Uint8Array(SIDE_PX * SIDE_PX * 4).fill(255);
  for (let y = 0, i = 0; y < SIDE_PX; y++) {
    for (let x = 0; x < SIDE_PX; x++, i += 4) {
      shapesAt(x + 0.5, y + 0.5, (tone, share) => {
        for (let c = 0; c < 3; c++) data[i + c] += (TONES[tone][c] - data[i + c]) * share;
      });
    }
  }
  return makeRgba8(SIDE_PX, SIDE_PX, data, true);
}

/** Tells the shapes that cover a pixel, lowest first, and how much of it. */
function shapesAt(x: number, y: number, paint: (tone: number, share: number) => void): void {
  const covered = (inside: number): number => Math.max(0, Math.min(1, inside + 0.5));
  const disc = (cx: number, cy: number, r: number): number => r - Math.hypot(x - cx, y - cy);
  const wave = 14 * Math.sin(x / 17);
  paint(1, covered(disc(210, 210, 180)));
  paint(4, covered(Math.min(disc(210, 210, 166), y - 250 - wave)));
  paint(3, covered(disc(286, 130, 44)));
  paint(2, covered(Math.min(disc(210, 210, 150), 9 - Math.abs(y - 300 - wave))));
  paint(0, covered(Math.min(y - 90, 240 - y, (y - 80) * 0.6 - Math.abs(x - 170))));
  for (let k = 0; k < 7; k++) {
    paint(k % 2 === 0 ? 0 : 3, covered(4.5 - Math.abs(Math.hypot(x - 90 - k * 40, y - 345) - 12)));
    paint(2, covered(Math.min(2.2 - Math.abs((x - 286) * Math.sin(k) - (y - 130) * Math.cos(k)), disc(286, 130, 70), Math.hypot(x - 286, y - 130) - 50)));
  }
}
