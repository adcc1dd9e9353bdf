import type { RectMm } from '../geometry/rectMm.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { rectAround, touch } from './boxes.ts';
import type { Sheet } from './laySheet.ts';
import type { OwnWeedLine } from './layout.ts';

export interface WeedLineSettings {
  /** Strips of waste are about so broad, mm. */
  readonly everyMm: number;
  /** No line comes nearer to a piece, mm. */
  readonly awayMm: number;
  /** Shorter bits of a line lift nothing, mm; as of film when absent. */
  readonly leastMm?: number;
  /** How far from its even place a line may lie, in strips: where it meets least; as of film when absent. */
  readonly shift?: number;
  /** At how many places within that it is tried; as of film when absent. */
  readonly places?: number;
  /** Lines of the sheet that somebody moved or left out. */
  readonly own?: readonly Pick<OwnWeedLine, 'box' | 'strip' | 'share'>[] | undefined;
}

/** A line of a sheet's weeding boxes, whole, as it would run were nothing in its way. */
export interface WeedLinePlace {
  /** Number of the box, from 0, and of the line in it, from 1. */
  readonly box: number;
  readonly strip: number;
  /** Whether it runs up and down, across a box that is wider than high. */
  readonly isUpright: boolean;
  /** Where it lies, mm: x of an upright one, y of another. */
  readonly atMm: number;
  readonly fromMm: number;
  readonly toMm: number;
  /** Moved or left out by hand. */
  readonly isOwn: boolean;
  readonly isLeftOut: boolean;
}

export interface WeedLines {
  /** Open lines in mm of the sheet. */
  readonly curves: Curves;
  readonly places: readonly WeedLinePlace[];
}

/** Chords by which pieces are kept clear of, mm. */
const CHORD_MM = 0.05;
const LEAST_MM = 8;
const SHIFT = 0.3;
const PLACES = 13;
/** Slits of a page run between motifs that lie near each other: short ones count, and they go where the motifs end. */
export const SLITS = { leastMm: 3, shift: 0.48, places: 41 } as const;

/**
 * Cuts through the waste in each weeding box, across its longer side, that part it into strips which lift one by one: each where it runs longest through waste, broken off before every piece.
 * What was moved by hand lies where it was put, and is broken off before pieces all the same. There are none without boxes, or where a box is no longer than a strip.
 */
export function weedLines({ parts, placements, boxes }: Pick<Sheet, 'parts' | 'placements' | 'boxes'>, settings: WeedLineSettings): WeedLines {
  const curvesOf = new Map(parts.map(({ id, curves }) => [id, curves]));
  const builder = new CurvesBuilder();
  const lying = placements.flatMap(({ partId, at }) => {
    const curves = curvesOf.get(partId);
    const moved = curves === undefined ? undefined : transformCurves(curves, at);
    const rect = moved === undefined ? undefined : rectAround(moved);
    return moved === undefined || rect === undefined ? [] : [{ moved, rect }];
  });
  const places = boxes.flatMap((box, number) => {
    const own = lying.filter(({ rect }) => touch(rect, box)).map(({ moved }) => moved);
    return drawLines(builder, box, number, own, settings);
  });
  return { curves: builder.build(), places };
}

/** Chords are sorted into slices so broad along the box, mm: a line looks at those of its own slice and its neighbours alone. */
const SLICE_MM = 2;

interface Edges {
  /** Chords by slices: those of slice k are order[starts[k]] to order[starts[k + 1]], slice 0 begins at `from`. */
  readonly from: number;
  readonly starts: Int32Array;
  readonly order: Int32Array;
  /** Along the box's longer side, and across it: ends of chords, each two coordinates one after the other. */
  readonly along: Float64Array;
  readonly across: Float64Array;
}

function drawLines(builder: CurvesBuilder, box: RectMm, number: number, outlines: readonly Curves[], { everyMm, awayMm, leastMm = LEAST_MM, shift = SHIFT, places = PLACES, own = [] }: WeedLineSettings): WeedLinePlace[] {
  const isUpright = box.widthMm >= box.heightMm;
  const [from, length, fromMm, toMm] = isUpright ? [box.xMm, box.widthMm, box.yMm, box.yMm + box.heightMm] : [box.yMm, box.heightMm, box.xMm, box.xMm + box.widthMm];
  const strips = Math.ceil(length / everyMm - 1e-9);
  if (strips < 2) return [];
  const edges = edgesOf(outlines, isUpright);
  const free = (at: number): Stretch[] => freeOf(edges, at, fromMm, toMm, { awayMm, leastMm });
  return Array.from({ length: strips - 1 }, (_, k): WeedLinePlace => {
    const strip = k + 1;
    const byHand = own.find((each) => each.box === number && each.strip === strip);
    const place = { box: number, strip, isUpright, fromMm, toMm, isOwn: byHand !== undefined, isLeftOut: byHand !== undefined && byHand.share === undefined };
    const { at, stretches } = byHand?.share === undefined ? longest(from, length / strips, strip, { shift, places }, free) : { at: from + byHand.share * length, stretches: free(from + byHand.share * length) };
    for (const [a, b] of place.isLeftOut ? [] : stretches) {
      builder.start(isUpright ? at : a, isUpright ? a : at, -1);
      builder.line(isUpright ? at : b, isUpright ? b : at);
      builder.close();
    }
    return { ...place, atMm: at };
  });
}

