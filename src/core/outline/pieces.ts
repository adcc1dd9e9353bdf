import { depthOf, isOpenRing, ringArea, ringCount, type Curves } from './curves.ts';

/** One connected region of film: an outer ring with the holes directly in it. */
export interface Piece {
  readonly outer: number;
  readonly holes: readonly number[];
  /** Area of film, square units of the coordinates. */
  readonly area: number;
}

/** Reads the pieces off the rings: every closed ring at an even depth is the outside of one. */
export function piecesOf(curves: Curves): Piece[] {
  const holes = new Map<number, number[]>();
  const outers: number[] = [];
  for (let ring = 0; ring < ringCount(curves); ring++) {
    if (isOpenRing(curves, ring)) continue;
    if (depthOf(curves, ring) % 2 === 0) {
      outers.push(ring);
      if (!holes.has(ring)) holes.set(ring, []);
    } else {
      const around = curves.parent[ring];
      const list = holes.get(around);
      if (list === undefined) holes.set(around, [ring]);
      else list.push(ring);
    }
  }
  return outers.map((outer) => {
    const inside = holes.get(outer) ?? [];
    const area = Math.abs(ringArea(curves, outer)) - inside.reduce((sum, hole) => sum + Math.abs(ringArea(curves, hole)), 0);
    return { outer, holes: inside, area };
  });
}
