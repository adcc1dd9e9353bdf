import { describe, expect, it } from 'vitest';
import type { Rgb } from '../../colour/oklab.ts';
import { makeLabelMap } from '../../raster/labelMap.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { dropOvershoots } from './dropOvershoots.ts';

const CREAM: Rgb = { r: 244, g: 231, b: 195 };
const NAVY: Rgb = { r: 36, g: 80, b: 154 };
const WHITE: Rgb = { r: 251, g: 250, b: 246 };
const RED: Rgb = { r: 179, g: 38, b: 46 };
const [WIDTH, HEIGHT] = [40, 30];

/** Cream (0) above navy (1) from row 15 on, with a bit of a third label in columns 10 to 16 and some rows. */
const withBit = (from: number, to: number): Uint8Array =>
  Uint8Array.from({ length: WIDTH * HEIGHT }, (_, i) => {
    const [x, y] = [i % WIDTH, Math.floor(i / WIDTH)];
    return x >= 10 && x < 16 && y >= from && y < to ? 2 : y < 15 ? 0 : 1;
  });
/** The labels in the colours of their tones. */
const painted = (labels: Uint8Array, tones: readonly Rgb[]): Rgba8 => makeRgba8(WIDTH, HEIGHT, Uint8Array.from([...labels].flatMap((label) => [tones[label].r, tones[label].g, tones[label].b, 255])));
const settled = (labels: Uint8Array, tones: readonly Rgb[]): Uint8Array => dropOvershoots(makeLabelMap(WIDTH, HEIGHT, labels), painted(labels, tones), tones).data;
const bitLeft = (labels: Uint8Array, third: Rgb): number => settled(labels, [CREAM, NAVY, third]).filter((label) => label === 2).length;

describe('overshoots along an edge', () => {
  it('are bits that are lighter than its light side, and go to that side', () => {
    const labels = withBit(12, 15);
    expect([...settled(labels, [CREAM, NAVY, WHITE])]).toEqual([...withBit(0, 0)]);
  });

  it('are not thin lines that are much darker than both sides', () => {
    const [brown, white, ink] = [{ r: 122, g: 76, b: 43 }, { r: 255, g: 255, b: 255 }, { r: 35, g: 27, b: 26 }];
    const labels = withBit(13, 15);
    expect(settled(labels, [brown, white, ink]).filter((label) => label === 2)).toHaveLength(12);
    // The same bit where compression made the brown a little darker.
    const faint = painted(labels, [brown, white, { r: 92, g: 46, b: 12 }]);
    expect([...dropOvershoots(makeLabelMap(WIDTH, HEIGHT, labels), faint, [brown, white, ink]).data]).toEqual([...withBit(0, 0)]);
  });

  it('are not bits of another tone, nor those away from the edge, nor areas of some size', () => {
    expect(bitLeft(withBit(12, 15), RED)).toBe(18);
    expect(bitLeft(withBit(5, 8), WHITE)).toBe(18);
    expect(bitLeft(withBit(5, 15), WHITE)).toBe(60);
  });
});
