import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { loadFont } from '../../../cli/loadFont.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { pictureFromShare, WHITE } from '../../../tests/fixtures/shapes.ts';
import { translation } from '../geometry/affine.ts';
import { newJob } from '../job/newJob.ts';
import { letterCurves } from '../lettering/letterCurves.ts';
import { coverageOf } from '../outline/coverage.ts';
import { boundsOf, nodeCount, type Bounds, type Curves } from '../outline/curves.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { makeRgba8, makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import type { Separation } from '../separate/separation.ts';
import { separateArt } from './separateArt.ts';

const NAVY = { r: 28, g: 43, b: 74 };
const FLAT: Separation = { way: 'flat', count: 2, meet: 'stacked' };
const ONE_TONE: Separation = { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' };
const library = await loadPolygons();

/** Lettering with capitals so many px high, as outlines and as a picture of it. */
async function lettering(font: string, heightPx: number, quality?: number): Promise<{ truth: Curves; art: Art }> {
  const face = await loadFont(font);
  const { curves } = letterCurves(library, face, { text: 'Regatta crews\nback to cosy boats\n1958 & 2046', font, heightMm: heightPx });
  const box = boundsOf(curves) as Bounds;
  const truth = transformCurves(curves, translation(12.3 - box.left, 12.4 - box.top));
  const [width, height] = [Math.ceil(box.right - box.left) + 24, Math.ceil(box.bottom - box.top) + 24];
  const drawn = pictureFromShare(makeShareMap(width, height, coverageOf(truth, width, height)), NAVY, WHITE);
  if (quality === undefined) return { truth, art: artFromPicture(drawn) };
  const jpeg = await sharp(drawn.data, { raw: { width, height, channels: 4 } }).flatten().jpeg({ quality }).toBuffer();
  const { data } = await sharp(jpeg).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { truth, art: artFromPicture(makeRgba8(width, height, new Uint8Array(data))) };
}

/** Area in which an outline differs from what is true, as a share of the true one's, each point of a fine grid counted. */
function wrongShare(outline: Curves, truth: Curves, { width, height }: Art): number {
  const times = 4;
  const fine = (curves: Curves): Uint8Array => coverageOf(transformCurves(curves, { a: times, b: 0, c: 0, d: times, e: 0, f: 0 }), width * times, height * times);
  const [own, wanted] = [fine(outline), fine(truth)];
  let [off, all] = [0, 0];
  for (let i = 0; i < own.length; i++) {
    off += Math.abs(own[i] - wanted[i]);
    all += wanted[i];
  }
  return off / all;
}

const outlined = (art: Art, separation: Separation): Curves => {
  const [{ outline }] = finish(separateArt({ separation, films: newJob('').films, outline: { leastPieceMm2: 0 } } as never, art, DEFAULT_OUTLINE, () => 1)).films;
  return outline;
};

describe('small lettering', () => {
  // Nearly twice as much is wrong when bends count as roughness or as teeth, or corners are not held against the picture.
  it.each([
    ['Zilla Slab', 9, undefined, 0.22],
    ['Oswald', 9, undefined, 0.25],
    ['Zilla Slab', 13, undefined, 0.1],
    ['Zilla Slab', 13, 80, 0.11],
    ['Poppins', 13, undefined, 0.07],
    ['Poppins', 13, 62, 0.09],
    ['Poppins', 18, 40, 0.06],
    ['Fredoka', 18, undefined, 0.04],
  ])('of %s, %i px high, JPEG %s, is cut as it was drawn', async (font, heightPx, quality, most) => {
    const { truth, art } = await lettering(font, heightPx, quality);
    for (const separation of [FLAT, ONE_TONE]) {
      const outline = outlined(art, separation);
      expect([separation.way, wrongShare(outline, truth, art) < most]).toEqual([separation.way, true]);
      expect(nodeCount(outline)).toBeLessThan(1.1 * nodeCount(truth));
    }
  });

  it('keeps the eyes of its letters open in a clean picture', async () => {
    const { truth, art } = await lettering('Fredoka', 13);
    const holes = (curves: Curves): number => curves.parent.filter((parent) => parent >= 0).length;
    // As many as an outline of the same letters at four times the size has, but for letters that all but touch.
    const large = await lettering('Fredoka', 52);
    expect(Math.abs(holes(outlined(art, FLAT)) - holes(outlined(large.art, FLAT)))).toBeLessThan(3);
    expect(holes(outlined(large.art, FLAT))).toBeGreaterThan(15);
    expect(wrongShare(outlined(art, FLAT), truth, art)).toBeLessThan(0.08);
  });

  it('is found at all where compression has left no plain pixel of its ink', async () => {
    const { truth, art } = await lettering('Poppins', 9, 40);
    expect(wrongShare(outlined(art, FLAT), truth, art)).toBeLessThan(0.3);
  });
});
