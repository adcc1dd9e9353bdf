import { CUBIC, coordsOfVerb, type Curves } from './curves.ts';

/** Lines shorter than this tell no direction, px. */
const LEAST_PX = 8;
/** Lines further apart than this are never taken for parallel, radians. */
const MOST_RAD = 0.026;
/** How far a line's ends may move to become parallel, as a share of the tolerance. */
const SHARE = 0.6;
/** Directions of the picture itself: level and upright. */
const AXES = [0, Math.PI / 2];

interface Line {
  /** Where its ends stand in the coordinates. */
  readonly from: number;
  readonly to: number;
  readonly length: number;
  /** 0 to π. */
  readonly angle: number;
  /** Its middle, through which it keeps passing. */
  readonly x: number;
  readonly y: number;
}

/**
 * Makes lines that are parallel to each other, or level, or upright, within the tolerance exactly so. Each keeps its middle; corners are put where their lines
 * meet, and a curve's end moves with its handle. Places that several rings or arcs share stay shared.
 * @param tolerancePx how far a curve may lie from its edge; ends move by a part of it.
 * @param frame of the picture, along which alone places on it move.
 */
export function withParallels(curves: Curves, tolerancePx: number, frame?: { readonly width: number; readonly height: number }): Curves {
  const lines = linesOf(curves);
  const directions = directionsOf(lines, tolerancePx * SHARE);
  if (directions.every((direction) => direction === undefined)) return curves;
  const places = new Map<string, { at: number[]; lines: number[] }>();
  const { coords } = curves;
  for (const [k, { from, to }] of lines.entries()) {
    for (const at of [from, to]) {
      const key = keyOf(coords, at);
      const place = places.get(key) ?? { at: [], lines: [] };
      place.lines.push(k);
      places.set(key, place);
    }
  }
  const moved = coords.slice();
  const shift = new Map<string, readonly [number, number]>();
  for (const [key, place] of places) {
    const through = place.lines.filter((k) => directions[k] !== undefined);
    if (through.length === 0) continue;
    const at = lines[through[0]].from;
    const near = keyOf(coords, at) === key ? at : lines[through[0]].to;
    const [x, y] = meetingPlace(
      coords[near],
      coords[near + 1],
      place.lines.map((k) => ({ line: lines[k], angle: directions[k] ?? lines[k].angle })),
    );
    const dx = frame !== undefined && (coords[near] === 0 || coords[near] === frame.width) ? 0 : x - coords[near];
    const dy = frame !== undefined && (coords[near + 1] === 0 || coords[near + 1] === frame.height) ? 0 : y - coords[near + 1];
    if (Math.hypot(dx, dy) <= tolerancePx) shift.set(key, [dx, dy]);
  }
  moveEnds(curves, moved, shift);
  return { ...curves, coords: moved };
}

const keyOf = (coords: Float64Array, at: number): string => `${coords[at]} ${coords[at + 1]}`;

function linesOf({ verbs, coords, verbStart, coordStart, parent }: Curves): Line[] {
  const lines: Line[] = [];
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      const end = at + coordsOfVerb(verbs[v]);
      if (verbs[v] !== CUBIC) {
        const [dx, dy] = [coords[end] - coords[at], coords[end + 1] - coords[at + 1]];
        const length = Math.hypot(dx, dy);
        if (length >= LEAST_PX)
          lines.push({
            from: at,
            to: end,
            length,
            angle: (Math.atan2(dy, dx) + Math.PI) % Math.PI,
            x: (coords[at] + coords[end]) / 2,
            y: (coords[at + 1] + coords[end + 1]) / 2,
          });
      }
      at = end;
    }
  }
  return lines;
}

