import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../../colour/oklab.ts';
import type { Art } from '../../raster/art.ts';
import { finish } from '../../task/task.ts';
import { toneLabels } from '../settling/toneLabels.ts';

const NAVY: Rgb = { r: 28, g: 43, b: 74 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const SUN: Rgb = { r: 242, g: 182, b: 50 };
const TONES = [WHITE, SUN, RED, NAVY];
const SIZE = 64;

/** Strokes between two points, each so many px wide, on a ground. */
const drawn = (ground: Rgb, strokes: readonly { ink: Rgb; from: readonly [number, number]; to: readonly [number, number]; widePx: number }[]): Art =>
  paintedArt(SIZE, SIZE, (x, y) => {
    const on = strokes.find(({ from, to, widePx }) => {
      const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
      const along = Math.max(0, Math.min(1, ((x - from[0]) * dx + (y - from[1]) * dy) / (dx * dx + dy * dy)));
      return Math.hypot(x - from[0] - along * dx, y - from[1] - along * dy) <= widePx / 2;
    });
    return on?.ink ?? ground;
  });

/** The art with its tint at half the resolution, as compression holds it; lightness stays. */
function tintHalved(art: Art): Art {
  const { width, height } = art;
  const { data } = art.colour;
  const luma = (i: number): number => 0.299 * data[4 * i] + 0.587 * data[4 * i + 1] + 0.114 * data[4 * i + 2];
  const out = data.slice();
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const block = [0, 1, width, width + 1].map((k) => (y - (y % 2)) * width + x - (x % 2) + k);
      for (let c = 0; c < 3; c++) out[4 * i + c] = Math.max(0, Math.min(255, Math.round(luma(i) + block.reduce((sum, k) => sum + data[4 * k + c] - luma(k), 0) / 4)));
    }
  }
  return { ...art, colour: { ...art.colour, data: out } };
}

const labelsOf = (art: Art, tones: readonly Rgb[] = TONES): Uint8Array => finish(toneLabels(art, tones, 'none')).labels;
const countOf = (labels: Uint8Array, tone: number): number => labels.reduce((sum, label) => sum + Number(label === tone), 0);

/** How many of the places along a stroke have a pixel of its tone within a pixel. */
function followed(labels: Uint8Array, tone: number, from: readonly [number, number], to: readonly [number, number]): number {
  const places = Array.from({ length: 41 }, (_, k) => [from[0] + ((to[0] - from[0]) * k) / 40, from[1] + ((to[1] - from[1]) * k) / 40]);
  const found = places.filter(([x, y]) => [-1, 0, 1].some((v) => [-1, 0, 1].some((u) => labels[Math.floor(y + v) * SIZE + Math.floor(x + u)] === tone)));
  return found.length / places.length;
}

const thin = fc.record({
  angle: fc.double({ min: 0, max: Math.PI, noNaN: true }),
  x: fc.double({ min: 28, max: 36, noNaN: true }),
  y: fc.double({ min: 28, max: 36, noNaN: true }),
  widePx: fc.double({ min: 1, max: 2, noNaN: true }),
});

describe('strokes without an inside', () => {
  it('have their own tone from end to end, and no third one, also where compression has spread their tint', () => {
    const pairs = [[1, 3], [2, 0], [0, 3], [0, 2]] as const;
    fc.assert(
      fc.property(thin, fc.constantFrom(...pairs), fc.boolean(), ({ angle, x, y, widePx }, [ground, ink], isHalved) => {
        const [dx, dy] = [18 * Math.cos(angle), 18 * Math.sin(angle)];
        const [from, to] = [[x - dx, y - dy], [x + dx, y + dy]] as const;
        const art = drawn(TONES[ground], [{ ink: TONES[ink], from, to, widePx }]);
        const labels = labelsOf(isHalved ? tintHalved(art) : art);
        expect(followed(labels, ink, from, to)).toBe(1);
        for (const tone of TONES.keys()) if (tone !== ground && tone !== ink) expect(countOf(labels, tone)).toBe(0);
      }),
      { numRuns: 60, seed: 11, examples: [[{ angle: 0, x: 28, y: 28, widePx: 1.125 }, [1, 3], true]] },
    );
  });

  it('keep apart where two of different tones lie on one ground', () => {
    const labels = labelsOf(
      drawn(WHITE, [
        { ink: NAVY, from: [10, 20.3], to: [54, 22.1], widePx: 1.2 },
        { ink: RED, from: [10, 40.6], to: [54, 42.2], widePx: 1.2 },
      ]),
    );
    expect(followed(labels, 3, [10, 20.3], [54, 22.1])).toBe(1);
    expect(followed(labels, 2, [10, 40.6], [54, 42.2])).toBe(1);
    expect(labels.subarray(0, 30 * SIZE).includes(2)).toBe(false);
    expect(labels.subarray(30 * SIZE).includes(3)).toBe(false);
  });

  it('leave dots that they touch their own tone', () => {
    const green: Rgb = { r: 187, g: 212, b: 94 };
    const art = drawn(WHITE, [
      { ink: green, from: [20, 24], to: [20.1, 24], widePx: 4 },
      { ink: green, from: [40, 26], to: [40.1, 26], widePx: 4 },
      { ink: NAVY, from: [8, 29.4], to: [56, 29.9], widePx: 1.4 },
    ]);
    const labels = labelsOf(tintHalved(art), [WHITE, green, NAVY]);
    expect(countOf(labels, 1)).toBeGreaterThan(16);
    expect(followed(labels, 2, [8, 29.4], [56, 29.9])).toBe(1);
  });

  it('have their dots, which are as small as noise, and no specks for dots', () => {
    const stem = { ink: NAVY, from: [30.4, 30], to: [30.4, 40], widePx: 1.6 } as const;
    const speck = { r: 190, g: 196, b: 206 };
    const art = drawn(WHITE, [stem, { ink: NAVY, from: [30.4, 26.2], to: [30.4, 26.3], widePx: 1.7 }, { ink: speck, from: [50, 20], to: [50, 20.1], widePx: 1.7 }]);
    const { labels, dots } = finish(toneLabels(art, TONES, 'none'));
    expect(dots).toHaveLength(1);
    expect(dots[0]).toMatchObject({ tone: 3, ground: 0 });
    expect(dots[0].areaPx2).toBeGreaterThan(1);
    expect(dots[0].areaPx2).toBeLessThan(3);
    for (const i of dots[0].pixels) expect([labels[i], Math.round(i / SIZE) >= 24 && Math.round(i / SIZE) <= 28]).toEqual([3, true]);
    expect(countOf(labels.subarray(0, 24 * SIZE), 3)).toBe(0);
  });

  it('of a lighter tone that darker ones could be mixed to stay of it', () => {
    const [black, grey] = [{ r: 20, g: 20, b: 20 }, { r: 138, g: 138, b: 138 }];
    const line = { ink: grey, from: [8, 32], to: [56, 32], widePx: 2 } as const;
    const labels = labelsOf(drawn(WHITE, [line, { ink: black, from: [8, 52], to: [56, 52], widePx: 6 }]), [WHITE, black, grey]);
    expect(followed(labels, 2, line.from, line.to)).toBe(1);
    expect(labels.subarray(0, 42 * SIZE).includes(1)).toBe(false);
  });

  it('too faint to be a tone anywhere stay ground', () => {
    const faint = { r: 255 - 0.3 * 227, g: 255 - 0.3 * 212, b: 255 - 0.3 * 181 };
    expect(countOf(labelsOf(drawn(WHITE, [{ ink: faint, from: [8, 30], to: [56, 33], widePx: 1.4 }])), 3)).toBe(0);
  });
});
