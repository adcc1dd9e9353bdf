import { coordsOfVerb, CUBIC, CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import type { Segments } from './chordMap.ts';
import { directionAt, placeOf, SHORT_MM, sidesOf, speedOf, turned, type Cubic, type Point } from './sides.ts';
import { drawStretch } from './stretch.ts';

/** How corners are taken off: by an arc, or by a straight cut. */
export const CORNER_MANNERS = ['round', 'clipped'] as const;
export type CornerManner = (typeof CORNER_MANNERS)[number];

export interface CornerOptions {
  readonly radiusMm: number;
  readonly manner: CornerManner;
  /** Turns below are no corners, radians. */
  readonly leastTurnRad?: number;
}

const LEAST_TURN = 0.35;
/** A corner takes no more of a side than this share of it, where the side's other end is a corner too, and where not. */
const MOST_OF_SIDE = { shared: 0.5, own: 0.95 };
/** Chords by which the length of a side is measured. */
const MEASURED = 16;

/**
 * Takes the corners off outlines: sides are shortened as far as an arc of the radius between straight ones would take, and joined by an arc or a straight line. Where a side is too short for that, the arc is as
 * large as it allows. All other nodes stay.
 * @param curves mm. Open ones keep their ends.
 */
export function roundCorners(curves: Curves, { radiusMm, manner, leastTurnRad = LEAST_TURN }: CornerOptions): Curves {
  if (!(radiusMm > 0)) return curves;
  const builder = new CurvesBuilder();
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const sides = isOpenRing(curves, ring) ? [] : sidesOf(curves, ring).map(({ cubic }) => cubic);
    const turns = sides.map((side, k) => turnBetween(sides[(k + sides.length - 1) % sides.length], side));
    if (turns.every((turn) => Math.abs(turn) < leastTurnRad)) builder.copy(curves, ring, curves.parent[ring]);
    else drawRounded(builder, curves, ring, sides, turns.map((turn) => (Math.abs(turn) < leastTurnRad ? 0 : turn)), radiusMm, manner);
  }
  return builder.build();
}

function turnBetween(before: Cubic, after: Cubic): number {
  const [from, to] = [directionAt(before, 1) as Point, directionAt(after, 0) as Point];
  return Math.atan2(from.x * to.y - from.y * to.x, from.x * to.x + from.y * to.y);
}

function drawRounded(builder: CurvesBuilder, curves: Curves, ring: number, sides: readonly Cubic[], turns: readonly number[], radiusMm: number, manner: CornerManner): void {
  const count = sides.length;
  const lengths = sides.map(lengthOf);
  const room = (side: number, other: number): number => lengths[side] * (turns[other] === 0 ? MOST_OF_SIDE.own : MOST_OF_SIDE.shared);
  // What the corner at the start of side k takes of the sides before and after it.
  const takes = turns.map((turn, k) => {
    const before = (k + count - 1) % count;
    return turn === 0 ? 0 : Math.min(radiusMm * Math.tan(Math.min(Math.abs(turn), 3) / 2), room(k, (k + 1) % count), room(before, before));
  });
  const segments = segmentsOf(curves, ring, sides);
  const cuts = sides.map((side, k) => ({ from: placeAlong(side, takes[k], lengths[k]), to: 1 - placeAlong(backwards(side), takes[(k + 1) % count], lengths[k]) }));
  const start = placeOf(sides[0], cuts[0].from);
  builder.start(start.x, start.y, curves.parent[ring]);
  for (const [k, side] of sides.entries()) {
    const { from, to } = cuts[k];
    const next = (k + 1) % count;
    const [begin, end] = [placeOf(side, from), to === 1 ? side[3] : placeOf(side, to)];
    // Two arcs that take all of a side meet in its middle.
    if (Math.hypot(end.x - begin.x, end.y - begin.y) > SHORT_MM) drawStretch(builder, segments, { segment: k, from, to, x: begin.x, y: begin.y }, end);
    if (takes[next] === 0) continue;
    const on = placeOf(sides[next], cuts[next].from);
    if (manner === 'clipped') builder.line(on.x, on.y);
    else arcTo(builder, end, speedOf(side, to), on, speedOf(sides[next], cuts[next].from));
  }
  builder.close();
}

/** How far a cubic may lie from the arc that it draws, mm; and of a quarter turn, how far it does in radii. */
const OFF_MM = 0.002;
const OFF_QUARTER = 2.7e-4;

/** An arc of a circle between two places and directions, or what is nearest to one where they are not alike to their chord: as many cubics as lie within a file's precision of it. */
function arcTo(builder: CurvesBuilder, a: Point, along: Point, b: Point, after: Point): void {
  const [u, v] = [unit(along), unit(after)];
  const turn = Math.atan2(u.x * v.y - u.y * v.x, u.x * v.x + u.y * v.y);
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  const radius = chord / (2 * Math.sin(turn / 2));
  const off = OFF_QUARTER * (turn / (Math.PI / 2)) ** 6 * Math.abs(radius);
  if (off > OFF_MM) {
    const [half, sine, cosine] = [turned(u, turn / 2), Math.sin(turn / 2), 1 - Math.cos(turn / 2)];
    const middle = { x: a.x + radius * (u.x * sine - u.y * cosine), y: a.y + radius * (u.y * sine + u.x * cosine) };
    arcTo(builder, a, u, middle, half);
    arcTo(builder, middle, half, b, v);
    return;
  }
  const handle = (4 / 3) * Math.tan(turn / 4) * radius;
  builder.cubic(a.x + u.x * handle, a.y + u.y * handle, b.x - v.x * handle, b.y - v.y * handle, b.x, b.y);
}

const unit = ({ x, y }: Point): Point => ({ x: x / Math.hypot(x, y), y: y / Math.hypot(x, y) });
const backwards = ([a, b, c, d]: Cubic): Cubic => [d, c, b, a];

/** The sides of a ring for drawing stretches of them. */
function segmentsOf({ verbs, coords, verbStart, coordStart }: Curves, ring: number, sides: readonly Cubic[]): Segments {
  const at: number[] = [];
  const isCubic: number[] = [];
  let place = coordStart[ring];
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    const side = sides[at.length];
    // Sides without length are left out of the list.
    if (side !== undefined && side[0].x === coords[place] && side[0].y === coords[place + 1]) {
      at.push(place);
      isCubic.push(verbs[v] === CUBIC ? 1 : 0);
    }
    place += coordsOfVerb(verbs[v]);
  }
  return { coords, at: Int32Array.from(at), isCubic: Uint8Array.from(isCubic) };
}

function lengthOf(side: Cubic): number {
  let length = 0;
  let before = side[0];
  for (let k = 1; k <= MEASURED; k++) {
    const point = placeOf(side, k / MEASURED);
    length += Math.hypot(point.x - before.x, point.y - before.y);
    before = point;
  }
  return length;
}

/** The place of a side so far along it, 0 to 1. */
function placeAlong(side: Cubic, byMm: number, length: number): number {
  if (byMm <= 0 || length <= 0) return 0;
  let walked = 0;
  let before = side[0];
  for (let k = 1; k <= MEASURED; k++) {
    const point = placeOf(side, k / MEASURED);
    const step = Math.hypot(point.x - before.x, point.y - before.y);
    if (walked + step >= byMm) return (k - 1 + (byMm - walked) / step) / MEASURED;
    walked += step;
    before = point;
  }
  return 1;
}
