import { CurvesBuilder, isOpenRing, ringArea, ringCount, type Curves } from './curves.ts';
import { piecesOf } from './pieces.ts';

/**
 * The outlines without pieces and openings smaller than an area. An opening goes with all that lies in it; of a piece only what is its own goes, and what lies
 * in its openings stays. Open rings stay. Rings come in with their parents before them, and go out so.
 */
export function withoutSmallRings(curves: Curves, leastArea: number): Curves {
  const pieces = piecesOf(curves);
  const smallPieces = new Set(pieces.filter(({ area }) => area < leastArea).map(({ outer }) => outer));
  const holes = new Set(pieces.flatMap((piece) => piece.holes));
  const { parent } = curves;
  const builder = new CurvesBuilder();
  /** Its new number; of what is left out, that of what lies around it, or −1; `GONE` with all that lies in it. */
  const place = new Int32Array(ringCount(curves));
  let count = 0;
  for (let ring = 0; ring < place.length; ring++) {
    const around = parent[ring] < 0 ? -1 : place[parent[ring]];
    if (around === GONE || (holes.has(ring) && Math.abs(ringArea(curves, ring)) < leastArea)) {
      place[ring] = GONE;
      continue;
    }
    const isLeftOut = smallPieces.has(ring) || (holes.has(ring) && smallPieces.has(parent[ring]));
    if (isLeftOut && !isOpenRing(curves, ring)) {
      place[ring] = around;
      continue;
    }
    builder.copy(curves, ring, around);
    place[ring] = count++;
  }
  return count === place.length ? curves : builder.build();
}

const GONE = -2;
