import { CornerCheck, type CorneredEdge } from './cornerCheck.ts';
import type { Corner } from './corners.ts';
import type { Task } from '../task/task.ts';
import { CurvesBuilder, type Curves } from './curves.ts';

/** Edges between pauses. */
const BETWEEN_PAUSES = 50;

/** An edge that was drawn with corners. */
export interface DrawnEdge {
  /** Read just before its corners are held against the picture. */
  readonly edge: () => CorneredEdge;
  /** Draws it anew, as the next ring. */
  readonly draw: (builder: CurvesBuilder, corners: readonly Corner[]) => void;
}

/**
 * Curves whose corners stand before the picture: edges where some do not are drawn anew.
 * @param drawn edges with corners by the ring of the curves that they are. @param width, height of the picture, px.
 */
export function* settleCorners(curves: Curves, drawn: ReadonlyMap<number, DrawnEdge>, width: number, height: number): Task<Curves> {
  const check = new CornerCheck(curves, width, height);
  const settled = new Map<number, readonly Corner[]>();
  let done = 0;
  for (const [ring, { edge }] of drawn) {
    const corners = check.settle(edge(), ring);
    if (corners !== undefined) settled.set(ring, corners);
    if (++done % BETWEEN_PAUSES === 0) yield done / drawn.size;
  }
  if (settled.size === 0) return curves;
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < curves.parent.length; ring++) {
    const corners = settled.get(ring);
    if (corners === undefined) builder.copy(curves, ring, curves.parent[ring]);
    else drawn.get(ring)?.draw(builder, corners);
  }
  return builder.build();
}
