import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { freeEndAt } from './cubicFit.ts';
import { JointFinder, type Segment } from './joints.ts';
import { closedSection, sectionWithin, type Section } from './section.ts';
import type { Ring } from './corners.ts';

/** Points about a pixel apart along a curve. */
function ringOf(at: (t: number) => readonly [number, number], count: number): Ring {
  const points = Array.from({ length: count }, (_, k) => at(k / (count - 1)));
  const along = new Float64Array(count + 1);
  for (let k = 1; k < count; k++) along[k] = along[k - 1] + Math.hypot(points[k][0] - points[k - 1][0], points[k][1] - points[k - 1][1]);
  along[count] = along[count - 1];
  return { n: count, x: Float64Array.from(points, ([x]) => x), y: Float64Array.from(points, ([, y]) => y), along, closed: false };
}
const openSection = (ring: Ring): Section => {
  const last = ring.n - 1;
  return sectionWithin(ring, 0, last, freeEndAt(ring.x[0], ring.y[0]), freeEndAt(ring.x[last], ring.y[last]), 0);
};
const OPTIONS = { tolerancePx: 0.3, straightPx: 0.22 };

/** Largest distance of a section's points from the segments that were drawn through them. */
function furthest(section: Section, segments: readonly Segment[]): number {
  let most = 0;
  for (const { from, to, straight, cubic } of segments) {
    const [a, b] = [section.joint(from), section.joint(to)];
    const [ax, ay] = from === 0 ? [section.x[0], section.y[0]] : [a.x, a.y];
    const [bx, by] = to === section.n - 1 ? [section.x[to], section.y[to]] : [b.x, b.y];
    const drawn = Array.from({ length: 200 }, (_, k) => {
      const t = k / 199;
      const s = 1 - t;
      if (straight) return [ax * s + bx * t, ay * s + by * t];
      return [
        s ** 3 * ax + 3 * s * s * t * cubic.x1 + 3 * s * t * t * cubic.x2 + t ** 3 * bx,
        s ** 3 * ay + 3 * s * s * t * cubic.y1 + 3 * s * t * t * cubic.y2 + t ** 3 * by,
      ];
    });
    for (let k = from; k <= to; k++) most = Math.max(most, Math.min(...drawn.map(([x, y]) => Math.hypot(x - section.x[k], y - section.y[k]))));
  }
  return most;
}

describe('the division of an edge', () => {
  it('draws what is straight as one line', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 6.28, noNaN: true }), fc.integer({ min: 5, max: 200 }), (turn, length) => {
        const segments = new JointFinder(OPTIONS).divide(
          openSection(ringOf((t) => [300 + length * t * Math.cos(turn), 300 + length * t * Math.sin(turn)], length + 1)),
        );
        expect(segments.map(({ straight }) => straight)).toEqual([true]);
      }),
      { seed: 3, numRuns: 40 },
    );
  });

  it('takes few cubics that follow the points, and joins them end to end', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 200 }), fc.integer({ min: 1, max: 3 }), (radius, waves) => {
        const section = openSection(ringOf((t) => [300 + 3 * radius * t, 200 + 0.4 * radius * Math.sin(2 * Math.PI * waves * t)], 4 * radius));
        const segments = new JointFinder(OPTIONS).divide(section);
        expect(segments[0].from).toBe(0);
        expect(segments[segments.length - 1].to).toBe(section.n - 1);
        for (let k = 1; k < segments.length; k++) expect(segments[k].from).toBe(segments[k - 1].to);
        // Two to three for each half wave: more is noise, fewer does not follow.
        expect(segments.length).toBeLessThanOrEqual(6 * waves);
        expect(furthest(section, segments)).toBeLessThan(2 * OPTIONS.tolerancePx);
      }),
      { seed: 4, numRuns: 25 },
    );
  });

  it('goes round a whole ring with more than one', () => {
    const ring = ringOf((t) => [100 + 60 * Math.cos(2 * Math.PI * t), 100 + 60 * Math.sin(2 * Math.PI * t)], 377);
    const round = { ...ring, n: 376, closed: true } as Ring;
    const segments = new JointFinder(OPTIONS).divide(closedSection(round, 0));
    expect(segments.length).toBeGreaterThan(1);
    expect(segments.length).toBeLessThanOrEqual(6);
  });
});

describe('a section', () => {
  it('leaves out the points near its ends, which stand in for them', () => {
    const ring = ringOf((t) => [100 * t, 50], 101);
    const section = sectionWithin(ring, 10, 90, freeEndAt(10, 50), freeEndAt(90, 50), 3.5);
    expect([section.x[0], section.x[section.n - 1]]).toEqual([10, 90]);
    expect([section.x[1], section.x[section.n - 2]].map(Math.round)).toEqual([14, 86]);
    expect(section.closed).toBe(false);
  });
});
