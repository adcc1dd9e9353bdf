import sharp from 'sharp';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { sweepSpecks } from '../src/core/clean/sweepSpecks.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { oneTone } from '../src/core/separate/oneTone.ts';
import { outlineOf } from '../src/core/outline/traceOutline.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, svgOf } from './drawings.ts';
import { libraries } from './libraries.ts';

const RUNS = 3;
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];

async function timed(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let k = 0; k < RUNS; k++) {
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  return median(times);
}

async function largePicture(): Promise<{ picture: Rgba8; jpeg: Buffer }> {
  const jpeg = await sharp(Buffer.from(svgOf(oneColourDrawings()[1], 3464)), { density: 72 }).resize(3464, 3464).flatten({ background: '#fff' }).jpeg({ quality: 85 }).toBuffer();
  const { data, info } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { picture: makeRgba8(info.width, info.height, new Uint8Array(data), true), jpeg };
}

/** Milliseconds of each stage on a 12-megapixel picture, with the tracing library in WebAssembly beside the trace. */
export async function benchStages(): Promise<void> {
  const { picture, jpeg } = await largePicture();
  const art = artFromPicture(picture);
  const tone = oneTone(art, { source: 'threshold', threshold: 'auto', inkIs: 'auto' });
  const lifted = finish(liftAt(art, 5, 5, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true }));
  const wasm = (await libraries()).find(({ name }) => name === 'esm-potrace-wasm');
  const rows: [string, number][] = [
    ['decode (native)', await timed(() => sharp(jpeg).ensureAlpha().raw().toBuffer())],
    ['area lift, tolerance found', await timed(() => finish(liftAt(art, 5, 5, { tolerance: 'auto', everywhere: false, enclosed: false, soft: true })))],
    ['sweep', await timed(() => sweepSpecks(lifted.art, 40, 40))],
    ['separate, one tone', await timed(() => oneTone(art, { source: 'threshold', threshold: 'auto', inkIs: 'auto' }))],
    ['outline', await timed(() => outlineOf(tone.share))],
  ];
  console.log(`\n### Stages, ${((picture.width * picture.height) / 1e6).toFixed(1)} megapixels\n\n| stage | ms |\n|---|---|`);
  for (const [name, ms] of rows) console.log(`| ${name} | ${ms.toFixed(0)} |`);
  if (wasm === undefined) return;
  const theirs = await timed(() => wasm.trace(picture));
  console.log(`| ${wasm.name}, whole trace | ${theirs.toFixed(0)} |\n| **separate and outline, ratio** | ${((rows[3][1] + rows[4][1]) / theirs).toFixed(2)} |`);
}
