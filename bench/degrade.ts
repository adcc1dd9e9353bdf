import sharp from 'sharp';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { randomFrom, svgOf, type Drawing } from './drawings.ts';

/** `steps`: as drawn without mixed pixels, which the caller sees to. */
export type Condition = 'clean' | 'jpeg40' | 'small' | 'noise8' | 'steps';
export const CONDITIONS: readonly Condition[] = ['clean', 'jpeg40', 'small', 'noise8'];

/** The drawing as a picture in one of the conditions in which customers send them. */
export const pictureOf = (drawing: Drawing, condition: Condition, pixels?: number): Promise<Rgba8> => degraded((side) => svgOf(drawing, side), condition, pixels);

/** A square SVG, asked for at a size in px, as such a picture. */
export async function degraded(svg: (pixels: number) => string, condition: Condition, pixels = condition === 'small' ? 256 : 512): Promise<Rgba8> {
  let image = sharp(Buffer.from(svg(pixels)), { density: 72 }).resize(pixels, pixels).flatten({ background: '#fff' });
  if (condition === 'jpeg40') image = sharp(await image.jpeg({ quality: 40 }).toBuffer());
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  const bytes = new Uint8Array(data);
  if (condition === 'noise8') addNoise(bytes, 8, randomFrom(5));
  return makeRgba8(info.width, info.height, bytes, true);
}

function addNoise(bytes: Uint8Array, sigma: number, random: () => number): void {
  for (let i = 0; i < bytes.length; i++) {
    if (i % 4 === 3) continue;
    const gauss = Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    bytes[i] = Math.max(0, Math.min(255, Math.round(bytes[i] + sigma * gauss)));
  }
}
