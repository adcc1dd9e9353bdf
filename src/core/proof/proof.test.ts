import { describe, expect, it } from 'vitest';
import { BLACK, disc, paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { translation } from '../geometry/affine.ts';
import { coverageOf } from '../outline/coverage.ts';
import { outlineOf } from '../outline/traceOutline.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { proofOf } from './proof.ts';

const SUN: Rgb = { r: 242, g: 182, b: 50 };
const share = disc(60, 50, 28.3, 24.6, 15.2);
const curves = outlineOf(share);
const art = paintedArt(60, 50, (x, y) => (Math.hypot(x - 28.3, y - 24.6) < 15.2 ? SUN : WHITE));

describe('coverage', () => {
  it('is that of the shape, pixel by pixel', () => {
    const coverage = coverageOf(curves, 60, 50);
    let worst = 0;
    for (let i = 0; i < coverage.length; i++) worst = Math.max(worst, Math.abs(coverage[i] - share.data[i]));
    // An eighth of a pixel: the outline's own error and four rows a pixel.
    expect(worst).toBeLessThan(32);
    expect(coverage.reduce((sum, value) => sum + value, 0) / 255).toBeCloseTo(Math.PI * 15.2 ** 2, -1);
  });

  it('cuts off what lies outside the raster, and is nothing without curves', () => {
    const moved = coverageOf(transformCurves(curves, translation(-25, 0)), 60, 50);
    expect(moved[24 * 60]).toBe(255);
    expect(coverageOf(transformCurves(curves, translation(200, 0)), 60, 50).some((value) => value > 0)).toBe(false);
  });
});

describe('proof', () => {
  it('finds nothing to see where the films are the art', () => {
    const { composed, difference, differs } = proofOf(art, [{ colour: SUN, curves }], WHITE);
    expect(differs).toBeLessThan(0.004);
    expect([...composed.data.subarray((24 * 60 + 28) * 4, (24 * 60 + 28) * 4 + 4)]).toEqual([SUN.r, SUN.g, SUN.b, 255]);
    expect(difference.data[3]).toBe(0);
  });

  it('tells how much of the area a shifted or wrongly coloured film changes', () => {
    const shifted = proofOf(art, [{ colour: SUN, curves: transformCurves(curves, translation(2, 0)) }], WHITE);
    // Two slivers of 2 px times the height of the disc, partly covered pixels counted.
    expect(shifted.differs * 3000).toBeGreaterThan(100);
    expect(shifted.differs * 3000).toBeLessThan(230);
    expect(proofOf(art, [{ colour: BLACK, curves }], WHITE).differs).toBeCloseTo((Math.PI * 15.2 ** 2) / 3000, 1);
    expect(proofOf(art, [], WHITE).differs).toBeGreaterThan(0.2);
  });
});
