import { readFile } from 'node:fs/promises';
import { newJob } from '../src/core/job/newJob.ts';
import { separateArt } from '../src/core/run/separateArt.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { warmUp } from '../src/engine/warmUp.ts';
import { colourLibraries } from './colourLibraries.ts';

/**
 * Traces one picture once, in a process that has done nothing before, or nothing but to warm up, and prints the milliseconds that took. Arguments: who, width,
 * height, a file of RGBA bytes, the tones.
 */
const [who, width, height, file, ...tones] = process.argv.slice(2);
const picture = makeRgba8(Number(width), Number(height), new Uint8Array(await readFile(file)), true);
const library = who === 'limner' || who === 'warmed' ? undefined : (await colourLibraries()).find(({ name }) => name === who);
const job = { separation: { way: 'flat', count: tones.length, meet: 'stacked' }, films: newJob('').films, outline: { leastPieceMm2: 0 } } as const;
if (who === 'warmed') await warmUp(() => true);
const start = performance.now();
if (library === undefined) finish(separateArt(job, artFromPicture(picture), DEFAULT_OUTLINE, () => 1));
else await library.trace(picture, tones);
console.log(performance.now() - start);
