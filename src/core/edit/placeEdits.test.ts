import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import type { FigureObject } from '../job/objects.ts';
import { boundsOf, type Bounds } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { withNewObject } from './objectEdits.ts';
import { turnDegOf, withMirrored, withStretched, withTurned } from './placeEdits.ts';

const plank: FigureObject = { kind: 'figure', id: 'plank', film: 'film', placement: { a: 1, b: 0, c: 0, d: 1, e: 12, f: -5 }, shape: { form: 'rectangle', widthMm: 40, heightMm: 10, cornerMm: 3 } };
const job = withNewObject(newJob('plank'), plank);
const ids = new Set(['plank']);
const plankOf = ({ objects }: Job): FigureObject => objects.find(({ id }) => id === 'plank') as FigureObject;
function boxOf(next: Job): Bounds {
  const { shape, placement } = plankOf(next);
  if (placement === undefined) throw new Error('it has no place');
  return boundsOf(transformCurves(figureCurves(shape), placement)) as Bounds;
}
const factor = fc.double({ min: 0.1, max: 8, noNaN: true });
const place = fc.double({ min: -200, max: 200, noNaN: true });

describe('a part that is stretched', () => {
  it('has the box that it was pulled to, and a figure keeps its corners', () => {
    fc.assert(
      fc.property(factor, factor, place, place, (across, down, x, y) => {
        const next = withStretched(job, 'plank', across, down, x, y);
        const [before, after] = [boxOf(job), boxOf(next)];
        for (const [side, by, at] of [['left', across, x], ['right', across, x], ['top', down, y], ['bottom', down, y]] as const) expect(after[side]).toBeCloseTo(at + by * (before[side] - at), 6);
        expect((plankOf(next).shape as { cornerMm: number }).cornerMm).toBe(3);
      }),
      { seed: 12, numRuns: 40 },
    );
  });

  it('is stretched as it lies when it is turned, and is left alone by a factor that is none', () => {
    const turned = withTurned(job, ids, Math.PI / 6, 0, 0);
    const next = withStretched(turned, 'plank', 2, 1, 0, 0);
    expect(boxOf(next).right).toBeCloseTo(2 * boxOf(turned).right, 6);
    expect(boxOf(next).bottom).toBeCloseTo(boxOf(turned).bottom, 6);
    expect(plankOf(next).shape).toEqual(plank.shape);
    expect(withStretched(job, 'plank', 0, 1, 0, 0)).toBe(job);
  });
});

describe('how far a part is turned', () => {
  it('is told whatever it was turned by, one after the other', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -180, max: 180, noNaN: true }), { minLength: 1, maxLength: 4 }), place, place, (turns, x, y) => {
        const next = turns.reduce((left, deg) => withTurned(left, ids, (deg * Math.PI) / 180, x, y), job);
        const sum = turns.reduce((a, b) => a + b, 0);
        const apart = (((turnDegOf(plankOf(next)) - sum) % 360) + 540) % 360 - 180;
        expect(Math.abs(apart)).toBeLessThan(1e-6);
      }),
      { seed: 13, numRuns: 30 },
    );
    expect(turnDegOf(plank)).toBe(0);
    expect(turnDegOf(plankOf(withMirrored(job, ids, 'upDown', 0, 0)))).toBe(0);
  });
});
