import sharp from 'sharp';
import { liftSubject, type SubjectStroke } from '../src/core/clean/subject/liftSubject.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { distanceInside } from '../src/core/raster/distance.ts';
import { labelRegions, largestRegion } from '../src/core/raster/labelRegions.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { oneColourDrawings, randomFrom } from './drawings.ts';
import { photographOf, SCENES } from './photographs.ts';

const SIZE = 512;
const INKS = ['#22375f', '#b5482c', '#e0bf6a', '#3f5b3a', '#241b2f', '#8fb3c9', '#9e2f4b', '#f7f4ee', '#6b6f73'];
export const GROUNDS = ['softened photograph', 'paper in uneven light', 'plain with a soft shadow'] as const;
export type Ground = (typeof GROUNDS)[number];

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

/**
 * What a camera sees out of focus: overlapping leaves of all sizes in many colours (A. B. Lee, D. Mumford & J. Huang, IJCV 41, 2001,
 * doi:10.1023/A:1011109015675), softened.
 */
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

/** The picture of one of the benches, every second one with some noise, and its subject. */
export async function flatArtOver(ground: Ground, seed: number): Promise<{ picture: Rgba8; art: Uint8Array }> {
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
  return { picture: makeRgba8(SIZE, SIZE, picture, true), art: Uint8Array.from({ length: SIZE * SIZE }, (_, i) => art[i * 4 + 3]) };
}

function comparedWith(alpha: Uint8Array, truth: Uint8Array): { overlap: number; error: number } {
  let both = 0;
  let either = 0;
  let error = 0;
  for (let i = 0; i < alpha.length; i++) {
    const [found, there] = [alpha[i] >= 128, truth[i] >= 128];
    if (found && there) both++;
    if (found || there) either++;
    error += Math.abs(alpha[i] - truth[i]) / 255;
  }
  return { overlap: both / either, error: error / alpha.length };
}

/** Subject lift on flat art over grounds of three kinds, every second one with some noise: overlap with the truth and error of alpha. */
export async function benchSubjects(): Promise<void> {
  console.log('\n### Subject lift, 512 px, flat art\n\n| over | IoU | worst | alpha error | worst | ms |\n|---|---|---|---|---|---|');
  for (const ground of GROUNDS) {
    const overlaps: number[] = [];
    const errors: number[] = [];
    let ms = 0;
    for (let seed = 0; seed < 12; seed++) {
      const { picture, art } = await flatArtOver(ground, seed);
      const start = performance.now();
      const { alpha } = finish(liftSubject(artFromPicture(picture))).art;
      ms += performance.now() - start;
      const { overlap, error } = comparedWith(alpha, art);
      overlaps.push(overlap);
      errors.push(error);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) {
        console.log(ground, seed, overlaps.at(-1)?.toFixed(4), errors.at(-1)?.toFixed(4));
        await sharp(picture.data, { raw: { width: SIZE, height: SIZE, channels: 4 } }).png().toFile(`${process.env['LIMNER_BENCH_EACH']}/${ground.split(' ')[0]}-${seed}.png`);
      }
    }
    const mean = (values: number[]): number => values.reduce((a, b) => a + b) / values.length;
    console.log(`| ${ground} | ${mean(overlaps).toFixed(4)} | ${Math.min(...overlaps).toFixed(4)} | ${mean(errors).toFixed(4)} | ${Math.max(...errors).toFixed(4)} | ${(ms / 12).toFixed(0)} |`);
  }
}

const STROKES = 3;
const STROKE_PX = 9;
/** Below this overlap one shows first what the subject is; else one strokes over what is wrong. */
const SHOWN = 0.8;
/** Smaller patches are not stroked over, px. */
const LEAST_PATCH = 200;

/** The stroke that one would draw over the largest patch that is wrong: between two of its deepest places. */
function strokeOver(found: Uint8Array, truth: Uint8Array): SubjectStroke | undefined {
  const wrong = Uint8Array.from(found, (v, i) => (v >= 128 === truth[i] >= 128 ? 0 : 1));
  const depth = distanceInside(wrong, SIZE, SIZE, 'free');
  const parts = labelRegions(wrong, SIZE, SIZE, 1, false);
  if (parts.count === 0) return undefined;
  const largest = largestRegion(parts);
  if (parts.area[largest] < LEAST_PATCH) return undefined;
  let deepest = -1;
  const inside: number[] = [];
  for (let run = 0; run < parts.runStart.length; run++) {
    if (parts.regionOfRun[run] !== largest) continue;
    for (let i = parts.runStart[run]; i < parts.runEnd[run]; i++) {
      inside.push(i);
      if (deepest < 0 || depth[i] > depth[deepest]) deepest = i;
    }
  }
  const from = [(deepest % SIZE) + 0.5, Math.floor(deepest / SIZE) + 0.5];
  const away = (i: number): number => Math.hypot((i % SIZE) + 0.5 - from[0], Math.floor(i / SIZE) + 0.5 - from[1]);
  const isStraight = (i: number): boolean => {
    const n = Math.ceil(away(i));
    for (let k = 1; k <= n; k++) if (wrong[Math.floor(from[1] + ((Math.floor(i / SIZE) + 0.5 - from[1]) * k) / n) * SIZE + Math.floor(from[0] + (((i % SIZE) + 0.5 - from[0]) * k) / n)] === 0) return false;
    return true;
  };
  const end = inside.filter((i) => depth[i] > depth[deepest] / 3).sort((a, b) => away(b) - away(a)).find(isStraight) ?? deepest;
  return { says: truth[deepest] >= 128 ? 'keep' : 'clear', radius: Math.max(2, Math.min(STROKE_PX, 0.6 * depth[deepest])), points: [...from, (end % SIZE) + 0.5, Math.floor(end / SIZE) + 0.5] };
}

/** Photographs of a kind by themselves, and with three strokes. */
export async function benchPhotographs(): Promise<void> {
  const count = 8;
  console.log('\n### Subject lift, 512 px, photographs\n\n| | IoU | worst | with 3 strokes | worst | ms |\n|---|---|---|---|---|---|');
  for (const kind of SCENES) {
    const alone: number[] = [];
    const stroked: number[] = [];
    let ms = 0;
    for (let seed = 1; seed <= count; seed++) {
      const { picture, alpha, strokes } = await photographOf(kind, seed);
      const art = artFromPicture(picture);
      const start = performance.now();
      alone.push(comparedWith(finish(liftSubject(art)).art.alpha, alpha).overlap);
      ms += performance.now() - start;
      const drawn: SubjectStroke[] = alone[alone.length - 1] < SHOWN ? strokes.map((stroke) => ({ ...stroke, radius: STROKE_PX })) : [];
      let found = finish(liftSubject(art, drawn)).art.alpha;
      while (drawn.length < STROKES) {
        const next = strokeOver(found, alpha);
        if (next === undefined) break;
        drawn.push(next);
        found = finish(liftSubject(art, drawn)).art.alpha;
      }
      stroked.push(comparedWith(found, alpha).overlap);
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(kind, seed, alone.at(-1)?.toFixed(4), stroked.at(-1)?.toFixed(4));
    }
    const mean = (values: number[]): string => (values.reduce((a, b) => a + b) / values.length).toFixed(4);
    console.log(`| ${kind} | ${mean(alone)} | ${Math.min(...alone).toFixed(4)} | ${mean(stroked)} | ${Math.min(...stroked).toFixed(4)} | ${(ms / count).toFixed(0)} |`);
  }
}
