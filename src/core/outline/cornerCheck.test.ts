import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { disc, polygon } from '../../../tests/fixtures/shapes.ts';
import type { ShareMap } from '../raster/raster.ts';
import { CornerCheck, type CorneredEdge } from './cornerCheck.ts';
import type { Corner, Ring } from './corners.ts';
import { CurvesBuilder, type Curves } from './curves.ts';
import { JointFinder } from './joints.ts';
import { cornersOf, DEFAULT_OUTLINE, drawRing, STRAIGHT_SHARE, TRIM_PX } from './traceOutline.ts';
import { isolines } from './isoline.ts';

const FIT = { tolerancePx: DEFAULT_OUTLINE.followPx, straightPx: DEFAULT_OUTLINE.followPx * STRAIGHT_SHARE };

/** The half-way line of a share map with one ring. */
function ringOf(share: ShareMap): Ring {
  const { points, starts } = isolines(share).rings;
  const n = starts[1];
  const x = Float64Array.from({ length: n }, (_, k) => points[2 * k]);
  const y = Float64Array.from({ length: n }, (_, k) => points[2 * k + 1]);
  const along = new Float64Array(n + 1);
  for (let k = 1; k <= n; k++) along[k] = along[k - 1] + Math.hypot(x[k % n] - x[k - 1], y[k % n] - y[k - 1]);
  return { n, x, y, along, closed: true };
}

/** What the check leaves of some corners of the one shape in a share map. */
function checked(share: ShareMap, ring: Ring, corners: readonly Corner[], stray = 0): readonly Corner[] | undefined {
  const builder = new CurvesBuilder();
  drawRing(builder, ring, 1, -1, DEFAULT_OUTLINE, new JointFinder(FIT), corners);
  const curves: Curves = builder.build();
  const valueAt = (x: number, y: number): number => share.data[y * share.width + x] / 255;
  const edge: CorneredEdge = { ring, corners, trimPx: TRIM_PX, calmPx: 0, edgeWidthPx: 1, fit: FIT, stray, valueAt, stepOf: () => -1 };
  return new CornerCheck(curves, share.width, share.height).settle(edge, 0);
}

/** A corner that is not there: at the ring's point nearest to an angle around the middle, so far outside of it. */
function invented(ring: Ring, cx: number, cy: number, angle: number, outPx: number): Corner {
  let index = 0;
  for (let k = 1; k < ring.n; k++) if (Math.abs(turnTo(ring, k)) < Math.abs(turnTo(ring, index))) index = k;
  return { index, x: ring.x[index] + outPx * Math.cos(angle), y: ring.y[index] + outPx * Math.sin(angle), turnRad: 1.6 };
  function turnTo({ x, y }: Ring, k: number): number {
    return Math.atan2(Math.sin(Math.atan2(y[k] - cy, x[k] - cx) - angle), Math.cos(Math.atan2(y[k] - cy, x[k] - cx) - angle));
  }
}

describe('corners before the picture', () => {
  it('of squares stand, however they are turned and wherever they lie', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1.5, noNaN: true }), fc.double({ min: 3.5, max: 8, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (turn, half, at) => {
        const place = (k: number): [number, number] => [14 + at + half * Math.SQRT2 * Math.cos(turn + (k * Math.PI) / 2), 14.3 + half * Math.SQRT2 * Math.sin(turn + (k * Math.PI) / 2)];
        const truth = [0, 1, 2, 3].map(place);
        const share = polygon(30, 30, truth);
        const ring = ringOf(share);
        const corners = cornersOf(ring, DEFAULT_OUTLINE);
        expect(corners).toHaveLength(4);
        const left = checked(share, ring, corners) ?? corners;
        expect(left).toHaveLength(4);
        for (const { x, y } of left) expect(Math.min(...truth.map(([tx, ty]) => Math.hypot(x - tx, y - ty)))).toBeLessThan(0.4);
      }),
      { numRuns: 40 },
    );
  });

  it('that are none are left out or come to lie on the edge, under noise too', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.2, noNaN: true }), fc.double({ min: 1.2, max: 3, noNaN: true }), fc.double({ min: 3, max: 4, noNaN: true }), fc.integer({ min: 0, max: 12 }), (angle, out, radius, noise) => {
        const clean = disc(24, 24, 12.2, 11.7, radius);
        const share = { ...clean, data: clean.data.map((value, i) => Math.max(0, Math.min(255, value + ((i * 7919) % (2 * noise + 1)) - noise))) };
        const ring = ringOf(clean);
        const corner = invented(ring, 12.2, 11.7, angle, out);
        const opposite = invented(ring, 12.2, 11.7, angle + 2.4, out);
        const corners = [corner, opposite].sort((a, b) => a.index - b.index);
        const left = checked(share, ring, corners, noise / 500);
        expect(left).toBeDefined();
        for (const { x, y } of left ?? []) expect(Math.abs(Math.hypot(x - 12.2, y - 11.7) - radius)).toBeLessThan(0.5);
      }),
      { numRuns: 60 },
    );
  });

  it('that lie two pixels too far out are moved in to where they are', () => {
    const truth: [number, number][] = [[6.3, 6.1], [14.2, 6.4], [14.1, 14.3], [6.2, 14.2]];
    const share = polygon(24, 24, truth);
    const ring = ringOf(share);
    const right = cornersOf(ring, DEFAULT_OUTLINE);
    for (const [k, corner] of right.entries()) {
      const [dx, dy] = [Math.sign(corner.x - 10), Math.sign(corner.y - 10)];
      const left = checked(share, ring, right.with(k, { ...corner, x: corner.x + 1.4 * dx, y: corner.y + 1.4 * dy }));
      const at = left?.[k];
      expect(at === undefined ? Infinity : Math.hypot(at.x - corner.x, at.y - corner.y)).toBeLessThan(0.8);
    }
  });

  it('stand where the picture shows no two tones that meet', () => {
    const share = polygon(24, 24, [[6, 6], [14, 6], [14, 14], [6, 14]]);
    const ring = ringOf(share);
    const corners = cornersOf(ring, DEFAULT_OUTLINE).map((corner, k) => (k === 0 ? { ...corner, x: corner.x - 2 } : corner));
    const unlike = { ...share, data: share.data.map((_, i) => (i * 7919) % 256) };
    expect(checked(unlike, ring, corners)).toBeUndefined();
  });
});
