import { ringArea } from '../curves.ts';
import type { ArcMesh } from './arcMesh.ts';
import type { MeshRegions } from './meshRegions.ts';

/**
 * Films of the regions with every piece and opening below a size left out: regions of one film that hang together over an edge, smaller than that, become the
 * film, or none, with which they share most of their edge. Smallest first, so that bits inside bits go together. What lies outside of the picture stays.
 * @param filmOf film of each region, −1 for none; not changed. @param leastAreaPx2 px², by the curves themselves.
 */
export function withoutSmallPieces({ arcs, curves }: ArcMesh, regions: MeshRegions, filmOf: Int32Array, leastAreaPx2: number): Int32Array {
  const out = filmOf.slice();
  const area = new Float64Array(regions.count);
  const neighbours: { arc: number; other: number }[][] = Array.from({ length: regions.count }, () => []);
  for (let k = 0; k < arcs.count; k++) {
    const swept = ringArea(curves, k);
    const [left, right] = [regions.left[k], regions.right[k]];
    // The right side of travel is inside, y being down.
    area[right] += swept;
    area[left] -= swept;
    neighbours[left].push({ arc: k, other: right });
    neighbours[right].push({ arc: k, other: left });
  }
  const lengthOf = (arc: number): number => arcs.starts[arc + 1] - arcs.starts[arc];
  const order = Array.from(area.keys()).sort((a, b) => area[a] - area[b] || a - b);
  for (const seed of order) {
    if (area[seed] >= leastAreaPx2) break;
    const group = groupOf(seed, out, neighbours);
    if (group.some((region) => regions.firstPixel[region] < 0)) continue;
    if (group.reduce((sum, region) => sum + area[region], 0) >= leastAreaPx2) continue;
    const votes = new Map<number, number>();
    for (const region of group)
      for (const { arc, other } of neighbours[region]) if (out[other] !== out[seed]) votes.set(out[other], (votes.get(out[other]) ?? 0) + lengthOf(arc));
    const [best] = [...votes].sort(([a, x], [b, y]) => y - x || a - b);
    if (best !== undefined) for (const region of group) out[region] = best[0];
  }
  return out;
}

/** The regions of one film that hang together with one over edges. */
function groupOf(seed: number, filmOf: Int32Array, neighbours: readonly (readonly { other: number }[])[]): number[] {
  const group = [seed];
  const seen = new Set(group);
  for (let head = 0; head < group.length; head++) {
    for (const { other } of neighbours[group[head]]) {
      if (filmOf[other] !== filmOf[seed] || seen.has(other)) continue;
      seen.add(other);
      group.push(other);
    }
  }
  return group;
}
