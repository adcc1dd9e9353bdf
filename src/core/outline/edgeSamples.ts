import type { Rings } from '../geometry/rings.ts';
import { facingChords } from './facingChords.ts';

/** More samples than this are taken further apart. */
const MOST_SAMPLES = 300_000;
/** So few, in all and for each chord, are never chosen from: as measured. */
const FEW_SAMPLES = 4000;
const PER_CHORD = 3;
/** Of those that are chosen from, more are. */
const MOST_PLACES = 16_000_000;

/** Places along outlines, evenly apart, ring by ring; those where nothing faces them may be left out. */
export interface EdgeSamples {
  readonly x: Float64Array;
  readonly y: Float64Array;
  /** Unit normals into the film. */
  readonly nx: Float64Array;
  readonly ny: Float64Array;
  /** First sample of each ring, and the count after the last. */
  readonly starts: Int32Array;
  readonly ring: Int32Array;
  /** Which of the places of its ring each is, and how many places each ring has. */
  readonly along: Int32Array;
  readonly around: Int32Array;
  readonly spacing: number;
}

/** @param wanted how far apart, in units of the coordinates. @param side which side of the outlines is film. @param reach where given, only places are taken that may have another edge across film within it. */
export function edgeSamples(rings: Rings, wanted: number, side: 'inside' | 'outside' = 'inside', reach?: number): EdgeSamples {
  const { points, starts } = rings;
  const sign = side === 'inside' ? 1 : -1;
  let total = 0;
  for (let r = 0; r + 1 < starts.length; r++) for (let i = starts[r]; i < starts[r + 1]; i++) total += chord(points, i, next(starts, r, i));
  // A ring begins with a sample, so it may have one more than its share.
  const every = Math.max(wanted, total / MOST_SAMPLES);
  // Where there are few places for each chord, looking at all of them takes less than choosing some.
  if (reach === undefined || total / wanted <= Math.max(FEW_SAMPLES, (PER_CHORD * points.length) / 2)) return sampled(rings, every, sign, Math.ceil(total / every) + starts.length);
  const fine = Math.max(wanted, total / MOST_PLACES);
  const places = new Places(rings, fine);
  facingChords(rings, reach, sign, (at, from, to) => places.mark(at, from, to));
  const count = places.marked();
  if (count <= MOST_SAMPLES) return sampled(rings, fine, sign, count, places);
  // Too many of them: as far apart as they have to be.
  const spacing = (fine * count) / MOST_SAMPLES;
  const coarse = new Places(rings, spacing);
  facingChords(rings, reach, sign, (at, from, to) => coarse.mark(at, from, to));
  return sampled(rings, spacing, sign, coarse.marked(), coarse);
}

/** So many places to both sides of a stretch are taken too: widths are measured to the edge beside a place. */
const BESIDE = 2;

/** Which of the places along outlines are to be taken. */
class Places {
  /** First place of each ring, and the count after the last. */
  private readonly first: Int32Array;
  private readonly taken: Uint8Array;
  /** How far along its ring each point is, and which ring it is of. */
  private readonly way: Float64Array;
  private readonly ring: Int32Array;

  constructor({ points, starts }: Rings, private readonly spacing: number) {
    this.first = new Int32Array(starts.length);
    this.way = new Float64Array(points.length / 2);
    this.ring = new Int32Array(points.length / 2);
    for (let r = 0; r + 1 < starts.length; r++) {
      let way = 0;
      for (let i = starts[r]; i < starts[r + 1]; i++) {
        this.way[i] = way;
        this.ring[i] = r;
        way += chord(points, i, next(starts, r, i));
      }
      this.first[r + 1] = this.first[r] + Math.ceil(way / spacing) + 1;
    }
    this.taken = new Uint8Array(this.first[starts.length - 1]);
  }

  mark(point: number, from: number, to: number): void {
    const [first, end] = [this.first[this.ring[point]], this.first[this.ring[point] + 1]];
    const [low, high] = [Math.floor((this.way[point] + from) / this.spacing) - BESIDE, Math.ceil((this.way[point] + to) / this.spacing) + BESIDE];
    this.taken.fill(1, first + Math.max(0, low), Math.min(end, first + high + 1));
    // Over the ring's start: its last place but one is the last that every ring has.
    if (low < 0) this.taken.fill(1, Math.max(first, end + low - 1), end);
    if (first + high >= end - 1) this.taken.fill(1, first, Math.min(end, first + BESIDE + 1));
  }

  marked(): number {
    let count = 0;
    for (let k = 0; k < this.taken.length; k++) count += this.taken[k];
    return count;
  }

  /** Whether a ring has none that is taken. */
  isLeftOut(ring: number): boolean {
    return this.taken.subarray(this.first[ring], this.first[ring + 1]).indexOf(1) < 0;
  }

  isTaken(ring: number, place: number): boolean {
    return this.taken[this.first[ring] + place] === 1;
  }
}

/** @param room samples that there can be at most. */
function sampled({ points, starts }: Rings, spacing: number, sign: number, room: number, places?: Places): EdgeSamples {
  const [x, y, nx, ny] = [new Float64Array(room), new Float64Array(room), new Float64Array(room), new Float64Array(room)];
  const [ring, along, around, first] = [new Int32Array(room), new Int32Array(room), new Int32Array(starts.length), new Int32Array(starts.length)];
  let count = 0;
  for (let r = 0; r + 1 < starts.length; r++) {
    if (places?.isLeftOut(r) === true) {
      first[r + 1] = count;
      continue;
    }
    let [carried, place] = [0, 0];
    for (let i = starts[r]; i < starts[r + 1]; i++) {
      const j = next(starts, r, i);
      const length = chord(points, i, j);
      const [px, py] = [points[2 * i], points[2 * i + 1]];
      const [dx, dy] = [(points[2 * j] - px) / length, (points[2 * j + 1] - py) / length];
      let at = carried;
      for (; at < length; at += spacing, place++) {
        if (places?.isTaken(r, place) === false) continue;
        x[count] = px + dx * at;
        y[count] = py + dy * at;
        // Outer rings run clockwise on screen: film lies to their right.
        nx[count] = -dy * sign;
        ny[count] = dx * sign;
        along[count] = place;
        ring[count++] = r;
      }
      carried = at - length;
    }
    around[r] = place;
    first[r + 1] = count;
  }
  const filled = <Kind extends Float64Array | Int32Array>(all: Kind): Kind => all.subarray(0, count) as Kind;
  return { ring: filled(ring), along: filled(along), around, x: filled(x), y: filled(y), nx: filled(nx), ny: filled(ny), starts: first, spacing };
}

const next = (starts: Int32Array, ring: number, i: number): number => (i + 1 === starts[ring + 1] ? starts[ring] : i + 1);
const chord = (points: Float64Array, i: number, j: number): number => Math.hypot(points[2 * j] - points[2 * i], points[2 * j + 1] - points[2 * i + 1]);
