import type { DesignLayer } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { insideRing } from '../outline/checkCurves.ts';
import type { Bounds } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { largestPlace, ofPieces } from '../operate/pieceMarks.ts';
import { piecesIndex, type PiecesIndex } from '../operate/piecesIndex.ts';
import type { Finding } from './cutCheck.ts';

/** Overlaps are told from this size: what merely touches comes out below it, mm². */
const LEAST_MM2 = 0.05;
/** So many places of a film are told at most. */
const MOST = 100;
/** Pairs of chords that are tried for a crossing. */
const MOST_TRIED = 2_000_000;

/** Places where two pieces of one film lie over each other, so that both would be cut there; largest first. */
export function cutTwice(library: PolygonLibrary, layers: readonly DesignLayer[]): Finding[] {
  return layers.flatMap(({ filmId, curves }) => {
    const index = piecesIndex(curves);
    const found: Finding[] = [];
    for (const [a, b] of pairsOf(index.boxes)) {
      if (found.length >= MOST) break;
      if (!touch(index, a, b)) continue;
      const common = combineCurves(library, 'common', ofPieces(curves, [index.pieces[a]]), ofPieces(curves, [index.pieces[b]]));
      const pieces = piecesOf(common);
      const size = pieces.reduce((sum, { area }) => sum + area, 0);
      if (size < LEAST_MM2) continue;
      const { x, y } = largestPlace(common);
      found.push({ kind: 'cutTwice', filmId, xMm: x, yMm: y, size });
    }
    return found.sort((p, q) => q.size - p.size);
  });
}

/** Pairs of boxes that overlap, each once. */
function* pairsOf(boxes: readonly Bounds[]): Generator<readonly [number, number]> {
  const order = boxes.map((_, k) => k).sort((a, b) => boxes[a].left - boxes[b].left);
  let open: number[] = [];
  for (const k of order) {
    const { left, top, bottom } = boxes[k];
    open = open.filter((each) => boxes[each].right > left);
    for (const each of open) if (boxes[each].top < bottom && top < boxes[each].bottom) yield [each, k];
    open.push(k);
  }
}

/** Whether the outlines of two pieces cross, or one lies on the other; not for one in an opening of the other. */
function touch(index: PiecesIndex, a: number, b: number): boolean {
  return startsOn(index, a, b) || startsOn(index, b, a) || outlinesCross(index, a, b);
}

/** Whether the first point of a piece lies on another one. */
function startsOn({ pieces, rings }: PiecesIndex, a: number, b: number): boolean {
  const at = 2 * rings.starts[pieces[a].outer];
  const [x, y] = [rings.points[at], rings.points[at + 1]];
  return insideRing(rings, pieces[b].outer, x, y) && !pieces[b].holes.some((hole) => insideRing(rings, hole, x, y));
}

function outlinesCross({ pieces, rings: { points, starts }, boxes }: PiecesIndex, a: number, b: number): boolean {
  const shared = { left: Math.max(boxes[a].left, boxes[b].left), top: Math.max(boxes[a].top, boxes[b].top), right: Math.min(boxes[a].right, boxes[b].right), bottom: Math.min(boxes[a].bottom, boxes[b].bottom) };
  const near = (rings: readonly number[]): Float64Array => {
    const chords: number[] = [];
    for (const ring of rings) {
      for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
        const [x0, y0, x1, y1] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
        if (Math.max(x0, x1) >= shared.left && Math.min(x0, x1) <= shared.right && Math.max(y0, y1) >= shared.top && Math.min(y0, y1) <= shared.bottom) chords.push(x0, y0, x1, y1);
      }
    }
    return Float64Array.from(chords);
  };
  const ringsOf = ({ outer, holes }: PiecesIndex['pieces'][number]): readonly number[] => [outer, ...holes];
  const [p, q] = [near(ringsOf(pieces[a])), near(ringsOf(pieces[b]))];
  // So many that combining the two is quicker.
  if ((p.length / 4) * (q.length / 4) > MOST_TRIED) return true;
  for (let i = 0; i < p.length; i += 4) for (let j = 0; j < q.length; j += 4) if (cross(p, i, q, j)) return true;
  return false;
}

function cross(p: Float64Array, i: number, q: Float64Array, j: number): boolean {
  const side = (ax: number, ay: number, bx: number, by: number, x: number, y: number): number => (bx - ax) * (y - ay) - (by - ay) * (x - ax);
  const [ax, ay, bx, by, cx, cy, dx, dy] = [p[i], p[i + 1], p[i + 2], p[i + 3], q[j], q[j + 1], q[j + 2], q[j + 3]];
  return side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 && side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0;
}
