import type { DesignLayer } from '../assemble/design.ts';
import type { Bounds } from '../outline/curves.ts';
import { piecesIndex } from './piecesIndex.ts';

/** A piece is a stray below this share of the largest one's area, */
const SMALL = 0.01;
/** and further from every other one than so many of its own longer sides, or mm. */
const AWAY = 1.5;
const AWAY_MM = 2;

/** A piece that lies by itself: its film, and its number in `piecesOf` the film's outline. */
export interface Stray {
  readonly film: string;
  readonly piece: number;
}

/** Small pieces that lie away from all others: what a drawing leaves behind, as a rule. */
export function straysOf(layers: readonly DesignLayer[]): Stray[] {
  const all = layers.flatMap(({ filmId, curves }) => piecesIndex(curves).pieces.map(({ area }, piece) => ({ film: filmId, piece, area, box: piecesIndex(curves).boxes[piece] })));
  const largest = all.reduce((most, { area }) => Math.max(most, area), 0);
  return all
    .filter(({ area }) => area < SMALL * largest)
    .filter((each) => {
      const { left, top, right, bottom } = each.box;
      const room = Math.max(AWAY_MM, AWAY * Math.max(right - left, bottom - top));
      return all.every((other) => other === each || gapBetween(each.box, other.box) > room);
    })
    .map(({ film, piece }) => ({ film, piece }));
}

/** How far two boxes are apart; 0 where they overlap. */
function gapBetween(a: Bounds, b: Bounds): number {
  return Math.hypot(Math.max(0, a.left - b.right, b.left - a.right), Math.max(0, a.top - b.bottom, b.top - a.bottom));
}
