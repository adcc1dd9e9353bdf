import type { OpenEdges } from './openEdges.ts';

/** A bridge across an opening, mm: its middle line from the island to the film that holds it, and how broad it is. */
export interface BridgePlace {
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
  readonly widthMm: number;
}

/** Where a bridge might leave an island: a place on its edge and the direction into the opening. */
export interface Leaving {
  readonly x: number;
  readonly y: number;
  readonly dx: number;
  readonly dy: number;
}

/**
 * How much is asked of a place: `sound`, that the bridge meets both edges about straight and lies on film that is broad enough to bear it; `whole`, that it goes from edge to edge in all of its width; `any`, that its
 * middle line does.
 */
export type Demand = 'sound' | 'whole' | 'any';

/** Lines across the width at which a bridge is measured, as shares of it from the middle. */
const ACROSS = [-0.5, -0.25, 0.25, 0.5];
/** How much further the edges of a bridge may be than its middle, in widths. */
const UNEVEN = 0.8;
/** Film under the end of a sound bridge, in widths. */
const BEARING = 0.6;
/** A bridge reaches so far into the film, in widths: more than edges bend between the lines at which it is measured, and chords lie off them. */
const OVER = 0.1;

/**
 * The bridge that crosses the opening from a place on an island's edge, long enough in all of its width; undefined where it does not reach another edge, or not as is demanded.
 * @param island ring that the place is on. @param most mm.
 */
export function crossingAt(edges: OpenEdges, { x, y, dx, dy }: Leaving, island: number, widthMm: number, most: number, demand: Demand): (BridgePlace & { readonly ring: number; readonly across: number }) | undefined {
  const met = edges.meet(x, y, dx, dy, most, 1e-4);
  if (met === undefined || met.ring === island) return undefined;
  const half = met.distance / 2;
  const middle = { x: x + dx * half, y: y + dy * half };
  let [back, ahead] = [half, half];
  for (const share of ACROSS) {
    const [px, py] = [middle.x - dy * share * widthMm, middle.y + dx * share * widthMm];
    if (!edges.isInside(px, py)) {
      if (demand !== 'any') return undefined;
      continue;
    }
    const [there, here] = [edges.meet(px, py, dx, dy, most), edges.meet(px, py, -dx, -dy, most)];
    const isWhole = there?.ring === met.ring && here?.ring === island;
    if (demand !== 'any' && !isWhole) return undefined;
    if (demand === 'sound' && Math.max((there?.distance ?? 0) - half, (here?.distance ?? 0) - half) > UNEVEN * widthMm) return undefined;
    if (there?.ring === met.ring) ahead = Math.max(ahead, there.distance);
    if (here?.ring === island) back = Math.max(back, here.distance);
  }
  if (demand === 'sound') {
    for (const share of [-0.25, 0, 0.25]) {
      for (const along of [ahead + BEARING * widthMm, -back - BEARING * widthMm]) {
        if (edges.isInside(middle.x + dx * along - dy * share * widthMm, middle.y + dy * along + dx * share * widthMm)) return undefined;
      }
    }
  }
  const over = OVER * widthMm;
  const at = (along: number): { x: number; y: number } => ({ x: middle.x + dx * along, y: middle.y + dy * along });
  return { from: at(-back - over), to: at(ahead + over), widthMm, ring: met.ring, across: met.across };
}
