import { shortRoute } from '../geometry/shortRoute.ts';
import { boundsOf, coordsOfVerb, CurvesBuilder, depthOf, isOpenRing, nodePlaces, ringCount, type Curves } from '../outline/curves.ts';

/** Curves whose rings begin where the knife comes to them, and the order in which it does. */
export interface CutRoute {
  readonly curves: Curves;
  readonly order: Int32Array;
}

/** A corner is begun at rather than a nearer node when it is no further than this, mm: there an end that does not quite meet shows least. */
const CORNER_WORTH_MM = 4;
/** Directions that differ by more make a corner: cosine. */
const CORNER = 0.94;

/**
 * The way of a knife along outlines: region by region, so that the way between them is short; of each what lies deepest first, so that nothing moves before it is cut, and its outside last; each ring from the corner that is near.
 * @param from where the knife comes from, in the frame of the curves; their upper left when absent.
 */
export function cutRoute(curves: Curves, from?: { readonly x: number; readonly y: number }): CutRoute {
  const regions = regionsOf(curves);
  const box = boundsOf(curves);
  let place = from ?? { x: box?.left ?? 0, y: box?.top ?? 0 };
  const [x, y] = [0, 1].map((axis) => regions.map(({ outer }) => curves.coords[curves.coordStart[outer] + axis]));
  const order: number[] = [];
  const starts = new Int32Array(ringCount(curves));
  for (const region of shortRoute(x, y, place.x, place.y)) {
    const left = new Set(regions[region].inner);
    const take = (ring: number): void => {
      starts[ring] = startOf(curves, ring, place);
      place = placeOf(curves, ring, starts[ring]);
      order.push(ring);
      left.delete(ring);
    };
    // Of those as deep as the deepest that are left, the nearest.
    while (left.size > 0) {
      const deepest = Math.max(...[...left].map((ring) => depthOf(curves, ring)));
      let best = { ring: -1, away: Infinity };
      for (const ring of left) {
        if (depthOf(curves, ring) < deepest) continue;
        const { x: px, y: py } = placeOf(curves, ring, startOf(curves, ring, place));
        const away = Math.hypot(px - place.x, py - place.y);
        if (away < best.away) best = { ring, away };
      }
      take(best.ring);
    }
    take(regions[region].outer);
  }
  return { curves: begunAt(curves, starts), order: Int32Array.from(order) };
}

function regionsOf(curves: Curves): { readonly outer: number; readonly inner: number[] }[] {
  const regions = new Map<number, { outer: number; inner: number[] }>();
  const topOf = (ring: number): number => {
    let at = ring;
    while (curves.parent[at] >= 0) at = curves.parent[at];
    return at;
  };
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const top = topOf(ring);
    const own = regions.get(top) ?? { outer: top, inner: [] };
    regions.set(top, own);
    if (ring !== top) own.inner.push(ring);
  }
  return [...regions.values()];
}

/** The segment of a ring that the knife begins with: that of the nearest node, or of a corner that is nearly as near. */
function startOf(curves: Curves, ring: number, { x, y }: { readonly x: number; readonly y: number }): number {
  const { verbs, coords, verbStart, coordStart } = curves;
  if (isOpenRing(curves, ring)) return 0;
  let [best, least] = [0, Infinity];
  let at = coordStart[ring];
  let before = { x: coords[at] - coords[coordStart[ring + 1] - 4], y: coords[at + 1] - coords[coordStart[ring + 1] - 3] };
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    const along = { x: coords[at + 2] - coords[at], y: coords[at + 3] - coords[at + 1] };
    const lengths = Math.hypot(before.x, before.y) * Math.hypot(along.x, along.y);
    const isCorner = lengths > 0 && before.x * along.x + before.y * along.y < CORNER * lengths;
    const away = Math.hypot(coords[at] - x, coords[at + 1] - y) + (isCorner ? 0 : CORNER_WORTH_MM);
    if (away < least) [best, least] = [v - verbStart[ring], away];
    const end = at + coordsOfVerb(verbs[v]);
    before = { x: coords[end] - coords[end - 2], y: coords[end + 1] - coords[end - 1] };
    at = end;
  }
  return best;
}

function placeOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number, start: number): { x: number; y: number } {
  let at = coordStart[ring];
  for (let v = verbStart[ring]; v < verbStart[ring] + start; v++) at += coordsOfVerb(verbs[v]);
  return { x: coords[at], y: coords[at + 1] };
}

/** The same rings, each begun at another of its nodes. */
function begunAt(curves: Curves, starts: Int32Array): Curves {
  const { coords, verbStart, parent } = curves;
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < parent.length; ring++) {
    if (starts[ring] === 0) {
      builder.copy(curves, ring, parent[ring]);
      continue;
    }
    const places = nodePlaces(curves, ring);
    const count = verbStart[ring + 1] - verbStart[ring];
    const first = places[starts[ring]];
    builder.start(coords[first], coords[first + 1], parent[ring]);
    for (let k = 0; k < count; k++) {
      const segment = (starts[ring] + k) % count;
      builder.verb(curves, verbStart[ring] + segment, places[segment]);
    }
    builder.close();
  }
  return builder.build();
}
