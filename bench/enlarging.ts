import sharp from 'sharp';
import { cubicEnlarged } from '../src/core/clean/cubicEnlarged.ts';
import { drawnLarger } from '../src/core/run/drawnLarger.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, svgOf } from './drawings.ts';
import { sceneOf, type Scene } from './scenes.ts';

const SMALL = 128;

const sceneSvg = ({ svg, size }: Scene): string => `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}" viewBox="0 0 ${size} ${size}">${svg}</svg>`;

async function raster(svg: string, pixels: number): Promise<Uint8Array> {
  // Drawn eight times as large and averaged, so that mixed pixels hold exactly the share that they should.
  const large = await sharp(Buffer.from(svg.replace(/width="\d+" height="\d+"/, `width="${pixels * 4}" height="${pixels * 4}"`))).flatten({ background: '#fff' }).png().toBuffer();
  return new Uint8Array(await sharp(large).resize(pixels, pixels, { kernel: 'linear' }).ensureAlpha().raw().toBuffer());
}

/** Mean difference from the truth in the pixels near edges, levels, and the distance between the half-way outlines, px of the enlarged picture. */
function scored(found: Uint8Array, truth: Uint8Array, side: number): { levels: number; edgePx: number } {
  let [sum, near, wrong, length] = [0, 0, 0, 0];
  for (let y = 1; y < side - 1; y++) {
    for (let x = 1; x < side - 1; x++) {
      const i = (y * side + x) * 4 + 1;
      const edge = Math.max(Math.abs(truth[i + 4] - truth[i - 4]), Math.abs(truth[i + side * 4] - truth[i - side * 4]));
      if (edge > 60) {
        near++;
        sum += Math.abs(found[i] - truth[i]);
      }
      // The area between both outlines, over the length of the true one.
      if (found[i] >= 128 !== truth[i] >= 128) wrong++;
      if (truth[i] >= 128 !== truth[i + 4] >= 128 || truth[i] >= 128 !== truth[i + side * 4] >= 128) length++;
    }
  }
  return { levels: sum / near, edgePx: wrong / length };
}

/** Enlarging of small pictures beside cubic convolution and an imaging library. */
export async function benchEnlarging(): Promise<void> {
  const drawings = [...oneColourDrawings().slice(0, 8).map((drawing) => svgOf(drawing, 512)), ...[1, 2, 3, 4].map((seed) => sceneSvg(sceneOf(seed, 3 + seed)))];
  console.log(`\n### Enlarging from ${SMALL} px\n\n| | levels near edges | outline distance px |\n|---|---|---|`);
  for (const times of [2, 4] as const) {
    const side = SMALL * times;
    const rows: Record<string, { levels: number; edgePx: number }[]> = {};
    for (const svg of drawings) {
      const [small, truth] = await Promise.all([raster(svg, SMALL), raster(svg, side)]);
      const ours = finish(drawnLarger(artFromPicture(makeRgba8(SMALL, SMALL, small, true)), times)).colour.data as Uint8Array;
      (rows[`${times}×, ours`] ??= []).push(scored(ours, truth, side));
      const cubic = new Uint8Array(side * side * 4);
      for (let c = 0; c < 4; c++) cubicEnlarged(Float32Array.from({ length: SMALL * SMALL }, (_, i) => small[i * 4 + c]), SMALL, SMALL, times).forEach((v, i) => (cubic[i * 4 + c] = Math.max(0, Math.min(255, v))));
      (rows[`${times}×, cubic`] ??= []).push(scored(cubic, truth, side));
      const theirs = await sharp(small, { raw: { width: SMALL, height: SMALL, channels: 4 } }).resize(side, side, { kernel: 'lanczos3' }).raw().toBuffer();
      (rows[`${times}×, imaging library`] ??= []).push(scored(new Uint8Array(theirs), truth, side));
    }
    for (const [name, scores] of Object.entries(rows)) {
      const mean = (pick: (score: { levels: number; edgePx: number }) => number): string => (scores.reduce((sum, score) => sum + pick(score), 0) / scores.length).toFixed(3);
      console.log(`| ${name} | ${mean(({ levels }) => levels)} | ${mean(({ edgePx }) => edgePx)} |`);
    }
  }
}
