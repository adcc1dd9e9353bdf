import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { CurvesBuilder, ringArea, ringCount, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { withoutSmallRings } from '../outline/withoutSmallRings.ts';
import { piecesOf, type Piece } from '../outline/pieces.ts';
import { edgeSamples, type EdgeSamples } from '../outline/edgeSamples.ts';
import type { OwnIsland } from './bridge.ts';
import { crossingAt, type BridgePlace, type Demand } from './crossing.ts';
import { OpenEdges } from './openEdges.ts';

/** How islands are held; lengths in mm. */
export interface HoldOptions {
  readonly widthMm: number;
  /** Of each island; by its size when absent. */
  readonly count?: number | undefined;
  /** Islands that are smaller fall out. */
  readonly leastIslandMm2: number;
  /** Places in mm of the outlines. */
  readonly own?: readonly OwnIsland[] | undefined;
}

export interface PlacedBridge extends BridgePlace {
  /** A place on the edge of the island that it holds, by which the island is known. */
  readonly island: { readonly x: number; readonly y: number };
  /** Of the island's edge. */
  readonly middle: { readonly x: number; readonly y: number };
  readonly isOwn: boolean;
  /** How far it was turned from straight across, degrees; straight when absent. */
  readonly slantDeg?: number | undefined;
}

/** A bridge of a film of the design, in its mm. */
export interface DesignBridge extends PlacedBridge {
  readonly filmId: string;
}

export interface HeldIslands {
  readonly curves: Curves;
  readonly bridges: readonly PlacedBridge[];
  /** Islands that there were, without those that fell out for being small. */
  readonly islands: number;
  readonly fellOut: number;
  /** Bridges that somebody placed and that do not fit any more. */
  readonly astray: number;
}

/** Chords that outlines are looked at by, as a share of a bridge's width. */
const CHORD_SHARE = 1 / 40;
/** Places where a bridge might leave, along an edge, in widths. */
const SPACING = 1 / 4;
/** An island gets another bridge for each so many widths of its outline: together they cover at most 4 % of it. */
const WIDTHS_FOR_EACH = 50;
const MOST_BY_SIZE = 6;
const MOST_ROUNDS = 3;
/** What is left of an opening beside a bridge and is smaller than this, in squares of its width, is film too. */
const SLIVER_SHARE = 0.05;
/** How much the next bridge of an island prefers to be far from those that it has. */
const SPREAD = 1.5;
const LEAST_APART = 0.5;
/** Bridges like to run up and down: these do not tear when the film is lifted. */
const UPRIGHT = 0.15;
/** How much a bridge that meets the other edge askew is put off. */
const ASKEW = 1.5;
/** A place where the edge runs straight for so many widths to both sides is as good as can be; at a corner it counts for so much more. */
const CALM_WIDTHS = 10;
const AT_CORNER = 0.4;
/** Edges whose directions differ by less go on straight: cosine. */
const STRAIGHT = 0.97;

/**
 * Gives every island of a stencil bridges to the film around: first where each is nearest to what already holds, then more around it as its outline is long, away from the first and from each other. What is not cut keeps its curves.
 * @param curves openings in mm, nested.
 */
export function holdIslands(library: PolygonLibrary, curves: Curves, options: HoldOptions): HeldIslands {
  const first = withoutIslands(curves, options.leastIslandMm2);
  let openings = first.curves;
  let [fellOut, islands, astray] = [first.fellOut, 0, 0];
  const bridges: PlacedBridge[] = [];
  for (let round = 0; round < MOST_ROUNDS; round++) {
    // Where outlines overlapped, islands are seen only once they are one.
    const holder = new Holder(openings, round === 0 ? options : { ...options, own: options.own?.filter((each) => each.bridges.length === 0) });
    islands += holder.hold();
    if (round === 0) astray = holder.astray;
    if (holder.bridges.length === 0) break;
    bridges.push(...holder.bridges);
    const cut = combineCurves(library, 'cutOut', openings, barCurves(holder.bridges));
    const held = withoutIslands(withoutSmallRings(cut, SLIVER_SHARE * options.widthMm ** 2), options.leastIslandMm2);
    openings = held.curves;
    fellOut += held.fellOut;
    if (piecesOf(openings).every(({ holes }) => holes.length === 0)) break;
  }
  return { curves: openings, bridges, islands, fellOut, astray };
}

interface Candidate {
  readonly sample: number;
  readonly island: number;
  readonly ring: number;
  readonly cost: number;
}

class Holder {
  readonly bridges: PlacedBridge[] = [];
  astray = 0;
  private readonly samples: EdgeSamples;
  private readonly edges: OpenEdges;
  private readonly most: number;
  private readonly root: Int32Array;
  /** Islands that are not held because somebody wants it so. */
  private readonly left = new Set<number>();
  /** Samples at which bridges leave or reach a ring. */
  private readonly taken = new Map<number, number[]>();

  constructor(private readonly curves: Curves, private readonly options: HoldOptions) {
    const rings = flatten(curves, options.widthMm * CHORD_SHARE);
    this.samples = edgeSamples(rings, options.widthMm * SPACING);
    this.edges = new OpenEdges(rings);
    let [low, high] = [Infinity, -Infinity];
    for (const value of rings.points) [low, high] = [Math.min(low, value), Math.max(high, value)];
    this.most = 2 * Math.max(1, high - low);
    this.root = Int32Array.from(curves.parent.keys());
  }

  /** @returns how many islands there are. */
  hold(): number {
    const own = this.ownIslands();
    let islands = 0;
    for (const piece of piecesOf(this.curves)) {
      islands += piece.holes.length;
      if (piece.holes.length === 0) continue;
      const free = piece.holes.filter((hole) => !own.has(hole));
      // What is left to fall out holds nothing.
      const candidates = free.flatMap((hole) => this.candidatesOf(hole)).filter(({ ring }) => !this.left.has(ring)).sort((a, b) => a.cost - b.cost);
      for (const demand of ['sound', 'whole', 'any'] as const) this.connect(piece, candidates, demand);
      for (const hole of free) if (this.rootOf(hole) !== this.rootOf(piece.outer)) this.nearest(piece, hole);
      for (const hole of free) this.strengthen(hole, candidates.filter(({ island }) => island === hole));
    }
    return islands;
  }

  /** Places the bridges that somebody asked for; gives the islands that are held by them, or left as they are. */
  private ownIslands(): Set<number> {
    const held = new Set<number>();
    for (const { x, y, bridges } of this.options.own ?? []) {
      const island = this.islandAt(x, y);
      if (island === undefined || held.has(island)) {
        this.astray += bridges.length;
        continue;
      }
      let placed = 0;
      for (const bridge of bridges) {
        const sample = this.sampleNear(island, bridge.x, bridge.y);
        if (this.place(sample, island, ['whole', 'any'], bridge.widthMm, bridge.slantDeg)) placed++;
        else this.astray++;
      }
      if (placed > 0 || bridges.length === 0) held.add(island);
      if (bridges.length === 0) this.left.add(island);
    }
    return held;
  }

  private candidatesOf(island: number): Candidate[] {
    const { samples, edges, most } = this;
    const { widthMm } = this.options;
    const found: Candidate[] = [];
    for (let k = samples.starts[island]; k < samples.starts[island + 1]; k++) {
      const [dx, dy] = [samples.nx[k], samples.ny[k]];
      const met = edges.meet(samples.x[k], samples.y[k], dx, dy, most, 1e-4);
      if (met === undefined || met.ring === island) continue;
      // Up and down, or across, rather than askew; rather up and down.
      const upright = 1 + UPRIGHT * (Math.abs(2 * dx * dy) + 0.5 * dx * dx);
      found.push({ sample: k, island, ring: met.ring, cost: (met.distance + widthMm / 2) * (1 + ASKEW * (1 - met.across)) * upright * (1 + AT_CORNER * (1 - this.calmAt(k))) });
    }
    return found;
  }

  /** How far the edge runs straight to both sides of a place, 0 at a corner to 1. */
  private calmAt(k: number): number {
    const { nx, ny, starts, ring } = this.samples;
    const [first, count] = [starts[ring[k]], starts[ring[k] + 1] - starts[ring[k]]];
    const most = Math.min(CALM_WIDTHS / SPACING, Math.floor(count / 2));
    let calm = 0;
    for (; calm < most; calm++) {
      const [a, b] = [first + ((k - first + calm + 1) % count), first + ((k - first - calm - 1 + count) % count)];
      if (nx[a] * nx[k] + ny[a] * ny[k] < STRAIGHT || nx[b] * nx[k] + ny[b] * ny[k] < STRAIGHT) break;
    }
    return most === 0 ? 1 : calm / most;
  }

  /** Bridges between what does not hold together yet, the best first (J. B. Kruskal, Proc. AMS 7(1), 1956, doi:10.1090/S0002-9939-1956-0078686-7). */
  private connect({ outer, holes }: Piece, candidates: readonly Candidate[], demand: Demand): void {
    let apart = new Set([outer, ...holes].map((ring) => this.rootOf(ring))).size - 1;
    for (const { sample, island, ring } of candidates) {
      if (apart <= 0) return;
      if (this.rootOf(island) === this.rootOf(ring)) continue;
      if (this.place(sample, island, [demand])) apart--;
    }
  }

  /** A bridge between the two nearest places of an island and of what holds. */
  private nearest({ outer, holes }: Piece, island: number): void {
    const { x, y, starts } = this.samples;
    const others = [outer, ...holes].filter((ring) => this.rootOf(ring) !== this.rootOf(island));
    let best = { from: -1, to: -1, ring: -1, square: Infinity };
    for (let a = starts[island]; a < starts[island + 1]; a++) {
      for (const ring of others) {
        for (let b = starts[ring]; b < starts[ring + 1]; b++) {
          const square = (x[a] - x[b]) ** 2 + (y[a] - y[b]) ** 2;
          if (square < best.square) best = { from: a, to: b, ring, square };
        }
      }
    }
    if (best.from < 0) return;
    const { widthMm } = this.options;
    const length = Math.max(1e-9, Math.sqrt(best.square));
    const [dx, dy] = [(x[best.to] - x[best.from]) / length, (y[best.to] - y[best.from]) / length];
    const [from, to] = [{ x: x[best.from] - dx * widthMm, y: y[best.from] - dy * widthMm }, { x: x[best.to] + dx * widthMm, y: y[best.to] + dy * widthMm }];
    this.keep({ from, to, widthMm }, best.from, island, best.ring, best.to, false);
  }

  /** Further bridges of an island, as many as its outline is long. */
  private strengthen(island: number, candidates: readonly Candidate[]): void {
    const { samples } = this;
    const { widthMm, count } = this.options;
    const around = samples.starts[island + 1] - samples.starts[island];
    const wanted = count ?? Math.max(1, Math.min(MOST_BY_SIZE, Math.floor((around * samples.spacing) / (WIDTHS_FOR_EACH * widthMm))));
    for (let has = this.taken.get(island)?.length ?? 0; has < wanted; has++) {
      const near = this.taken.get(island) ?? [];
      const apart = (k: number): number => Math.min(...near.map((other) => Math.min(Math.abs(k - other), around - Math.abs(k - other)))) / around;
      const choices = candidates
        .map((each) => ({ ...each, away: apart(each.sample) }))
        .filter(({ away }) => away >= LEAST_APART / wanted)
        .map((each) => ({ ...each, cost: each.cost * (1 + SPREAD * (1 - 2 * each.away)) }))
        .sort((a, b) => a.cost - b.cost);
      // One that is not sound adds nothing to those that are there.
      if (!choices.some(({ sample }) => this.place(sample, island, ['sound']))) return;
    }
  }

  private place(sample: number, island: number, demands: readonly Demand[], widthMm: number = this.options.widthMm, slantDeg = 0): boolean {
    const { x, y, nx, ny } = this.samples;
    const slant = (slantDeg * Math.PI) / 180;
    const [cos, sin] = [Math.cos(slant), Math.sin(slant)];
    const leaving = { x: x[sample], y: y[sample], dx: cos * nx[sample] - sin * ny[sample], dy: sin * nx[sample] + cos * ny[sample] };
    for (const demand of demands) {
      const bridge = crossingAt(this.edges, leaving, island, widthMm, this.most, demand);
      if (bridge === undefined) continue;
      this.keep({ ...bridge, slantDeg }, sample, island, bridge.ring, this.sampleNear(bridge.ring, bridge.to.x, bridge.to.y), demands.length > 1);
      return true;
    }
    return false;
  }

  private keep({ from, to, widthMm, slantDeg = 0 }: BridgePlace & { readonly slantDeg?: number }, sample: number, island: number, ring: number, other: number, isOwn: boolean): void {
    const first = this.samples.starts[island];
    this.bridges.push({ from, to, widthMm, isOwn, ...(slantDeg === 0 ? {} : { slantDeg }), island: { x: this.samples.x[first], y: this.samples.y[first] }, middle: this.middleOf(island) });
    for (const [where, at] of [[island, sample], [ring, other]] as const) this.taken.set(where, [...(this.taken.get(where) ?? []), at]);
    this.root[this.rootOf(island)] = this.rootOf(ring);
  }

  private rootOf(ring: number): number {
    let at = ring;
    while (this.root[at] !== at) at = this.root[at] = this.root[this.root[at]];
    return at;
  }

  private middleOf(island: number): { x: number; y: number } {
    const { x, y, starts } = this.samples;
    let [sumX, sumY] = [0, 0];
    for (let k = starts[island]; k < starts[island + 1]; k++) {
      sumX += x[k];
      sumY += y[k];
    }
    const count = Math.max(1, starts[island + 1] - starts[island]);
    return { x: sumX / count, y: sumY / count };
  }

  private sampleNear(ring: number, x: number, y: number): number {
    const { samples } = this;
    let best = samples.starts[ring];
    for (let k = best; k < samples.starts[ring + 1]; k++) if ((samples.x[k] - x) ** 2 + (samples.y[k] - y) ** 2 < (samples.x[best] - x) ** 2 + (samples.y[best] - y) ** 2) best = k;
    return best;
  }

  /** The island whose edge is nearest to a place, if it is near. */
  private islandAt(x: number, y: number): number | undefined {
    let best: { island: number; square: number } | undefined;
    for (const { holes } of piecesOf(this.curves)) {
      for (const island of holes) {
        const k = this.sampleNear(island, x, y);
        const square = (this.samples.x[k] - x) ** 2 + (this.samples.y[k] - y) ** 2;
        if (best === undefined || square < best.square) best = { island, square };
      }
    }
    return best?.island;
  }
}

/** Openings without small islands, and what lies in those. */
function withoutIslands(curves: Curves, leastMm2: number): { curves: Curves; fellOut: number } {
  const goes = new Uint8Array(ringCount(curves));
  let fellOut = 0;
  for (const { holes } of piecesOf(curves)) {
    for (const hole of holes) {
      if (Math.abs(ringArea(curves, hole)) >= leastMm2) continue;
      goes[hole] = 1;
      fellOut++;
    }
  }
  if (fellOut === 0) return { curves, fellOut };
  const place = new Map<number, number>();
  const builder = new CurvesBuilder();
  const isGone = (ring: number): boolean => {
    for (let k = ring; k >= 0; k = curves.parent[k]) if (goes[k] === 1) return true;
    return false;
  };
  // Rings may come before those around them.
  const kept = Array.from(curves.parent.keys()).filter((ring) => !isGone(ring));
  for (const [k, ring] of kept.entries()) place.set(ring, k);
  for (const ring of kept) builder.copy(curves, ring, curves.parent[ring] < 0 ? -1 : (place.get(curves.parent[ring]) as number));
  return { curves: builder.build(), fellOut };
}

/** Bars that all run the same way around, so that those that overlap are one where they are cut out. */
function barCurves(bridges: readonly BridgePlace[]): Curves {
  const builder = new CurvesBuilder();
  for (const { from, to, widthMm } of bridges) {
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const [ox, oy] = [((to.y - from.y) / length) * (widthMm / 2), (-(to.x - from.x) / length) * (widthMm / 2)];
    builder.polygon([from.x + ox, from.y + oy, to.x + ox, to.y + oy, to.x - ox, to.y - oy, from.x - ox, from.y - oy]);
  }
  return builder.build();
}
