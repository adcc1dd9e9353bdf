import { lumaOf } from '../colour/hex.ts';
import { isRestless } from '../clean/isRestless.ts';
import { pictureFromArt, type Art } from '../raster/art.ts';
import { boxBlurred } from '../raster/boxBlur.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { resample } from '../raster/shrink.ts';

/**
 * Where the mean over 3 × 3 px differs from a drawing by more than this, levels of light or of alpha, so much more a level of noise, the drawing lacks something:
 * noise and the ripples of compression cancel out in it, a line or a dot that is not drawn does not. Restless art ripples over more pixels.
 */
const LACKING = 24;
const LACKING_RESTLESS = 60;
const LACKING_NOISY = 2;
/** So many times as much in one colour: compression keeps colour coarsely. */
const OF_COLOUR = 2.5;
/** So far around such a place the art's own pixels are taken, px, which pass into the drawing over so much. */
const AROUND_PX = 3;
const FADE_PX = 1.5;

/** Marks of an art's pixels. */
export interface Lacking {
  readonly width: number;
  readonly height: number;
  readonly marks: Uint8Array;
}

export const isLacking = ({ marks }: Lacking): boolean => marks.includes(1);

/** 1 for each pixel of an art of which a larger drawing, averaged over it and those around it, is something else. @param noise of the art, levels. */
export function lackingIn(drawn: Art, art: Art, noise: number): Lacking {
  const { width, height } = art;
  const now = resample(pictureFromArt(drawn), 0, 0, drawn.width, drawn.height, width, height).data;
  const was = pictureFromArt(art).data;
  const [red, green, blue, alpha, light] = [0, 1, 2, 3, 4].map(() => new Float32Array(width * height));
  for (let i = 0, j = 0; i < red.length; i++, j += 4) {
    red[i] = (now[j] * now[j + 3] - was[j] * was[j + 3]) / 255;
    green[i] = (now[j + 1] * now[j + 3] - was[j + 1] * was[j + 3]) / 255;
    blue[i] = (now[j + 2] * now[j + 3] - was[j + 2] * was[j + 3]) / 255;
    alpha[i] = now[j + 3] - was[j + 3];
    light[i] = lumaOf({ r: red[i], g: green[i], b: blue[i] });
  }
  const most = (isRestless(art.colour) ? LACKING_RESTLESS : LACKING) + LACKING_NOISY * noise;
  const marks = new Uint8Array(width * height);
  for (const off of [light, alpha]) markOver(marks, off, width, height, most);
  for (const off of [red, green, blue]) markOver(marks, off, width, height, OF_COLOUR * most);
  return { width, height, marks };
}

/** Marks where the mean over 3 × 3 px is more than `most`, to either side. */
function markOver(marks: Uint8Array, off: Float32Array, width: number, height: number, most: number): void {
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      let sum = 0;
      for (let j = i - width; j <= i + width; j += width) sum += off[j - 1] + off[j] + off[j + 1];
      if (Math.abs(sum) > 9 * most) marks[i] = 1;
    }
  }
}

/** A drawing with the enlarged art itself near to what it lacks. @param times so many px of both lie on one of the marks, across and down. */
export function withArtNear(lacking: Lacking, drawn: Art, art: Art, times: number): Art {
  const share = shareNear(lacking);
  const data = drawn.colour.data.slice();
  const alpha = drawn.alpha.slice();
  for (let y = 0, i = 0; y < drawn.height; y++) {
    const row = Math.floor(y / times) * lacking.width;
    for (let x = 0; x < drawn.width; x++, i++) {
      const part = share[row + Math.floor(x / times)];
      if (part <= 0) continue;
      alpha[i] = Math.round(alpha[i] + part * (art.alpha[i] - alpha[i]));
      for (let j = 4 * i; j < 4 * i + 3; j++) data[j] = Math.round(data[j] + part * (art.colour.data[j] - data[j]));
    }
  }
  return { ...drawn, colour: makeRgba8(drawn.width, drawn.height, data, true), alpha };
}

/** How much of the art itself is taken at each pixel, 0 to 1. */
function shareNear({ width, height, marks }: Lacking): Float32Array {
  const near = new Float32Array(marks.length);
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      if (marks[y * width + x] === 0) continue;
      const [from, to] = [Math.max(0, x - AROUND_PX), Math.min(width, x + AROUND_PX + 1)];
      for (let v = Math.max(0, y - AROUND_PX); v <= Math.min(height - 1, y + AROUND_PX); v++) near.fill(1, v * width + from, v * width + to);
    }
  }
  return boxBlurred(near, width, height, FADE_PX);
}
