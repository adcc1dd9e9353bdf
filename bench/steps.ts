import sharp, { type Sharp } from 'sharp';
import { levelLight } from '../src/core/clean/levelLight.ts';
import { applyLevels } from '../src/core/clean/levels.ts';
import { liftAt } from '../src/core/clean/liftAt.ts';
import { pickLines } from '../src/core/clean/pickLines.ts';
import { smoothNoise } from '../src/core/clean/sigmaFilter.ts';
import { sweepSpecks } from '../src/core/clean/sweepSpecks.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { labelRegions } from '../src/core/raster/labelRegions.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, randomFrom, svgOf } from './drawings.ts';

const RUNS = 3;
const [WIDTH, HEIGHT] = [4000, 3000];

async function best(work: () => unknown): Promise<number> {
  let least = Infinity;
  for (let run = 0; run < RUNS; run++) {
    const start = performance.now();
    await work();
    least = Math.min(least, performance.now() - start);
  }
  return least;
}

/** A drawing on paper whose light falls off, with sensor noise. */
async function scan(): Promise<Uint8Array> {
  const data = new Uint8Array(await sharp(Buffer.from(svgOf(oneColourDrawings()[9], 3000))).resize(WIDTH, HEIGHT, { fit: 'fill' }).flatten().ensureAlpha().raw().toBuffer());
  const random = randomFrom(3);
  const bell = Int8Array.from({ length: 4096 }, () => Math.round((random() + random() + random() + random() - 2) * 5));
  for (let i = 0, k = 0; i < data.length; i += 4, k = (k * 5 + 1) & 4095) {
    const light = 1 - 0.2 * ((i >> 2) / (WIDTH * HEIGHT));
    for (let c = 0; c < 3; c++) data[i + c] = Math.max(0, Math.min(255, data[i + c] * light + bell[(k + c * 977) & 4095]));
  }
  return data;
}

/** Each step on twelve megapixels beside the nearest operation of a native imaging library, which works on both cores; ours on one. */
export async function benchSteps(): Promise<void> {
  const data = await scan();
  const art = artFromPicture(makeRgba8(WIDTH, HEIGHT, data, true));
  const native = (change: (image: Sharp) => Sharp): Promise<number> => best(() => change(sharp(data, { raw: { width: WIDTH, height: HEIGHT, channels: 4 } }).removeAlpha()).raw().toBuffer());
  const ink = Uint8Array.from({ length: WIDTH * HEIGHT }, (_, i) => (data[i * 4] < 128 ? 1 : 0));
  const lifted = finish(liftAt(art, 5, 5, { tolerance: 12, everywhere: false, enclosed: false, soft: true })).art;
  const rows: [string, number, string, number | undefined][] = [
    ['levels', await best(() => applyLevels(art.colour, { black: 20, white: 230, gamma: 1.2, saturation: 1, invert: false })), 'linear and gamma', await native((image) => image.linear(1.2, -20).gamma(1.2))],
    ['smoothing', await best(() => finish(smoothNoise(art.colour, 16))), 'median 5 × 5', await native((image) => image.median(5))],
    ['light levelling', await best(() => finish(levelLight(art))), 'blur of 60 px, the light alone', await native((image) => image.blur(60))],
    ['line pick', await best(() => finish(pickLines(art, 0.4))), 'blur of 20 px and threshold', await native((image) => image.greyscale().blur(20).threshold(128))],
    ['area lift, tolerance given', await best(() => finish(liftAt(art, 5, 5, { tolerance: 12, everywhere: false, enclosed: false, soft: true }))), 'no such operation', undefined],
    ['labelling', await best(() => labelRegions(ink, WIDTH, HEIGHT, 1, true)), 'no such operation', undefined],
    ['sweep', await best(() => sweepSpecks(lifted, 40, 40)), 'median 7 × 7', await native((image) => image.greyscale().median(7))],
  ];
  console.log('\n### Steps, 12 megapixels, one drawing on shaded paper\n\n| step | ms | library | ms | ratio |\n|---|---|---|---|---|');
  for (const [name, ms, other, theirs] of rows) console.log(`| ${name} | ${ms.toFixed(0)} | ${other} | ${theirs?.toFixed(0) ?? '–'} | ${theirs === undefined ? '–' : (ms / theirs).toFixed(2)} |`);
}
