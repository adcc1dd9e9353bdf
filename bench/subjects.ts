import sharp from 'sharp';
import { liftSubject } from '../src/core/clean/subject/liftSubject.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, randomFrom } from './drawings.ts';

const SIZE = 512;
const INKS = ['#22375f', '#b5482c', '#e0bf6a', '#3f5b3a', '#241b2f', '#8fb3c9', '#9e2f4b', '#f7f4ee', '#6b6f73'];
const GROUNDS = ['softened photograph', 'paper in uneven light', 'plain with a soft shadow'] as const;
type Ground = (typeof GROUNDS)[number];

const svg = (inner: string): Buffer => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}">${inner}</svg>`);

/** Flat art in three tones on nothing: one drawing of the outline bench cut out of, or laid on, a backing shape, some of it loose. */
async function flatArt(seed: number, random: () => number): Promise<Uint8Array> {
  const drawings = oneColourDrawings();
  const drawing = drawings[seed % drawings.length];
  const [back, front, mark] = INKS.map((ink) => ({ ink, at: random() })).sort((a, b) => a.at - b.at).map(({ ink }) => ink);
  const r = 90 + random() * 60;
  const backing = random() < 0.6 ? `<ellipse cx="256" cy="256" rx="${r * 1.25}" ry="${r}" fill="${back}"/><circle cx="256" cy="${256 - r * 0.5}" r="${r * 0.2}" fill="${mark}"/>` : '';
  const scale = 0.55 + random() * 0.2;
  const shift = `translate(${256 - 256 * scale} ${256 - 256 * scale}) scale(${scale})`;
  const data = await sharp(svg(`${backing}<path d="${drawing.path}" fill="${front}" fill-rule="evenodd" transform="${shift}"/>`)).ensureAlpha().raw().toBuffer();
  return new Uint8Array(data);
}

/** What a camera sees out of focus: overlapping leaves of all sizes in many colours (A. B. Lee, D. Mumford & J. Huang, IJCV 41, 2001, doi:10.1023/A:1011109015675), softened. */
async function softPhotograph(random: () => number): Promise<Uint8Array> {
  const leaves = Array.from({ length: 260 }, () => {
    const radius = 6 / Math.max(0.05, random()) ** 0.9;
    const shade = (): number => Math.round(20 + random() * 215);
    return `<ellipse cx="${random() * SIZE}" cy="${random() * SIZE}" rx="${radius}" ry="${radius * (0.4 + random())}" fill="rgb(${shade()},${shade()},${shade()})" transform="rotate(${random() * 90} 256 256)"/>`;
  });
  const sharpOne = await sharp(svg(`<rect width="512" height="512" fill="#7a8a80"/>${leaves.join('')}`)).flatten().png().toBuffer();
  return new Uint8Array(await sharp(sharpOne).blur(3 + random() * 4).removeAlpha().raw().toBuffer());
}

function evenGround(random: () => number, ground: Ground): Uint8Array {
  const out = new Uint8Array(SIZE * SIZE * 3);
  const base = ground === 'paper in uneven light' ? [238 + random() * 17, 236 + random() * 16, 228 + random() * 18] : [100 + random() * 150, 100 + random() * 150, 100 + random() * 150];
  const fall = ground === 'paper in uneven light' ? 0.1 + random() * 0.2 : 0;
  const [cx, cy] = [random() * SIZE, random() * SIZE];
  for (let i = 0; i < SIZE * SIZE; i++) {
    const light = 1 - fall * Math.min(1, Math.hypot((i % SIZE) - cx, Math.floor(i / SIZE) - cy) / SIZE) ** 1.5;
    for (let c = 0; c < 3; c++) out[i * 3 + c] = base[c] * light;
  }
  return out;
}

async function shadowOf(art: Uint8Array, random: () => number): Promise<Float32Array> {
  const [dx, dy] = [Math.round(3 + random() * 9), Math.round(4 + random() * 9)];
  const moved = new Uint8Array(SIZE * SIZE);
  for (let y = dy; y < SIZE; y++) for (let x = dx; x < SIZE; x++) moved[y * SIZE + x] = art[((y - dy) * SIZE + x - dx) * 4 + 3];
  const soft = await sharp(moved, { raw: { width: SIZE, height: SIZE, channels: 1 } }).blur(4 + random() * 7).extractChannel(0).raw().toBuffer();
  const strength = 0.25 + random() * 0.3;
  return Float32Array.from(soft, (v) => 1 - (strength * v) / 255);
}

/** Subject lift on flat art over grounds of three kinds, every second one with some noise: overlap with the truth and error of alpha. */
export async function benchSubjects(): Promise<void> {
  console.log('\n### Subject lift, 512 px, flat art\n\n| over | IoU | worst | alpha error | worst | ms |\n|---|---|---|---|---|---|');
  for (const ground of GROUNDS) {
    const overlaps: number[] = [];
    const errors: number[] = [];
    let ms = 0;
    for (let seed = 0; seed < 12; seed++) {
      const random = randomFrom(seed * 31 + ground.length);
      const art = await flatArt(seed, random);
      const under = ground === 'softened photograph' ? await softPhotograph(random) : evenGround(random, ground);
      const shadow = ground === 'plain with a soft shadow' ? await shadowOf(art, random) : undefined;
      const picture = new Uint8Array(SIZE * SIZE * 4).fill(255);
      const sigma = (seed % 2) * 2;
      for (let i = 0; i < SIZE * SIZE; i++) {
        const a = art[i * 4 + 3] / 255;
        for (let c = 0; c < 3; c++) {
          const noise = sigma * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
          picture[i * 4 + c] = Math.max(0, Math.min(255, Math.round(art[i * 4 + c] * a + under[i * 3 + c] * (shadow?.[i] ?? 1) * (1 - a) + noise)));
        }
      }
      const start = performance.now();
      const { alpha } = finish(liftSubject(artFromPicture(makeRgba8(SIZE, SIZE, picture, true)))).art;
      ms += performance.now() - start;
      let both = 0;
      let either = 0;
      let error = 0;
      for (let i = 0; i < alpha.length; i++) {
        const [found, there] = [alpha[i] >= 128, art[i * 4 + 3] >= 128];
        if (found && there) both++;
        if (found || there) either++;
        error += Math.abs(alpha[i] - art[i * 4 + 3]) / 255;
      }
      overlaps.push(both / either);
      errors.push(error / alpha.length);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) {
        console.log(ground, seed, overlaps.at(-1)?.toFixed(4), errors.at(-1)?.toFixed(4));
        await sharp(picture, { raw: { width: SIZE, height: SIZE, channels: 4 } }).png().toFile(`${process.env['LIMNER_BENCH_EACH']}/${ground.split(' ')[0]}-${seed}.png`);
      }
    }
    const mean = (values: number[]): number => values.reduce((a, b) => a + b) / values.length;
    console.log(`| ${ground} | ${mean(overlaps).toFixed(4)} | ${Math.min(...overlaps).toFixed(4)} | ${mean(errors).toFixed(4)} | ${Math.max(...errors).toFixed(4)} | ${(ms / 12).toFixed(0)} |`);
  }
}
