import { describe, expect, it } from 'vitest';
import type { Rgb } from '../../colour/oklab.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { findStrokes } from './findStrokes.ts';
import { tonesOfStrokes } from './tonesOfStrokes.ts';

const SUN: Rgb = { r: 242, g: 182, b: 50 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const NAVY: Rgb = { r: 28, g: 43, b: 74 };
const TONES = [SUN, RED, NAVY];
const WIDTH = 64;
const HEIGHT = 32;

const between = (a: Rgb, b: Rgb, share: number): Rgb => ({ r: a.r + (b.r - a.r) * share, g: a.g + (b.g - a.g) * share, b: a.b + (b.b - a.b) * share });

/** Upright strokes, each a column of pixels of one colour, on a yellow ground; the tones found for them from left to right. */
function tonesFor(columns: ReadonlyMap<number, Rgb>, other: { readonly fromColumn: number } = { fromColumn: WIDTH }): (number | undefined)[] {
  const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  const nearest = new Uint8Array(WIDTH * HEIGHT);
  const core = new Uint8Array(WIDTH * HEIGHT);
  for (let i = 0; i < nearest.length; i++) {
    const x = i % WIDTH;
    const y = (i - x) / WIDTH;
    const stroke = y > 10 && y < 20 ? columns.get(x) : undefined;
    const isOther = x >= other.fromColumn;
    const { r, g, b } = stroke ?? (isOther ? RED : SUN);
    data.set([Math.round(r), Math.round(g), Math.round(b)], 4 * i);
    nearest[i] = isOther ? 1 : 0;
    core[i] = [-1, 0, 1].some((k) => y > 9 && y < 21 && columns.has(x + k)) || x + 1 === other.fromColumn ? 0 : 1;
  }
  const art = { smooth: makeRgba8(WIDTH, HEIGHT, data), nearest, core, tones: TONES };
  const strokes = finish(findStrokes(art));
  const byColumn = strokes.grounds.map((_, k) => strokes.pixels[strokes.starts[k]] % WIDTH);
  const tones = finish(tonesOfStrokes(art, strokes, nearest));
  return [...byColumn.keys()].sort((a, b) => byColumn[a] - byColumn[b]).map((k) => tones[k]);
}

/** Half navy on yellow, with so much of its tint taken by that of red. */
const muddled = (share: number): Rgb => between(between(SUN, NAVY, 0.6), between(SUN, RED, 0.9), share);

describe('the tones of strokes', () => {
  it('are told by their mixtures with the ground', () => {
    expect(tonesFor(new Map([[20, between(SUN, NAVY, 0.6)], [40, between(SUN, RED, 0.6)]]))).toEqual([2, 1]);
  });

  it('are those of the letters beside them where their own colours do not tell, and only there', () => {
    const doubtful = muddled(0.55);
    const [alone] = tonesFor(new Map([[30, doubtful]]));
    const beside = tonesFor(new Map([[22, between(SUN, NAVY, 0.7)], [26, between(SUN, NAVY, 0.65)], [30, doubtful], [34, between(SUN, NAVY, 0.7)]]));
    expect(alone).toBe(1);
    expect(beside).toEqual([2, 2, 2, 2]);
    expect(tonesFor(new Map([[26, between(SUN, NAVY, 0.7)], [30, between(SUN, RED, 0.8)], [34, between(SUN, NAVY, 0.7)]]))).toEqual([2, 1, 2]);
  });

  it('are none where there is too little of any, or what no mixture explains', () => {
    expect(tonesFor(new Map([[20, between(SUN, NAVY, 0.3)], [40, { r: 20, g: 220, b: 240 }]]))).toEqual([undefined, undefined]);
  });

  it('are asked for only where one tone alone lies around', () => {
    expect(tonesFor(new Map([[20, between(SUN, NAVY, 0.6)], [36, between(SUN, NAVY, 0.6)]]), { fromColumn: 40 })).toEqual([2]);
  });
});
