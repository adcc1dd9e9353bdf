import { fillRegions, labelRegions, rootOf, runsByRegion, type Regions } from '../raster/labelRegions.ts';
import type { LineEnd } from './lineEnds.ts';

/** Pieces of ink lower and narrower than this are dots and specks, px. */
const LEAST_SIDE_PX = 6;
/** Letters that stand beside each other differ by no more than this in size: a capital with a small letter, an i with a W. */
const MOST_SIZE_RATIO = 2;
/** Room between neighbours in the sizes of the smaller: a space between words too. */
const MOST_ROOM = 0.8;
/** Letters stand beside each other: their boxes share no more than this of the smaller. */
const MOST_OVERLAP = 0.15;
/** A piece larger than so many half widths of its line is a drawing rather than a letter: those of a light face are 26 half widths high. */
const MOST_SLENDER = 30;
/** Of so many nearest neighbours two are looked for that lie on both sides. */
const NEIGHBOURS = 8;
/** Cosine of the angle between two neighbours: three in a row, of straight or arched lettering. */
const IN_A_ROW = Math.cos((150 * Math.PI) / 180);
/** Dashes of a broken line stand in a row as well, but go plainly from end to end: of letters so many fork, hold an opening or turn back. */
const LEAST_WROUGHT = 2;
const LEAST_WROUGHT_SHARE = 0.35;
/**
 * A line so many times as long as its ends are apart turns back, half a circle is less; and an outline with a break has its ends nearer to each other than this
 * share of its size.
 */
const TURNS_BACK = 1.8;
const LEAST_OPENING = 0.4;

/** A piece of ink: its box, and whether it forks, holds an opening or turns back. */
interface Piece {
  readonly region: number;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
  readonly side: number;
  readonly isWrought: boolean;
}

/**
 * Which ink is lettering: pieces of like size in rows of three or more, of which some fork, hold an opening or turn back (after the grouping of components into
 * lines of text by Fletcher & Kasturi, "A robust algorithm for text string separation from mixed text/graphics images", IEEE TPAMI 10(6), 1988,
 * doi:10.1109/34.9112).
 * @param ink 1 where there is ink. @param ends where the lines of the ink end. @returns 1 on the pixels of lettering.
 */
export function letteringMask(ink: Uint8Array, width: number, height: number, ends: readonly LineEnd[]): Uint8Array {
  const regions = labelRegions(ink, width, height, 1, true);
  const pieces = piecesOf(regions, ink, width, height, ends);
  const row = rowsOf(pieces);
  const members = new Map<number, { count: number; wrought: number }>();
  for (const [k, { isWrought }] of pieces.entries()) {
    const group = members.get(row[k]) ?? { count: 0, wrought: 0 };
    members.set(row[k], { count: group.count + 1, wrought: group.wrought + Number(isWrought) });
  }
  const isLettering = new Uint8Array(regions.count);
  for (const [k, { region }] of pieces.entries()) {
    const { count, wrought } = members.get(row[k]) ?? { count: 0, wrought: 0 };
    if (count >= 3 && wrought >= Math.max(LEAST_WROUGHT, LEAST_WROUGHT_SHARE * count)) isLettering[region] = 1;
  }
  return fillRegions(regions, isLettering, new Uint8Array(ink.length));
}

function piecesOf(regions: Regions, ink: Uint8Array, width: number, height: number, ends: readonly LineEnd[]): Piece[] {
  const label = new Int32Array(ink.length).fill(-1);
  for (let run = 0; run < regions.runStart.length; run++) label.fill(regions.regionOfRun[run], regions.runStart[run], regions.runEnd[run]);
  const endsOf: LineEnd[][] = Array.from({ length: regions.count }, () => []);
  for (const end of ends) endsOf[label[end.pixel]].push(end);
  const ground = labelRegions(ink, width, height, 0, false);
  const groundRuns = runsByRegion(ground);
  const hasOpening = new Uint8Array(regions.count);
  // Left of the first run of an opening lies what holds it.
  for (let k = 0; k < ground.count; k++) if (ground.touchesBorder[k] === 0) hasOpening[label[ground.runStart[groundRuns.runs[groundRuns.first[k]]] - 1]] = 1;
  const { first, runs } = runsByRegion(regions);
  const pieces: Piece[] = [];
  for (let region = 0; region < regions.count; region++) {
    let [x0, x1] = [width, 0];
    for (let k = first[region]; k < first[region + 1]; k++) {
      x0 = Math.min(x0, regions.runStart[runs[k]] % width);
      x1 = Math.max(x1, ((regions.runEnd[runs[k]] - 1) % width) + 1);
    }
    const y0 = Math.floor(regions.runStart[runs[first[region]]] / width);
    const y1 = Math.floor(regions.runStart[runs[first[region + 1] - 1]] / width) + 1;
    const side = Math.max(x1 - x0, y1 - y0);
    const isLarge = endsOf[region].length > 0 && endsOf[region].every(({ halfWidthPx }) => side > MOST_SLENDER * halfWidthPx);
    if (side >= LEAST_SIDE_PX && !isLarge)
      pieces.push({
        region,
        x0,
        y0,
        x1,
        y1,
        side,
        isWrought: hasOpening[region] === 1 || endsOf[region].length > 2 || turnsBack(endsOf[region], regions.area[region], side),
      });
  }
  return pieces;
}

