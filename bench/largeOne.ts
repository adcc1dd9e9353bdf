import sharp from 'sharp';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { liftSubject } from '../src/core/clean/subject/liftSubject.ts';
import { tidyEdges } from '../src/core/clean/tidyEdges.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { separateArt } from '../src/core/run/separateArt.ts';
import type { Task } from '../src/core/task/task.ts';
import { colourLibraries } from './colourLibraries.ts';

let deaf = 0;

/** Runs a task to its end and notes how long it gives no way at most. */
function driven<Result>(task: Task<Result>): Result {
  for (;;) {
    const from = performance.now();
    const turn = task.next();
    deaf = Math.max(deaf, performance.now() - from);
    if (turn.done === true) return turn.value;
  }
}

/**
 * One thing done once to a large picture, in a process that has done nothing before; prints milliseconds, the longest of them for which a cancel is not heard, and
 * the megabytes that it took at its peak beside what was there. Arguments: what, a picture file, the tones.
 */
const [what, file, ...tones] = process.argv.slice(2);
const { data, info } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
const picture = makeRgba8(info.width, info.height, new Uint8Array(data.buffer, data.byteOffset, data.byteLength), true);
const art = artFromPicture(picture);
const layers = what === 'separate, library' ? (await colourLibraries()).find(({ name }) => name === 'layers') : undefined;

const WORK: Readonly<Record<string, () => unknown>> = {
  'area lift': () => driven(liftAt(art, 5, 5, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true })),
  'subject lift': () => driven(liftSubject(art)),
  tidy: () => driven(tidyEdges(art, 1)),
  'tidy, library': () => sharp(picture.data, { raw: { width: info.width, height: info.height, channels: 4 } }).median(3).raw().toBuffer(),
  separate: () => driven(separateArt({ separation: { way: 'flat', count: tones.length, meet: 'stacked' }, films: newJob('').films, outline: { leastPieceMm2: 0 } }, art, DEFAULT_OUTLINE, () => 1)),
  'separate, library': () => layers?.trace(picture, tones),
};

const before = process.memoryUsage.rss();
const start = performance.now();
await WORK[what]();
const ms = performance.now() - start;
console.log(JSON.stringify({ ms, deaf, mb: (process.resourceUsage().maxRSS * 1024 - before) / 1e6 }));
