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

describe('the ends of a section', () => {
  /** How far a segment runs beyond its two joints along the way from one to the other, px. */
  function overrun(section: Section, { from, to, straight, cubic: { x1, y1, x2, y2 } }: Segment): number {
    if (straight) return 0;
    const [a, b] = [section.joint(from), section.joint(to)];
    const length = Math.hypot(b.x - a.x, b.y - a.y);
    const reach = (x: number, y: number): number => ((x - a.x) * (b.x - a.x) + (y - a.y) * (b.y - a.y)) / length;
    let most = 0;
    for (let t = 0; t <= 1; t += 0.02) {
      const s = 1 - t;
      const r = 3 * s * s * t * reach(x1, y1) + 3 * s * t * t * reach(x2, y2) + t ** 3 * length;
      most = Math.max(most, -r, r - length);
    }
    return most;
  }

  it('have no points past them, which a curve would go back for', () => {
    // A corner at 22.6 whose points go on beyond it, and another at 0.4 whose points begin before it.
    const places = [[-1.5, 0.3], [-1.5, 0.3], ...Array.from({ length: 22 }, (_, k) => [1 + k, 0.012 * k * k] as const), [24, 6.4], [24, 6.41], [24.4, 6.6]] as const;
    const ring = ringOf((t) => places[Math.round(t * (places.length - 1))] as readonly [number, number], places.length);
    const section = sectionWithin(ring, 0, ring.n - 1, freeEndAt(0.4, 0), freeEndAt(22.6, 5.6), 0);
    expect(section.x[1]).toBe(1);
    expect(section.x[section.n - 2]).toBeLessThan(22.6);
    for (const segment of new JointFinder(OPTIONS).divide(section)) expect(overrun(section, segment)).toBeLessThan(0.05);
  });

  it('keep a tip, whose points turn back to the side', () => {
    const tip = [[0, 0], [0.5, 1.4], [1, 2.8], [1.5, 1.4]] as const;
    const ring = ringOf((t) => tip[Math.round(t * 3)], 4);
    const section = sectionWithin(ring, 0, 3, freeEndAt(0, 0), freeEndAt(4, 0), 0);
    expect([...section.y]).toEqual([0, 0, 1.4, 2.8, 1.4, 0]);
  });

  it('of any few points leave no hook in the curves between them', () => {
    const stretch = fc.array(fc.tuple(fc.double({ min: 0.6, max: 1.3, noNaN: true }), fc.double({ min: -0.2, max: 0.2, noNaN: true })), { minLength: 3, maxLength: 14 });
    fc.assert(
      fc.property(stretch, fc.double({ min: 0, max: 2, noNaN: true }), (steps, past) => {
        let x = 0;
        const points = steps.map(([step, off]) => [(x += step), off] as const);
        const ring = ringOf((t) => points[Math.round(t * (points.length - 1))], points.length);
        const section = sectionWithin(ring, 0, ring.n - 1, freeEndAt(0, 0), freeEndAt(Math.max(1, x - past), 0.1), 0);
        for (const segment of new JointFinder(OPTIONS).divide(section)) expect(overrun(section, segment)).toBeLessThan(0.5);
      }),
      { seed: 3, numRuns: 300 },
    );
  });
});
