import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { decodeFile } from '../cli/decodeFile.ts';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { liftSubject } from '../src/core/clean/subject/liftSubject.ts';
import { tidyEdges } from '../src/core/clean/tidyEdges.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { separateArt } from '../src/core/run/separateArt.ts';
import { finish } from '../src/core/task/task.ts';
import { colourLibraries } from './colourLibraries.ts';

/**
 * One thing done once to a large picture, in a process that has done nothing before; prints milliseconds and the megabytes that it took at its peak beside what
 * was there. Arguments: what, a picture file, the tones.
 */
const [what, file, ...tones] = process.argv.slice(2);
const bytes = new Uint8Array(await readFile(file));
const picture = what.startsWith('open') ? undefined : (await decodeFile(bytes, file)).picture;
const art = picture === undefined || what.includes('librar') ? undefined : artFromPicture(picture);
const raw = (): Parameters<typeof sharp>[1] => ({ raw: { width: picture?.width ?? 0, height: picture?.height ?? 0, channels: 4 } });
const layers = what === 'separate, library' ? (await colourLibraries()).find(({ name }) => name === 'layers') : undefined;

const WORK: Readonly<Record<string, () => unknown>> = {
  'open': () => decodeFile(bytes, file),
  'open, library': () => sharp(bytes).ensureAlpha().raw().toBuffer(),
  'area lift': () => art && finish(liftAt(art, 5, 5, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true })),
  'subject lift': () => art && finish(liftSubject(art)),
  'tidy': () => art && finish(tidyEdges(art, 1)),
  'tidy, library': () => picture && sharp(picture.data, raw()).median(3).raw().toBuffer(),
  'separate': () => art && finish(separateArt({ separation: { way: 'flat', count: tones.length, meet: 'stacked' }, films: newJob('').films, outline: { leastPieceMm2: 0 } }, art, DEFAULT_OUTLINE, () => 1)),
  'separate, library': () => picture && layers?.trace(picture, tones),
};

const before = process.memoryUsage.rss();
const start = performance.now();
await WORK[what]();
const ms = performance.now() - start;
console.log(JSON.stringify({ ms, mb: (process.resourceUsage().maxRSS * 1024 - before) / 1e6 }));
