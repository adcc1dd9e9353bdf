import type { Rings } from './rings.ts';

/**
 * Rings with fewer points: what is left out lies within a tolerance of the chord that replaces it (D. H. Douglas & T. K. Peucker, "Algorithms for the reduction of the number of points required to represent a digitized
 * line", Cartographica 10(2), 1973, doi:10.3138/FM57-6770-U75U-7727). A ring keeps the two points that lie farthest from each other along its first one, and is left out when it has no area then.
 */
export function simplifyRings({ points, starts }: Rings, tolerance: number): Rings {
  const kept: number[] = [];
  const ends = [0];
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const [from, count] = [starts[ring], starts[ring + 1] - starts[ring]];
    if (count < 3) continue;
    const at = (k: number): number => from + (k % count);
    let far = 1;
    for (let k = 1; k < count; k++) if (distance(points, at(0), at(k)) > distance(points, at(0), at(far))) far = k;
    const isKept = new Uint8Array(count + 1);
    isKept[0] = isKept[far] = 1;
    const open: [number, number][] = [[0, far], [far, count]];
    for (let span = open.pop(); span !== undefined; span = open.pop()) {
      const [a, b] = span;
      let [worst, most] = [-1, tolerance];
      for (let k = a + 1; k < b; k++) {
        const away = distanceToChord(points, at(k), at(a), at(b));
        if (away > most) [worst, most] = [k, away];
      }
      if (worst < 0) continue;
      isKept[worst] = 1;
      open.push([a, worst], [worst, b]);
    }
    const chosen = Array.from({ length: count }, (_, k) => k).filter((k) => isKept[k] === 1);
    if (chosen.length < 3) continue;
    for (const k of chosen) kept.push(points[2 * at(k)], points[2 * at(k) + 1]);
    ends.push(kept.length / 2);
  }
  return { kind: 'rings', points: Float64Array.from(kept), starts: Int32Array.from(ends) };
}

const distance = (p: Float64Array, a: number, b: number): number => Math.hypot(p[2 * a] - p[2 * b], p[2 * a + 1] - p[2 * b + 1]);

function distanceToChord(p: Float64Array, k: number, a: number, b: number): number {
  const [dx, dy] = [p[2 * b] - p[2 * a], p[2 * b + 1] - p[2 * a + 1]];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((p[2 * k] - p[2 * a]) * dx + (p[2 * k + 1] - p[2 * a + 1]) * dy) / square));
  return Math.hypot(p[2 * k] - p[2 * a] - t * dx, p[2 * k + 1] - p[2 * a + 1] - t * dy);
}
