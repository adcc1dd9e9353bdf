import { signedArea } from '../geometry/rings.ts';
import { insideRing } from './checkCurves.ts';
import { boxOfPoints, coordsOfVerb, CurvesBuilder, isOpenRing, LINE, type Bounds, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Chords for telling what lies in what, in units of the coordinates. */
const CHORD = 0.1;

/**
 * Finds which ring lies in which by their geometry and turns each into the direction of its depth. Rings come out parents first; open ones last, without a
 * parent. Rings that cross count as lying side by side. Quadratic in the number of rings whose boxes overlap.
 */
export function nestRings(curves: Curves): Curves {
  const rings = flatten(curves, CHORD);
  const { points, starts } = rings;
  const count = curves.parent.length;
  const area = Array.from({ length: count }, (_, k) => signedArea(points, starts[k], starts[k + 1]));
  const boxes = Array.from({ length: count }, (_, k) => boxOfPoints(points, starts[k], starts[k + 1]));
  const closed = Array.from(area.keys()).filter((k) => !isOpenRing(curves, k));
  const bySize = [...closed].sort((a, b) => Math.abs(area[b]) - Math.abs(area[a]));
  const parent = new Int32Array(count).fill(-1);
  const depth = new Int32Array(count);
  for (const [at, k] of bySize.entries()) {
    const x = points[2 * starts[k]];
    const y = points[2 * starts[k] + 1];
    // The smallest ring around it is the last of those that hold its first point.
    for (let other = at - 1; other >= 0; other--) {
      const around = bySize[other];
      if (!holds(boxes[around], boxes[k]) || !insideRing(rings, around, x, y)) continue;
      parent[k] = around;
      depth[k] = depth[around] + 1;
      break;
    }
  }
  const open = Array.from(area.keys()).filter((k) => isOpenRing(curves, k));
  const order = [...closed.sort((a, b) => depth[a] - depth[b] || a - b), ...open];
  const place = new Int32Array(count);
  for (const [at, k] of order.entries()) place[k] = at;
  const builder = new CurvesBuilder();
  for (const k of order) {
    const wrongWay = !open.includes(k) && area[k] > 0 !== (depth[k] % 2 === 0);
    drawRingOf(builder, curves, k, parent[k] < 0 ? -1 : place[parent[k]], wrongWay);
  }
  return builder.build();
}

const holds = (a: Bounds, b: Bounds): boolean => a.left <= b.left && a.top <= b.top && a.right >= b.right && a.bottom >= b.bottom;

/** Copies a ring, turned round when it runs the wrong way. */
function drawRingOf(builder: CurvesBuilder, { verbs, coords, verbStart, coordStart }: Curves, ring: number, parent: number, turned: boolean): void {
  let at = turned ? coordStart[ring + 1] - 2 : coordStart[ring];
  builder.start(coords[at], coords[at + 1], parent);
  const step = turned ? -1 : 1;
  const point = (k: number): [number, number] => [coords[at + step * 2 * k], coords[at + step * 2 * k + 1]];
  for (let v = turned ? verbStart[ring + 1] - 1 : verbStart[ring]; turned ? v >= verbStart[ring] : v < verbStart[ring + 1]; v += step) {
    if (verbs[v] === LINE) builder.line(...point(1));
    else builder.cubic(...point(1), ...point(2), ...point(3));
    at += step * coordsOfVerb(verbs[v]);
  }
  builder.close();
}
