import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { artFromShare, disc, polygon, randomFrom } from '../../../tests/fixtures/shapes.ts';
import { enlarge } from '../clean/enlarge.ts';
import type { Art } from '../raster/art.ts';
import { makeRgba8, makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { drawnLarger } from './drawnLarger.ts';
import { isLacking, lackingIn } from './lackingIn.ts';

const SAIL = [
  [20, 24],
  [104, 40],
  [116, 100],
  [40, 108],
] as const;
const sailAt = (times: number): Art =>
  artFromShare(
    polygon(
      128 * times,
      128 * times,
      SAIL.map(([x, y]) => [x * times, y * times] as const),
    ),
  );

/** Mean and greatest difference of the red channel, levels. */
function difference(art: Art, truth: Art): { mean: number; most: number } {
  let [sum, most] = [0, 0];
  for (let i = 0; i < art.alpha.length; i++) {
    const off = Math.abs(art.colour.data[i * 4] - truth.colour.data[i * 4]);
    sum += off;
    most = Math.max(most, off);
  }
  return { mean: sum / art.alpha.length, most };
}

function noisy(art: Art, level: number): Art {
  const random = randomFrom(7);
  const data = art.colour.data.map((value, i) => (i % 4 === 3 ? value : Math.max(0, Math.min(255, Math.round(value + level * (random() + random() + random() - 1.5) * 2)))));
  return { ...art, colour: makeRgba8(art.width, art.height, data, true) };
}

describe('drawnLarger', () => {
  it('draws flat art as it would have been drawn at that size, corners too', () => {
    for (const times of [2, 4] as const) {
      const large = finish(drawnLarger(sailAt(1), times));
      const truth = sailAt(times);
      expect(large.frame.scale).toBe(times);
      expect(difference(large, truth).mean).toBeLessThan(0.5 * difference(finish(enlarge(sailAt(1), times)), truth).mean);
    }
  });

  it('leaves noise behind', () => {
    const large = finish(drawnLarger(noisy(sailAt(1), 8), 2));
    expect(difference(large, sailAt(2)).mean).toBeLessThan(0.5 * difference(finish(enlarge(noisy(sailAt(1), 8), 2)), sailAt(2)).mean);
  });

  it('draws the edges of art without mixed pixels through the middle of their steps, and keeps its lines', () => {
    const data = new Uint8Array(sailAt(1).colour.data).map((value, i) => (i % 4 === 3 ? 255 : value < 138 ? 20 : 255));
    // A line a pixel wide.
    for (let x = 20; x < 110; x++) data.fill(20, 4 * (118 * 128 + x), 4 * (118 * 128 + x) + 3);
    const large = finish(drawnLarger({ ...sailAt(1), colour: makeRgba8(128, 128, data, true) }, 2));
    expect(large.colour.data[4 * (237 * 256 + 120)]).toBeLessThan(60);
    // As the drawing itself at that size, but for the line: a quarter as far from it as steps twice as large.
    const above = (art: Art): Art => ({ ...art, alpha: art.alpha.slice(0, 256 * 228) });
    const steps = new Uint8Array(256 * 256 * 4).map((_, i) => data[4 * ((i >> 11) * 128 + ((i >> 3) % 128)) + (i % 4)]);
    const stepped: Art = { ...large, colour: makeRgba8(256, 256, steps, true) };
    expect(difference(above(large), sailAt(2)).mean).toBeLessThan(0.5 * difference(above(stepped), sailAt(2)).mean);
  });

  it('keeps by their pixels dots that are too small to be outlined', () => {
    const art = sailAt(1);
    const data = art.colour.data.slice();
    for (const [x, y] of [
      [10, 10],
      // Across the border of two tiles.
      [96, 10],
    ])
      data.fill(0, 4 * (y * 128 + x), 4 * (y * 128 + x) + 3);
    const large = finish(drawnLarger({ ...art, colour: makeRgba8(128, 128, data, true) }, 2));
    expect(large.colour.data[4 * (21 * 256 + 21)]).toBeLessThan(40);
    // As they are when all of the picture is enlarged by its pixels.
    const whole = finish(enlarge({ ...art, colour: makeRgba8(128, 128, data, true) }, 2));
    const rowOf = ({ colour }: Art, x: number, y: number): Uint8Array => colour.data.subarray(4 * (y * 256 + x), 4 * (y * 256 + x + 10));
    for (const x of [17, 187]) for (let y = 17; y < 27; y++) expect(rowOf(large, x, y)).toEqual(rowOf(whole, x, y));
    // Far from it the drawing stands.
    expect(difference(large, sailAt(2)).most).toBeGreaterThan(200);
    expect(large.colour.data.subarray(4 * 256 * 40)).toEqual(finish(drawnLarger(art, 2)).colour.data.subarray(4 * 256 * 40));
  });

  it('enlarges shaded art by its pixels alone, as it does what is all in one tone', () => {
    const shaded = new Uint8Array(96 * 64 * 4).map((_, i) => (i % 4 === 3 ? 255 : 40 + 2 * ((i >> 2) % 96)));
    const art: Art = { ...artFromShare(disc(96, 64, 48, 32, 10)), colour: makeRgba8(96, 64, shaded, true) };
    expect(finish(drawnLarger(art, 2))).toEqual(finish(enlarge(art, 2)));
    const plain = artFromShare(makeShareMap(32, 32, new Uint8Array(1024)));
    expect(finish(drawnLarger(plain, 2))).toEqual(finish(enlarge(plain, 2)));
  });

  it('refuses what would become too large before it begins', () => {
    const huge = artFromShare(makeShareMap(4000, 2000, new Uint8Array(8_000_000)));
    expect(codeOf(() => finish(drawnLarger(huge, 2)))).toBe('enlargedTooLarge');
  });
});

describe('lackingIn', () => {
  it('takes noise for none of it, and a missing line for all of its length', () => {
    const [art, large] = [sailAt(1), sailAt(2)];
    expect(isLacking(lackingIn(large, art, { noise: 0, restless: false, stepped: false }))).toBe(false);
    expect(isLacking(lackingIn(large, noisy(art, 8), { noise: 6, restless: true, stepped: false }))).toBe(false);
    const data = art.colour.data.slice();
    for (let x = 5; x < 120; x++) data.fill(90, 4 * (12 * 128 + x), 4 * (12 * 128 + x) + 3);
    const { marks } = lackingIn(large, { ...art, colour: makeRgba8(128, 128, data, true) }, { noise: 0, restless: false, stepped: false });
    for (let x = 5; x < 120; x++) expect(marks[12 * 128 + x]).toBe(1);
    expect(marks.subarray(16 * 128).includes(1)).toBe(false);
  });
});
