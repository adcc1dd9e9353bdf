import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/fixtures/shapes.ts';
import type { Ring } from '../corners.ts';
import type { ArcPoints } from './arcPoints.ts';
import { commonRoughness } from './commonRoughness.ts';
import type { CrackArcs } from './crackArcs.ts';

/** A closed edge around a bar with round ends, as broad and long as is said, px, that strays from it. */
function around(lengthPx: number, widthPx: number, strayPx = 0): Ring {
  const random = randomFrom(3);
  const radius = widthPx / 2;
  const places: [number, number][] = [];
  const turn = Math.PI * radius;
  const whole = 2 * (lengthPx + turn);
  for (let at = 0; at < whole; at++) {
    const half = at % (whole / 2);
    const angle = half < lengthPx ? 0 : (half - lengthPx) / radius;
    const [x, y] = [Math.min(half, lengthPx) - lengthPx / 2 + radius * Math.sin(angle), -radius * Math.cos(angle)];
    const side = at < whole / 2 ? 1 : -1;
    const off = 1 + (strayPx * (random() - 0.5) * 2) / radius;
    places.push([side * x * off, side * y * off]);
  }
  const [x, y] = [Float64Array.from(places, ([each]) => each), Float64Array.from(places, ([, each]) => each)];
  const along = Float64Array.from({ length: places.length + 1 }, (_, k) => k);
  return { n: places.length, x, y, along, closed: true };
}

/** How rough the first of some edges between the same two tones is taken to be; each says of itself how rough it is. */
function roughnessOf(edges: readonly (Partial<ArcPoints> & { readonly ring: Ring })[]): number {
  const points = edges.map((edge): ArcPoints => ({ edgeWidthPx: 1, isStepped: false, roughPx: 0.3, finelyRoughPx: 0.3, stray: { middle: 0, count: 100 }, ...edge }));
  const arcs = { count: edges.length, left: new Uint8Array(edges.length), right: new Uint8Array(edges.length).fill(1) } as Partial<CrackArcs> as CrackArcs;
  return commonRoughness(arcs, points)(0);
}

describe('how rough edges are', () => {
  it('is what their points say where broad shapes are jagged in a calm picture', () => {
    expect(roughnessOf([{ ring: around(60, 30, 1) }])).toBe(0.3);
  });

  it('is next to nothing around letters of a calm picture, which turn as often as teeth do', () => {
    expect(roughnessOf([{ ring: around(60, 2) }])).toBeLessThan(0.05);
    // Beside jagged edges of broad shapes they may be jagged too.
    expect(roughnessOf([{ ring: around(60, 2) }, { ring: around(120, 40, 1) }])).toBe(0.3);
  });

  it('is no more than what lies beside them strays, three times over', () => {
    const noisy = { middle: 0.05, count: 100 };
    expect(roughnessOf([{ ring: around(60, 8), stray: noisy }])).toBeCloseTo(0.03 + 3 * 0.05, 6);
    expect(roughnessOf([{ ring: around(60, 8), stray: noisy, roughPx: 0.1 }])).toBe(0.1);
  });

  it('is what their points say around what is broader than letters, however even its tones are: cleaning leaves edges as compression made them', () => {
    expect(roughnessOf([{ ring: around(60, 30, 0.1), roughPx: 0.08, finelyRoughPx: 0.08 }])).toBe(0.08);
    expect(roughnessOf([{ ring: around(60, 8, 0.1), roughPx: 0.08, finelyRoughPx: 0.08 }])).toBeCloseTo(0.03, 6);
  });

  it('is that of the long edges between the same tones for short ones', () => {
    const short = { ...around(4, 2), n: 12 };
    expect(roughnessOf([{ ring: short }, { ring: around(120, 40), roughPx: 0.02, finelyRoughPx: 0.02 }])).toBe(0.02);
  });
});
