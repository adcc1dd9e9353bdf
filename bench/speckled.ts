import sharp from 'sharp';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { oneColourDrawings, randomFrom, svgOf } from './drawings.ts';

/** A small bit on a picture: its pixels, and whether it is ink. */
export interface Bit {
  readonly pixels: readonly number[];
  readonly ink: boolean;
}

export interface Speckled {
  readonly picture: Rgba8;
  readonly specks: readonly Bit[];
  readonly details: readonly Bit[];
}

const SIZE = 512;
const CLEARANCE = 4;

/** A drawing of one ink with 300 specks and pinholes of 1 to 12 px and 40 details of 15 to 24 px, worn as customers do. */
export async function speckled(seed: number, wear: 'clean' | 'jpeg80' | 'noise8'): Promise<Speckled> {
  const drawings = oneColourDrawings();
  const drawing = drawings[seed % drawings.length];
  const { data } = await sharp(Buffer.from(svgOf(drawing, SIZE)), { density: 72 }).resize(SIZE, SIZE).flatten({ background: '#fff' }).greyscale().raw().toBuffer({ resolveWithObject: true });
  const grey = new Uint8Array(data);
  const taken = Uint8Array.from(grey, (v) => (v > 8 && v < 247 ? 1 : 0));
  const random = randomFrom(seed * 77);
  const specks: Bit[] = [];
  const details: Bit[] = [];
  for (let tries = 0; tries < 60_000 && (specks.length < 300 || details.length < 40); tries++) {
    const isDetail = details.length < 40 && tries % 4 === 0;
    const bit = grown(random, grey, taken, isDetail ? 15 + Math.floor(random() * 10) : 1 + Math.floor(random() * 12));
    if (bit === undefined) continue;
    if (isDetail) details.push(bit);
    else if (specks.length < 300) specks.push(bit);
    else continue;
    for (const i of bit.pixels) block(taken, i);
  }
  for (const { pixels, ink } of [...specks, ...details]) for (const i of pixels) grey[i] = ink ? 20 : 255;
  return { picture: await worn(grey, wear), specks, details };
}

/** A compact bit of so many pixels at a random plain place, or undefined when it does not fit there. */
function grown(random: () => number, grey: Uint8Array, taken: Uint8Array, count: number): Bit | undefined {
  const start = (6 + Math.floor(random() * (SIZE - 12))) * SIZE + 6 + Math.floor(random() * (SIZE - 12));
  const level = grey[start];
  const pixels = [start];
  while (pixels.length < count) {
    const from = pixels[Math.floor(random() * pixels.length)];
    const next = from + [1, -1, SIZE, -SIZE][Math.floor(random() * 4)];
    if (!pixels.includes(next)) pixels.push(next);
  }
  for (const i of pixels) {
    const x = i % SIZE;
    const y = Math.floor(i / SIZE);
    if (x < CLEARANCE || y < CLEARANCE || x >= SIZE - CLEARANCE || y >= SIZE - CLEARANCE) return undefined;
    for (let dy = -CLEARANCE; dy <= CLEARANCE; dy++) for (let dx = -CLEARANCE; dx <= CLEARANCE; dx++) if (taken[i + dy * SIZE + dx] !== 0 || grey[i + dy * SIZE + dx] !== level) return undefined;
  }
  return { pixels, ink: level > 128 };
}

function block(taken: Uint8Array, i: number): void {
  taken[i] = 1;
}

async function worn(grey: Uint8Array, wear: 'clean' | 'jpeg80' | 'noise8'): Promise<Rgba8> {
  const raw = { raw: { width: SIZE, height: SIZE, channels: 1 as const } };
  let image = sharp(Buffer.from(grey), raw).toColourspace('srgb');
  if (wear === 'jpeg80') image = sharp(await image.jpeg({ quality: 80 }).toBuffer()).toColourspace('srgb');
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const out = new Uint8Array(SIZE * SIZE * 4);
  const random = randomFrom(31);
  for (let i = 0; i < SIZE * SIZE; i++) {
    for (let c = 0; c < 3; c++) {
      const value = data[i * info.channels + (info.channels >= 3 ? c : 0)];
      const noise = wear === 'noise8' ? 8 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()) : 0;
      out[i * 4 + c] = Math.max(0, Math.min(255, Math.round(value + noise)));
    }
    out[i * 4 + 3] = 255;
  }
  return makeRgba8(SIZE, SIZE, out, true);
}
