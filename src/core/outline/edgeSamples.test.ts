import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { rotation, translation } from '../geometry/affine.ts';
import { edgeSamples } from './edgeSamples.ts';
import { flatten } from './flatten.ts';
import { joinCurves, transformCurves } from './transformCurves.ts';
import { widthsAcross } from './widthsAcross.ts';

const figure = fc.record({ form: fc.constantFrom('heart' as const, 'round' as const, 'star' as const, 'rectangle' as const), x: fc.double({ min: 0, max: 60, noNaN: true }), y: fc.double({ min: 0, max: 60, noNaN: true }), wide: fc.double({ min: 0.3, max: 30, noNaN: true }), turn: fc.double({ min: 0, max: 6.2, noNaN: true }) });

describe('places along outlines', () => {
  it('that face another edge are all taken, and give the widths that all places give', () => {
    let left = 0;
    fc.assert(
      fc.property(fc.array(figure, { minLength: 1, maxLength: 6 }), fc.constantFrom('inside' as const, 'outside' as const), fc.double({ min: 0.2, max: 0.8, noNaN: true }), (figures, side, leastMm) => {
        const shapes = figures.map(({ form, x, y, wide, turn }) => transformCurves(transformCurves(form === 'star' ? figureCurves({ form, widthMm: wide, heightMm: 20, corners: 5, depth: 0.5, cornerMm: 0 }) : form === 'rectangle' ? figureCurves({ form, widthMm: wide, heightMm: 20, cornerMm: 0 }) : figureCurves({ form, widthMm: wide, heightMm: 20 }), rotation(turn, 0, 0)), translation(x, y)));
        const rings = flatten(joinCurves(shapes), leastMm / 20);
        const [all, some] = [edgeSamples(rings, leastMm / 20, side), edgeSamples(rings, leastMm / 20, side, leastMm)];
        const widths = (samples: typeof all): string[] => {
          const { width } = widthsAcross(samples, leastMm);
          return [...width].flatMap((value, k) => (Number.isFinite(value) ? [`${samples.ring[k]} ${samples.along[k]} ${value.toFixed(9)}`] : []));
        };
        expect(widths(some)).toEqual(widths(all));
        left += all.x.length - some.x.length;
      }),
      { seed: 17, numRuns: 25 },
    );
    expect(left).toBeGreaterThan(40_000);
  });

  it('are none along a broad figure, however long its edge', () => {
    const rings = flatten(figureCurves({ form: 'round', widthMm: 900, heightMm: 900 }), 0.02);
    expect(edgeSamples(rings, 0.1, 'inside', 1).x.length).toBe(0);
    expect(edgeSamples(rings, 0.1).x.length).toBeGreaterThan(25_000);
  });

  it('number those of a ring all around, whichever of them are taken', () => {
    // A bar of 0.5 mm with a knob of 20 mm at each end: the bar alone is taken.
    const rings = { kind: 'rings', points: Float64Array.from([0, 0, 20, 0, 20, 9.75, 60, 9.75, 60, 0, 80, 0, 80, 20, 60, 20, 60, 10.25, 20, 10.25, 20, 20, 0, 20]), starts: Int32Array.from([0, 12]) } as const;
    const [all, some] = [edgeSamples(rings, 0.02), edgeSamples(rings, 0.02, 'inside', 2)];
    expect(some.x.length).toBeLessThan(all.x.length / 2);
    for (let k = 0; k < some.x.length; k++) expect([all.x[some.along[k]], all.y[some.along[k]]]).toEqual([some.x[k], some.y[k]]);
    expect(Math.abs(some.around[0] - all.x.length)).toBeLessThanOrEqual(1);
  });
});