type Stretch = readonly [number, number];

/** The place near the even one of a strip at which a line runs longest through waste. */
function longest(from: number, stripMm: number, strip: number, { shift: most, places }: { readonly shift: number; readonly places: number }, free: (at: number) => Stretch[]): { readonly at: number; readonly stretches: readonly Stretch[] } {
  let best = { at: 0, stretches: [] as readonly Stretch[], total: -Infinity };
  for (let place = 0; place < places; place++) {
    // The even place first, then further and further from it.
    const shift = (Math.ceil(place / 2) / Math.floor(places / 2)) * most * (place % 2 === 0 ? 1 : -1);
    const at = from + (strip + shift) * stripMm;
    const stretches = free(at);
    const total = stretches.reduce((sum, [a, b]) => sum + b - a, 0);
    if (total > best.total + 1) best = { at, stretches, total };
  }
  return best;
}

function edgesOf(outlines: readonly Curves[], isWide: boolean): Edges {
  const along: number[] = [];
  const across: number[] = [];
  for (const curves of outlines) {
    const { points, starts } = flatten(curves, CHORD_MM);
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      for (let i = starts[ring], j = starts[ring + 1] - 1; i < starts[ring + 1]; j = i++) {
        along.push(points[2 * j + (isWide ? 0 : 1)], points[2 * i + (isWide ? 0 : 1)]);
        across.push(points[2 * j + (isWide ? 1 : 0)], points[2 * i + (isWide ? 1 : 0)]);
      }
    }
  }
  return { along: Float64Array.from(along), across: Float64Array.from(across), ...slicesOf(along) };
}

/** Each chord in every slice that it touches, by counting. */
function slicesOf(along: readonly number[]): Pick<Edges, 'from' | 'starts' | 'order'> {
  let [from, to] = [Infinity, -Infinity];
  for (const value of along) {
    from = Math.min(from, value);
    to = Math.max(to, value);
  }
  if (along.length === 0) return { from: 0, starts: new Int32Array(2), order: new Int32Array(0) };
  const slice = (value: number): number => Math.floor((value - from) / SLICE_MM);
  const starts = new Int32Array(slice(to) + 2);
  const each = (take: (slice: number, chord: number) => void): void => {
    for (let k = 0; k < along.length; k += 2) {
      const [low, high] = [slice(Math.min(along[k], along[k + 1])), slice(Math.max(along[k], along[k + 1]))];
      for (let at = low; at <= high; at++) take(at, k);
    }
  };
  each((at) => starts[at + 1]++);
  for (let k = 1; k < starts.length; k++) starts[k] += starts[k - 1];
  const order = new Int32Array(starts[starts.length - 1]);
  const next = starts.slice();
  each((at, chord) => (order[next[at]++] = chord));
  return { from, starts, order };
}

/** The chords that come within a distance of a line, each once. */
function chordsNear({ from, starts, order, along }: Edges, at: number, away: number): Set<number> {
  const last = starts.length - 2;
  const found = new Set<number>();
  const clamp = (value: number): number => Math.max(0, Math.min(last, value));
  const [low, high] = [clamp(Math.floor((at - away - from) / SLICE_MM)), clamp(Math.floor((at + away - from) / SLICE_MM))];
  for (let k = starts[low]; k < starts[high + 1]; k++) {
    const chord = order[k];
    if (Math.max(along[chord], along[chord + 1]) >= at - away && Math.min(along[chord], along[chord + 1]) <= at + away) found.add(chord);
  }
  return found;
}

/** The stretches of a line across the box that are in the waste, and far enough from all pieces. */
function freeOf(edges: Edges, at: number, low: number, high: number, { awayMm, leastMm }: { readonly awayMm: number; readonly leastMm: number }): Stretch[] {
  const { along, across } = edges;
  const crossings: number[] = [];
  const taken: [number, number][] = [];
  for (const k of chordsNear(edges, at, awayMm)) {
    const [a0, a1, c0, c1] = [along[k], along[k + 1], across[k], across[k + 1]];
    // The part of the chord that is beside the line.
    const share = (a: number): number => (a1 === a0 ? 0 : Math.max(0, Math.min(1, (a - a0) / (a1 - a0))));
    const ends = a1 === a0 ? [c0, c1] : [at - awayMm, at + awayMm].map((a) => c0 + share(a) * (c1 - c0));
    taken.push([Math.min(...ends) - awayMm, Math.max(...ends) + awayMm]);
    if (a0 > at !== a1 > at) crossings.push(c0 + share(at) * (c1 - c0));
  }
  crossings.sort((p, q) => p - q);
  for (let k = 0; k + 1 < crossings.length; k += 2) taken.push([crossings[k], crossings[k + 1]]);
  taken.sort((p, q) => p[0] - q[0]);
  const free: Stretch[] = [];
  let reached = low;
  for (const [a, b] of [...taken, [high, high] as const]) {
    if (Math.min(a, high) - reached >= leastMm) free.push([reached, Math.min(a, high)]);
    reached = Math.max(reached, b);
  }
  return free;
}
