import sharp from 'sharp';
import { tidyEdges } from '../src/core/clean/tidyEdges.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { blurred } from '../src/core/clean/planes.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, randomFrom, svgOf } from './drawings.ts';

const SIDE = 512;

/** The drawing with edges jagged by up to `amount` px: pixels are taken from where a coarse random field shifts them, with no mixed ones. */
function jagged(truth: Uint8Array, amount: number, seed: number): Uint8Array {
  const random = randomFrom(seed);
  const field = (): Float32Array => {
    const rough = blurred(Float32Array.from({ length: SIDE * SIDE }, () => random() - 0.5), SIDE, SIDE, 1.3);
    const most = rough.reduce((a, b) => Math.max(a, Math.abs(b)), 0);
    return rough.map((v) => (v / most) * amount * 1.6);
  };
  const [dx, dy] = [field(), field()];
  const out = new Uint8Array(SIDE * SIDE * 4).fill(255);
  for (let y = 0; y < SIDE; y++) {
    for (let x = 0; x < SIDE; x++) {
      const i = y * SIDE + x;
      const sx = Math.max(0, Math.min(SIDE - 1, Math.round(x + dx[i])));
      const sy = Math.max(0, Math.min(SIDE - 1, Math.round(y + dy[i])));
      out.fill(truth[(sy * SIDE + sx) * 4] >= 128 ? 255 : 20, i * 4, i * 4 + 3);
    }
  }
  return out;
}

/** Mean distance between the outlines, px: the area between them over the length of the true one. */
function distance(found: Uint8Array, truth: Uint8Array): number {
  let [wrong, length] = [0, 0];
  for (let i = 0; i < SIDE * SIDE - SIDE; i++) {
    wrong += Math.abs(found[i * 4] - truth[i * 4]) / 235;
    if (truth[i * 4] >= 128 !== truth[i * 4 + 4] >= 128 || truth[i * 4] >= 128 !== truth[(i + SIDE) * 4] >= 128) length++;
  }
  return wrong / length;
}

/** Edge tidying on jagged drawings, beside a median filter of the same reach. */
export async function benchTidying(): Promise<void> {
  console.log('\n### Edge tidying, jags of so many px\n\n| px | jagged: outline distance px | tidied | median filter | ms |\n|---|---|---|---|---|');
  for (const amount of [1, 2, 3]) {
    const sums = [0, 0, 0, 0];
    const drawings = oneColourDrawings();
    for (const [seed, drawing] of drawings.entries()) {
      const truth = new Uint8Array(await sharp(Buffer.from(svgOf(drawing, SIDE))).ensureAlpha().raw().toBuffer());
      const rough = jagged(truth, amount, seed + 1);
      const start = performance.now();
      const tidy = finish(tidyEdges(artFromPicture(makeRgba8(SIDE, SIDE, rough, true)), amount)).art.colour.data as Uint8Array;
      sums[3] += performance.now() - start;
      const median = await sharp(rough, { raw: { width: SIDE, height: SIDE, channels: 4 } }).median(2 * amount + 1).raw().toBuffer();
      const scores = [distance(rough, truth), distance(tidy, truth), distance(new Uint8Array(median), truth)];
      scores.forEach((score, k) => (sums[k] += score));
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) {
        console.log(amount, drawing.name, scores.map((v) => v.toFixed(3)).join(' '));
        await sharp(tidy, { raw: { width: SIDE, height: SIDE, channels: 4 } }).png().toFile(`${process.env['LIMNER_BENCH_EACH']}/tidy-${amount}-${seed}.png`);
        await sharp(rough, { raw: { width: SIDE, height: SIDE, channels: 4 } }).png().toFile(`${process.env['LIMNER_BENCH_EACH']}/rough-${amount}-${seed}.png`);
      }
    }
    console.log(`| ${amount} | ${sums.map((sum, k) => (sum / drawings.length).toFixed(k === 3 ? 0 : 3)).join(' | ')} |`);
  }
}
