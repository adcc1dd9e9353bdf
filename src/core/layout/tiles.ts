import type { Design } from '../assemble/design.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { AppError } from '../errors/appError.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { ofPieces, together } from '../operate/pieceMarks.ts';
import { piecesIndex } from '../operate/piecesIndex.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { translation } from '../geometry/affine.ts';
import { boxCurves } from './cutPlan.ts';
import type { TileSettings } from './layout.ts';
import { say } from '../words/say.ts';

/** Chords by which crossings are counted, mm. */
const CHORD_MM = 0.2;
/** Places at which a seam is tried within the room that there is. */
const PLACES = 41;
/** Tiles that a design may be parted into, along each side. */
const MOST_ALONG = 100;

/** A part of a design that fits a sheet. */
export interface Tile {
  readonly column: number;
  readonly row: number;
  /** What of the design it is, mm. */
  readonly rect: RectMm;
}

/**
 * How a design is parted so that each tile is no larger than a sheet's area: as few as possible along each side, their seams where they cut through the least film and cross the fewest edges.
 * The same for all films, so that their seams lie on each other. One tile when it fits.
 * @param most width and height that a tile may have, mm.
 * @throws AppError `doesNotFit` when the area is smaller than the overlap.
 */
export function tilesOf({ widthMm, heightMm, layers }: Pick<Design, 'widthMm' | 'heightMm' | 'layers'>, most: { readonly widthMm: number; readonly heightMm: number }, { manner, overlapMm }: TileSettings): Tile[] {
  const over = manner === 'overlap' ? overlapMm : 0;
  const edges = layers.map(({ curves }) => flatten(curves, CHORD_MM));
  const across = spans(widthMm, most.widthMm, over, (at) => calmAt(edges, 0, at));
  const down = spans(heightMm, most.heightMm, over, (at) => calmAt(edges, 1, at));
  return down.flatMap(([top, bottom], row) => across.map(([left, right], column): Tile => ({ column, row, rect: { xMm: left, yMm: top, widthMm: right - left, heightMm: bottom - top } })));
}

/** From and to of each tile along one side. @param costAt how bad it is to part the design there. */
function spans(length: number, most: number, over: number, costAt: (at: number) => number): [number, number][] {
  if (length <= most + 1e-9) return [[0, length]];
  if (most - over < 1) throw new AppError('doesNotFit', { overWidthMm: Math.ceil(length - most), overHeightMm: 0 });
  const count = Math.ceil((length - over) / (most - over) - 1e-9);
  if (count > MOST_ALONG) throw new AppError('badValue', { name: say('Tiles'), value: String(count), takes: say`at most ${MOST_ALONG} along a side; take a larger sheet` });
  const seams: number[] = [];
  let from = 0;
  for (let k = 1; k < count; k++) {
    // Far enough that the tiles that are left reach the end, and no further than this one reaches.
    const high = (k === 1 ? most : from + most - over / 2) - over / 2;
    const low = Math.max(from + over / 2 + 1e-6, length - ((count - k) * (most - over) + over / 2));
    const even = Math.min(high, Math.max(low, from + (length - from) / (count - k + 1)));
    let best = { at: even, cost: costAt(even), off: 0 };
    for (let place = 0; place < PLACES; place++) {
      const at = low + ((high - low) * place) / (PLACES - 1);
      const [cost, off] = [costAt(at), Math.abs(at - even)];
      if (cost < best.cost - 1e-9 || (cost < best.cost + 1e-9 && off < best.off)) best = { at, cost, off };
    }
    seams.push(best.at);
    from = best.at;
  }
  return [...seams, length].map((to, k): [number, number] => [k === 0 ? 0 : seams[k - 1] - over / 2, k === count - 1 ? to : to + over / 2]);
}

/** Each edge that a seam crosses counts as so much film cut through, mm. */
const CROSSING_MM = 5;

/** How much film a seam there cuts through in all films, and how many edges it crosses. */
function calmAt(films: readonly { readonly points: Float64Array; readonly starts: Int32Array }[], axis: 0 | 1, at: number): number {
  let cost = 0;
  for (const { points, starts } of films) {
    const crossings: number[] = [];
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
        const [a, b] = [points[2 * j + axis], points[2 * i + axis]];
        if (a > at === b > at) continue;
        crossings.push(points[2 * j + 1 - axis] + ((at - a) / (b - a)) * (points[2 * i + 1 - axis] - points[2 * j + 1 - axis]));
      }
    }
    crossings.sort((p, q) => p - q);
    for (let k = 0; k + 1 < crossings.length; k += 2) cost += crossings[k + 1] - crossings[k];
    cost += crossings.length * CROSSING_MM;
  }
  return cost;
}

/** A film's outlines on a tile, from the tile's upper left; undefined where it has nothing there. Only pieces that the tile's edge parts are cut; those within it stay as they are. */
export function onTile(library: PolygonLibrary, curves: Curves, { rect }: Tile): Curves | undefined {
  const { pieces, boxes } = piecesIndex(curves);
  const [right, bottom] = [rect.xMm + rect.widthMm, rect.yMm + rect.heightMm];
  const whole = pieces.filter((_, k) => boxes[k].left >= rect.xMm && boxes[k].right <= right && boxes[k].top >= rect.yMm && boxes[k].bottom <= bottom);
  const inside = new Set(whole);
  const parted = pieces.filter((piece, k) => !inside.has(piece) && boxes[k].left < right && boxes[k].right > rect.xMm && boxes[k].top < bottom && boxes[k].bottom > rect.yMm);
  const cut = parted.length === 0 ? [] : [combineCurves(library, 'common', ofPieces(curves, parted), boxCurves([rect]))];
  const own = together([...(whole.length === 0 ? [] : [ofPieces(curves, whole)]), ...cut]);
  return ringCount(own) === 0 ? undefined : transformCurves(own, translation(-rect.xMm, -rect.yMm));
}
