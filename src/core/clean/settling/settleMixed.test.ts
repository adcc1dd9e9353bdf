import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { Rgb } from '../../colour/oklab.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { settleMixed } from './settleMixed.ts';

const WHITE: Rgb = { r: 255, g: 255, b: 255 };
const BLACK: Rgb = { r: 20, g: 20, b: 20 };
const GREY: Rgb = { r: 138, g: 138, b: 138 };
const TONES = [WHITE, BLACK, GREY];
const [WIDTH, HEIGHT] = [24, 9];

const nearest = (v: Rgb): number => {
  const off = TONES.map((tone) => Math.abs(tone.r - v.r) + Math.abs(tone.g - v.g) + Math.abs(tone.b - v.b));
  return off.indexOf(Math.min(...off));
};
const between = (a: Rgb, b: Rgb, share: number): Rgb => ({
  r: Math.round(a.r + (b.r - a.r) * share),
  g: Math.round(a.g + (b.g - a.g) * share),
  b: Math.round(a.b + (b.b - a.b) * share),
});

/** Rows of columns, and of which tone each is a core; −1 for none. */
function settled(column: (x: number) => Rgb, coreOf: (x: number) => boolean): number[] {
  const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  const labels = new Uint8Array(WIDTH * HEIGHT);
  const core = new Uint8Array(WIDTH * HEIGHT);
  for (let i = 0; i < labels.length; i++) {
    const { r, g, b } = column(i % WIDTH);
    data.set([r, g, b], 4 * i);
    labels[i] = nearest({ r, g, b });
    core[i] = coreOf(i % WIDTH) ? 1 : 0;
  }
  const out = finish(settleMixed({ smooth: makeRgba8(WIDTH, HEIGHT, data, true), labels, core, tones: TONES, slack: 16 }));
  return [...out.subarray(4 * WIDTH, 5 * WIDTH)];
}

describe('mixed pixels', () => {
  it('of two tones with areas in reach are never the third that looks like their mixture', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.02, max: 0.98, noNaN: true }), { minLength: 1, maxLength: 2 }), (shares) => {
        const mixed = [...shares].sort((a, b) => a - b);
        const column = (x: number): Rgb => (x < 10 ? WHITE : x < 10 + mixed.length ? between(WHITE, BLACK, mixed[x - 10]) : BLACK);
        const row = settled(column, (x) => x < 9 || x > 10 + mixed.length);
        expect(row).not.toContain(2);
        mixed.forEach((share, k) => {
          if (Math.abs(share - 0.5) > 0.05) expect(row[10 + k]).toBe(share < 0.5 ? 0 : 1);
        });
      }),
      { seed: 5, numRuns: 60 },
    );
  });

  it('are a tone of their own where that has an area', () => {
    const column = (x: number): Rgb => (x < 8 ? WHITE : x < 16 ? GREY : BLACK);
    const row = settled(column, (x) => x % 8 !== 0 && x % 8 !== 7);
    expect(row).toEqual(Array.from({ length: WIDTH }, (_, x) => (x < 8 ? 0 : x < 16 ? 2 : 1)));
  });

  it('leave the inside of areas alone', () => {
    const row = settled(
      (x) => (x < 12 ? WHITE : BLACK),
      () => true,
    );
    expect(row).toEqual(Array.from({ length: WIDTH }, (_, x) => (x < 12 ? 0 : 1)));
  });
});