function turnsBack([a, b, ...more]: readonly LineEnd[], area: number, side: number): boolean {
  if (b === undefined || more.length > 0) return false;
  const apart = Math.hypot(b.xPx - a.xPx, b.yPx - a.yPx);
  return apart > LEAST_OPENING * side && area / (a.halfWidthPx + b.halfWidthPx) > TURNS_BACK * apart;
}

/** For each piece the number of the row that it stands in: the least of its members. */
function rowsOf(pieces: readonly Piece[]): Int32Array {
  const parent = Int32Array.from(pieces.keys());
  const root = (k: number): number => rootOf(parent, k);
  const join = (a: number, b: number): void => void (parent[Math.max(root(a), root(b))] = Math.min(root(a), root(b)));
  const beside = neighboursOf(pieces);
  for (const [k, near] of beside.entries()) {
    for (const [n, a] of near.entries())
      for (const c of near.slice(n + 1)) {
        if (cosineAt(pieces[k], pieces[a], pieces[c]) > IN_A_ROW) continue;
        join(k, a);
        join(k, c);
      }
  }
  return Int32Array.from(pieces.keys(), root);
}

/** For each piece its nearest ones of like size. */
function neighboursOf(pieces: readonly Piece[]): number[][] {
  const byLeft = Array.from(pieces.keys()).sort((a, b) => pieces[a].x0 - pieces[b].x0);
  const near: { k: number; room: number }[][] = pieces.map(() => []);
  for (const [n, a] of byLeft.entries()) {
    const one = pieces[a];
    const far = one.x1 + MOST_ROOM * one.side;
    for (let m = n + 1; m < byLeft.length && pieces[byLeft[m]].x0 <= far; m++) {
      const other = pieces[byLeft[m]];
      const [bigger, smaller] = one.side > other.side ? [one.side, other.side] : [other.side, one.side];
      if (bigger > MOST_SIZE_RATIO * smaller) continue;
      const room = Math.max(other.x0 - one.x1, other.y0 - one.y1, one.y0 - other.y1);
      if (room > MOST_ROOM * smaller || overlap(one, other) > MOST_OVERLAP) continue;
      near[a].push({ k: byLeft[m], room });
      near[byLeft[m]].push({ k: a, room });
    }
  }
  return near.map((list) =>
    list
      .sort((a, b) => a.room - b.room)
      .slice(0, NEIGHBOURS)
      .map(({ k }) => k),
  );
}

/** The part of the smaller of two boxes that lies in both. */
function overlap(a: Piece, b: Piece): number {
  const both = Math.max(0, Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0)) * Math.max(0, Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0));
  return both / Math.min((a.x1 - a.x0) * (a.y1 - a.y0), (b.x1 - b.x0) * (b.y1 - b.y0));
}

/** Cosine of the angle at the middle of a piece between those of two others. */
function cosineAt(at: Piece, a: Piece, c: Piece): number {
  const [ax, ay, cx, cy] = [a.x0 + a.x1 - at.x0 - at.x1, a.y0 + a.y1 - at.y0 - at.y1, c.x0 + c.x1 - at.x0 - at.x1, c.y0 + c.y1 - at.y0 - at.y1];
  return (ax * cx + ay * cy) / (Math.hypot(ax, ay) * Math.hypot(cx, cy) || 1);
}
