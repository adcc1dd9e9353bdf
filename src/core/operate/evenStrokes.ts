import { directionAt, halvesOf, hullLength, sidesOf, type Cubic, type Point } from '../combine/sides.ts';
import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { piecesOf } from '../outline/pieces.ts';
import { edgeSamples, type EdgeSamples } from '../outline/edgeSamples.ts';
import { widthsAcross } from '../outline/widthsAcross.ts';

/** Samples along the edges, shares of the broadest stroke, and the chords that they lie on. */
const SPACING = 1 / 20;
const CHORD = 1 / 40;
/** Sides are halved until they are no longer than this, share of the usual width. */
const SIDE = 0.8;
/** An edge moves by no more than this, share of the usual width: what differs more is no uneven stroke but another one. */
const MOST_SHIFT = 0.35;
/** Between strokes (at crossings, ends and corners) what they are moved by runs on so far, in usual widths. */
const RUNS_ON = 4;
/** Turns from this on are corners, whose two sides move by themselves, radians. */
const CORNER_RAD = 0.5;

/**
 * Makes strokes up to a width as broad everywhere as they usually are in their piece: both edges move by half of what is too much or too little there. What is broader stays.
 * @param curves mm, outer rings clockwise on screen. @param mostMm the broadest stroke. @returns outlines with more nodes than before where anything moved.
 */
export function evenStrokes(curves: Curves, mostMm: number): Curves {
  const samples = edgeSamples(flatten(curves, mostMm * CHORD), mostMm * SPACING);
  const { width, partner } = widthsAcross(samples, mostMm);
  const builder = new CurvesBuilder();
  const usual = usualWidths(curves, samples, width);
  for (let ring = 0; ring < ringCount(curves); ring++) {
    const broad = usual[ring];
    const shifts = isOpenRing(curves, ring) || broad === undefined ? undefined : shiftsAlong(samples, ring, width, partner, broad);
    if (shifts === undefined || broad === undefined) builder.copy(curves, ring, curves.parent[ring]);
    else drawShifted(builder, curves, ring, broad, (share) => shifts[Math.floor(share * shifts.length) % shifts.length]);
  }
  return builder.build();
}

/** Of each ring the width that half of the strokes of its piece do not reach; undefined where it has none. */
function usualWidths(curves: Curves, { starts }: EdgeSamples, width: Float64Array): (number | undefined)[] {
  const usual: (number | undefined)[] = [];
  for (const { outer, holes } of piecesOf(curves)) {
    const widths = [outer, ...holes].flatMap((ring) => [...width.subarray(starts[ring], starts[ring + 1])].filter(Number.isFinite)).sort((a, b) => a - b);
    for (const ring of [outer, ...holes]) usual[ring] = widths.length === 0 ? undefined : widths[widths.length >> 1];
  }
  return usual;
}

/** How far the edge moves inwards at each sample of a ring; undefined where nowhere. */
function shiftsAlong({ starts, spacing }: EdgeSamples, ring: number, width: Float64Array, partner: Int32Array, usual: number): Float64Array | undefined {
  const [from, count] = [starts[ring], starts[ring + 1] - starts[ring]];
  const known: number[] = [];
  const shifts = new Float64Array(count);
  for (let k = 0; k < count; k++) {
    if (partner[from + k] < 0) continue;
    const shift = (width[from + k] - usual) / 2;
    if (Math.abs(shift) > MOST_SHIFT * usual) continue;
    shifts[k] = shift;
    known.push(k);
  }
  if (known.length === 0) return undefined;
  // Between known places as a line goes; far from them nothing moves.
  const reach = Math.max(1, Math.round((RUNS_ON * usual) / spacing));
  for (const [at, k] of known.entries()) {
    const after = known[(at + 1) % known.length] + (at + 1 === known.length ? count : 0);
    const gap = after - k;
    for (let step = 1; step < gap; step++) {
      const [a, b] = [shifts[k] * Math.max(0, 1 - step / reach), shifts[after % count] * Math.max(0, 1 - (gap - step) / reach)];
      shifts[(k + step) % count] = gap <= reach ? (shifts[k] * (gap - step) + shifts[after % count] * step) / gap : a + b;
    }
  }
  return smoothed(shifts, Math.max(1, Math.round(usual / spacing / 4)));
}

/** The mean over some samples on both sides. */
function smoothed(values: Float64Array, half: number): Float64Array {
  const count = values.length;
  const around = Math.min(half, (count - 1) >> 1);
  return values.map((_, k) => {
    let sum = 0;
    for (let d = -around; d <= around; d++) sum += values[(k + d + count) % count];
    return sum / (2 * around + 1);
  });
}

function drawShifted(builder: CurvesBuilder, curves: Curves, ring: number, usual: number, shiftAt: (share: number) => number): void {
  const sides = sidesOf(curves, ring).flatMap(({ cubic, isLine }) => parted(cubic, SIDE * usual).map((part) => ({ cubic: part, isLine, length: hullLength(part) })));
  let along = 0;
  const ends = sides.map(({ length }) => (along += length));
  const total = along;
  const inward = ({ x, y }: Point, by: number): Point => ({ x: -y * by, y: x * by });
  // A little way into each side, so that those at a corner have what is theirs.
  const moves = sides.map(({ cubic, length }, k): Point => {
    const before = sides[(k + sides.length - 1) % sides.length];
    const start = ends[k] - length;
    const [into, out] = [directionAt(before.cubic, 1) ?? { x: 1, y: 0 }, directionAt(cubic, 0) ?? { x: 1, y: 0 }];
    const [a, b] = [shiftAt((k === 0 ? total - before.length / 2 : start - before.length / 2) / total), shiftAt((start + length / 2) / total)];
    const turn = Math.atan2(into.x * out.y - into.y * out.x, into.x * out.x + into.y * out.y);
    if (Math.abs(turn) < CORNER_RAD) {
      const length2 = Math.hypot(into.x + out.x, into.y + out.y);
      return inward({ x: (into.x + out.x) / length2, y: (into.y + out.y) / length2 }, (a + b) / 2);
    }
    // Where both edges, moved by what is theirs, meet.
    const cross = into.x * out.y - into.y * out.x;
    if (Math.abs(cross) < 0.2) return inward(into, (a + b) / 2);
    return { x: (a * out.x - b * into.x) / cross, y: (a * out.y - b * into.y) / cross };
  });
  const first = moved(sides[0].cubic[0], moves[0]);
  builder.start(first.x, first.y, curves.parent[ring]);
  for (const [k, { cubic, isLine }] of sides.entries()) {
    const next = moves[(k + 1) % sides.length];
    const end = k + 1 === sides.length ? first : moved(cubic[3], next);
    const [c1, c2] = [moved(cubic[1], moves[k]), moved(cubic[2], next)];
    if (isLine) builder.line(end.x, end.y);
    else builder.cubic(c1.x, c1.y, c2.x, c2.y, end.x, end.y);
  }
  builder.close();
}

const moved = ({ x, y }: Point, by: Point): Point => ({ x: x + by.x, y: y + by.y });

/** A side in parts no longer than a length. */
function parted(cubic: Cubic, most: number): Cubic[] {
  if (hullLength(cubic) <= most) return [cubic];
  const [a, b] = halvesOf(cubic);
  return [...parted(a, most), ...parted(b, most)];
}
