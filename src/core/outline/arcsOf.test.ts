import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { arcsOf, OF_ARC_NODE, type ArcRing } from './arcsOf.ts';
import { CurvesBuilder, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Places along the sides and arcs of a ring, dense. */
function placesOf({ nodes, open }: ArcRing): [number, number][] {
  const count = nodes.length / OF_ARC_NODE;
  const places: [number, number][] = [];
  for (let k = 0; k < count - (open ? 1 : 0); k++) {
    const [x, y, bulge] = nodes.subarray(OF_ARC_NODE * k, OF_ARC_NODE * (k + 1));
    const [toX, toY] = nodes.subarray(OF_ARC_NODE * ((k + 1) % count));
    for (let step = 0; step <= 60; step++) {
      const share = step / 60;
      if (bulge === 0) {
        places.push([x + (toX - x) * share, y + (toY - y) * share]);
        continue;
      }
      const off = (1 - bulge * bulge) / (4 * bulge);
      const [cx, cy] = [(x + toX) / 2 - off * (toY - y), (y + toY) / 2 + off * (toX - x)];
      const turn = 4 * Math.atan(bulge) * share;
      places.push([cx + (x - cx) * Math.cos(turn) - (y - cy) * Math.sin(turn), cy + (x - cx) * Math.sin(turn) + (y - cy) * Math.cos(turn)]);
    }
  }
  return places;
}

const awayFrom = ([x, y]: readonly number[], places: readonly (readonly number[])[]): number => Math.min(...places.map(([px, py]) => Math.hypot(px - x, py - y)));

function cubicRing(points: readonly number[]): Curves {
  const [x, y, a, b, c, d, e, f] = points;
  const builder = new CurvesBuilder();
  builder.start(x, y, -1);
  builder.cubic(a, b, c, d, e, f);
  builder.line(x, y);
  builder.close();
  return builder.build();
}

describe('arcs of curves', () => {
  it('stay within the tolerance of any cubic, both ways', () => {
    const at = fc.double({ min: -30, max: 30, noNaN: true });
    fc.assert(
      fc.property(fc.array(at, { minLength: 8, maxLength: 8 }), fc.constantFrom(0.01, 0.1), (points, tolerance) => {
        const curves = cubicRing(points);
        const { points: flat } = flatten(curves, tolerance / 10);
        const places = placesOf(arcsOf(curves, tolerance)[0]);
        const dense: [number, number][] = [];
        const count = flat.length / 2;
        for (let k = 0; k < count; k++) {
          const [x, y, toX, toY] = [flat[2 * k], flat[2 * k + 1], flat[2 * ((k + 1) % count)], flat[2 * ((k + 1) % count) + 1]];
          const steps = Math.max(1, Math.ceil(Math.hypot(toX - x, toY - y) / 0.4));
          for (let s = 0; s < steps; s++) dense.push([x + ((toX - x) * s) / steps, y + ((toY - y) * s) / steps]);
        }
        // Places are up to a tenth of a mm apart on either side of the nearest.
        for (let k = 0; k < places.length; k += 13) expect(awayFrom(places[k], dense)).toBeLessThan(Math.hypot(tolerance * 1.3, 0.22));
        for (let k = 0; k < dense.length; k += 17) expect(awayFrom(dense[k], places)).toBeLessThan(Math.hypot(tolerance * 1.3, 0.7));
      }),
      { seed: 5, numRuns: 15 },
    );
  });

  it('of a round are few, and have its radius', () => {
    const [ring] = arcsOf(figureCurves({ form: 'round', widthMm: 20, heightMm: 20 }), 0.01);
    expect(ring.open).toBe(false);
    expect(ring.nodes.length / OF_ARC_NODE).toBeLessThanOrEqual(16);
    for (const [x, y] of placesOf(ring)) expect(Math.hypot(x - 10, y - 10)).toBeCloseTo(10, 2);
  });

  it('keep straight sides straight, and the end of an open line', () => {
    const builder = new CurvesBuilder();
    builder.start(0, 0, -1);
    builder.line(10, 0);
    builder.line(10, 5);
    builder.close();
    expect(arcsOf(builder.build(), 0.01).map(({ open, nodes }) => [open, Array.from(nodes)])).toEqual([[true, [0, 0, 0, 10, 0, 0, 10, 5, 0]]]);
    // Handles on the ends have no direction: a straight line.
    const straight = arcsOf(cubicRing([0, 0, 0, 0, 9, 0, 9, 0]), 0.01)[0];
    expect(Array.from(straight.nodes).filter((_, k) => k % OF_ARC_NODE === 2).every((bulge) => bulge === 0)).toBe(true);
  });
});
