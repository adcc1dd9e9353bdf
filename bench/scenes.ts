import sharp from 'sharp';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { randomFrom } from './drawings.ts';

/** A drawing in a few flat tones, with the tone of every pixel. */
export interface Scene {
  readonly svg: string;
  readonly size: number;
  readonly tones: readonly string[];
}

/** Paints of the boat shed; neighbours in the list are told apart easily, some pairs are near. */
const PAINTS = ['#ffffff', '#22375f', '#b5482c', '#e0bf6a', '#3f5b3a', '#241b2f', '#8fb3c9', '#d9cfc1', '#9e2f4b', '#6b6f73', '#f2e3c6', '#5a86a8'];
const SIZE = 512;

/** A seeded scene of `count` tones: areas, rings, bars down to two pixels, and lettering-like marks on a plain ground. */
export function sceneOf(seed: number, count: number): Scene {
  const random = randomFrom(seed);
  const tones = PAINTS.map((paint) => ({ paint, at: random() })).sort((a, b) => a.at - b.at).slice(0, count).map(({ paint }) => paint);
  const [ground, ...inks] = tones;
  const pick = (): string => inks[Math.floor(random() * inks.length)];
  const n = (least: number, most: number): number => Math.round((least + random() * (most - least)) * 10) / 10;
  const parts = inks.map((ink) => `<ellipse cx="${n(120, 392)}" cy="${n(120, 392)}" rx="${n(50, 130)}" ry="${n(50, 130)}" fill="${ink}"/>`);
  for (let k = 0; k < 5; k++) parts.push(`<circle cx="${n(60, 452)}" cy="${n(60, 452)}" r="${n(14, 50)}" fill="none" stroke="${pick()}" stroke-width="${n(3, 14)}"/>`);
  for (let k = 0; k < 4; k++) parts.push(`<path d="M${n(20, 492)} ${n(20, 492)}L${n(20, 492)} ${n(20, 492)}" stroke="${pick()}" stroke-width="${n(2.5, 12)}"/>`);
  for (let k = 0; k < 4; k++) parts.push(`<path d="M${n(40, 440)} ${n(40, 440)}q30 -40 60 0t60 0" fill="none" stroke="${pick()}" stroke-width="${n(3, 9)}"/>`);
  for (let k = 0; k < 6; k++) parts.push(`<rect x="${n(30, 440)}" y="${n(30, 440)}" width="${n(8, 50)}" height="${n(8, 50)}" fill="${pick()}" transform="rotate(${n(0, 90)} 256 256)"/>`);
  return { svg: `<rect width="512" height="512" fill="${ground}"/>${parts.join('')}`, size: SIZE, tones };
}

const wrapped = ({ svg, size }: Scene, crisp: boolean): Buffer => Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"${crisp ? ' shape-rendering="crispEdges"' : ''}>${svg}</svg>`);

export const rgbOf = (hex: string): [number, number, number] => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)) as [number, number, number];

/** Index into the scene's tones for each pixel, by its middle. */
export async function truthOf(scene: Scene): Promise<Uint8Array> {
  const { data } = await sharp(wrapped(scene, true)).flatten().removeAlpha().raw().toBuffer({ resolveWithObject: true });
  const tones = scene.tones.map(rgbOf);
  const labels = new Uint8Array(data.length / 3);
  for (let i = 0; i < labels.length; i++) labels[i] = nearest(tones, data[i * 3], data[i * 3 + 1], data[i * 3 + 2]);
  return labels;
}

export function nearest(tones: readonly (readonly [number, number, number])[], r: number, g: number, b: number): number {
  let best = 0;
  for (let k = 1; k < tones.length; k++) {
    const d = (t: readonly [number, number, number]): number => (t[0] - r) ** 2 + (t[1] - g) ** 2 + (t[2] - b) ** 2;
    if (d(tones[k]) < d(tones[best])) best = k;
  }
  return best;
}

export type Wear = 'clean' | 'jpeg40' | 'noise8';

export async function pictureOfScene(scene: Scene, wear: Wear): Promise<Rgba8> {
  let image = sharp(wrapped(scene, false)).flatten({ background: '#fff' });
  if (wear === 'jpeg40') image = sharp(await image.jpeg({ quality: 40 }).toBuffer());
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const bytes = new Uint8Array(data);
  if (wear === 'noise8') {
    const random = randomFrom(9);
    for (let i = 0; i < bytes.length; i++) {
      if (i % 4 === 3) continue;
      bytes[i] = Math.max(0, Math.min(255, Math.round(bytes[i] + 8 * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random()))));
    }
  }
  return makeRgba8(info.width, info.height, bytes, true);
}