/** The direction that each line takes on; undefined where it is parallel to no other. Long lines, which know theirs best, go first. */
function directionsOf(lines: readonly Line[], slackPx: number): (number | undefined)[] {
  const directions = new Array<number | undefined>(lines.length);
  const order = Array.from(lines.keys()).sort((a, b) => lines[b].length - lines[a].length);
  const fits = (k: number, angle: number): boolean => {
    const off = Math.abs(turnBetween(lines[k].angle, angle));
    return off <= MOST_RAD && (Math.sin(off) * lines[k].length) / 2 <= slackPx;
  };
  const taken = new Uint8Array(lines.length);
  const around = withinAngle(lines);
  for (const seed of order) {
    if (taken[seed] === 1) continue;
    const group = around(lines[seed].angle).filter((k) => taken[k] === 0 && fits(k, lines[seed].angle));
    for (const k of group) taken[k] = 1;
    const weight = group.reduce((sum, k) => sum + lines[k].length, 0);
    const mean = lines[seed].angle + group.reduce((sum, k) => sum + lines[k].length * turnBetween(lines[k].angle, lines[seed].angle), 0) / weight;
    const axis = AXES.find((each) => group.every((k) => fits(k, each)));
    if (axis === undefined && group.length < 2) continue;
    for (const k of group) directions[k] = axis ?? mean;
  }
  return directions;
}

/** Gives the lines whose direction lies within the widest difference of an angle, so that not every line is held against every other. */
function withinAngle(lines: readonly Line[]): (angle: number) => number[] {
  const byAngle = Array.from(lines.keys()).sort((a, b) => lines[a].angle - lines[b].angle);
  const first = (angle: number): number => {
    let low = 0;
    let high = byAngle.length;
    while (low < high) {
      const middle = (low + high) >> 1;
      if (lines[byAngle[middle]].angle < angle) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  const between = (from: number, to: number): number[] => byAngle.slice(first(from), first(to));
  // Directions close to a circle at π.
  return (angle) => [
    ...between(angle - MOST_RAD, angle + MOST_RAD),
    ...between(angle - MOST_RAD + Math.PI, Infinity),
    ...between(-Infinity, angle + MOST_RAD - Math.PI),
  ];
}

/** From b to a the short way, as directions without a sense: −π/2 to π/2. */
function turnBetween(a: number, b: number): number {
  const turn = (((a - b) % Math.PI) + Math.PI) % Math.PI;
  return turn > Math.PI / 2 ? turn - Math.PI : turn;
}

/** The place nearest to all lines through it, by least squares, and near to where it was in what they leave open. */
function meetingPlace(x0: number, y0: number, through: readonly { readonly line: Line; readonly angle: number }[]): [number, number] {
  // A weak pull to the old place decides along a line when there is only one.
  const pull = 1e-9;
  let [a, b, c, p, q] = [pull, 0, pull, 0, 0];
  for (const { line, angle } of through) {
    const [nx, ny] = [-Math.sin(angle), Math.cos(angle)];
    const off = nx * (line.x - x0) + ny * (line.y - y0);
    a += nx * nx;
    b += nx * ny;
    c += ny * ny;
    p += nx * off;
    q += ny * off;
  }
  const det = a * c - b * b;
  return [x0 + (p * c - q * b) / det, y0 + (q * a - p * b) / det];
}

function moveEnds({ verbs, coords, verbStart, coordStart, parent }: Curves, moved: Float64Array, shift: ReadonlyMap<string, readonly [number, number]>): void {
  const add = (at: number, [dx, dy]: readonly [number, number]): void => {
    moved[at] += dx;
    moved[at + 1] += dy;
  };
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    const first = shift.get(keyOf(coords, at));
    if (first !== undefined) add(at, first);
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      const end = at + coordsOfVerb(verbs[v]);
      const [from, to] = [shift.get(keyOf(coords, at)), shift.get(keyOf(coords, end))];
      if (verbs[v] === CUBIC) {
        if (from !== undefined) add(at + 2, from);
        if (to !== undefined) add(at + 4, to);
      }
      if (to !== undefined) add(end, to);
      at = end;
    }
  }
}
