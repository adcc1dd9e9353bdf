import type { Corner, Ring } from './corners.ts';
import { freeEndAt, type End } from './cubicFit.ts';
import { cubicAt, type Curves } from './curves.ts';
import { DrawnChords } from './drawnChords.ts';
import { chordCount } from './flatten.ts';
import { JointFinder, type FitOptions } from './joints.ts';
import { closedSection, sectionBetween, sectionWithin, type Section } from './section.ts';
import { SharesWithin, type PixelBox } from './sharesWithin.ts';

/** An edge whose corners are held against the picture. */
export interface CorneredEdge {
  readonly ring: Ring;
  readonly corners: readonly Corner[];
  /** Of an open edge. */
  readonly ends?: readonly [End, End];
  readonly trimPx: number;
  readonly calmPx: number;
  readonly edgeWidthPx: number;
  readonly fit: FitOptions;
  /** How far plain pixels beside it stray, as a share of the way between its two tones. */
  readonly stray: number;
  /** What the picture has at a pixel: 0 where there is its one tone alone, 1 where there is the other. */
  readonly valueAt: (x: number, y: number) => number;
  /** What changes at any ring of the curves, from its right to its left, in the same measure. */
  readonly stepOf: (ring: number) => number;
}

/** Pixels around a corner that are looked at: what it moves lies within them. */
const AROUND = 3;
/** Largest distance of the chords that are laid over pixels from the curves, px. */
const CHORD_PX = 0.08;
/** Corners between two stretches that are both longer than this, px, were read from sides that are theirs alone: they stand. */
const LONG_PX = 24;
/** A corner that lies no further outside of its edge than pixels round off a right one, as a share of the edge's width, stands. */
const LEAST_GAP = 0.45;
/** A corner is in question from this difference on between a pixel and what the outline encloses of it, as a share, and as so many strays of plain pixels. */
const SUSPECT = 0.15;
const SUSPECT_STRAYS = 4;
/** Another choice leaves at most this share of the squared differences, and takes off so much of them at least, px². */
const BETTER = 0.9;
const LEAST_GAIN = 0.03;
/** What leaves less than this share of the squared differences is taken without looking further. */
const EXPLAINED = 0.2;
/** Where pixels differ from what the best choice encloses of them by more than this, squared, what they show are no two tones that meet. */
const UNEXPLAINED = 0.06;
/** How often all corners of an edge are gone through: one that moves changes what its neighbours explain. */
const ROUNDS = 2;

interface Choice {
  readonly corners: readonly Corner[];
  readonly chords: readonly number[];
  readonly misfit: number;
}

/**
 * Holds corners against the picture: pixels are means, so what outlines enclose must add up to what they show. A corner that was read from bends shorter than
 * the sides it needs, as in small lettering, lies outside of what they show or cuts it off. Such a one is moved in, or left out, where that explains the pixels
 * around it better.
 */
export class CornerCheck {
  private readonly finder = new JointFinder({ tolerancePx: 1, straightPx: 1 });
  private drawn: DrawnChords | undefined;

  /** @param curves all that is drawn of the picture. @param width, height of the picture, px. */
  constructor(
    private readonly curves: Curves,
    private readonly width: number,
    private readonly height: number,
  ) {}

  private get chords(): DrawnChords {
    return (this.drawn ??= new DrawnChords(this.curves, CHORD_PX, this.height));
  }

  /** The corners of an edge, which is this ring of the curves, as they stand before the picture; undefined when all stand as they are. */
  settle(edge: CorneredEdge, ring: number): readonly Corner[] | undefined {
    this.finder.follow(edge.fit);
    const stretches = new Stretches(edge, this.finder);
    let corners = edge.corners;
    let open: ReadonlySet<Corner> = new Set(corners);
    for (let round = 0; round < ROUNDS && open.size > 0; round++) {
      // What moves changes what its neighbours explain.
      const beside = new Set<Corner>();
      for (const corner of corners) {
        if (!open.has(corner)) continue;
        const at = corners.indexOf(corner);
        if (gapOf(edge.ring, corner) < LEAST_GAP * edge.edgeWidthPx || stretches.shorterAt(corners, at) > LONG_PX) continue;
        const choice = this.bestAt(edge, stretches, corners, at, ring);
        if (choice === undefined) continue;
        this.chords.replace(ring, stretches.at(corners, at), choice.chords);
        corners = choice.corners;
        const count = corners.length;
        for (let k = at - 1; k <= at + 1 && count > 0; k++) beside.add(corners[(k + count) % count]);
      }
      open = beside;
    }
    return corners === edge.corners ? undefined : corners;
  }

  /** What explains the pixels around a corner better than the corner as it is, if anything does. */
  private bestAt(edge: CorneredEdge, stretches: Stretches, corners: readonly Corner[], at: number, ring: number): Choice | undefined {
    const corner = corners[at];
    const box = this.boxOf(edge.ring, corner);
    if (box.right <= box.left || box.bottom <= box.top) return undefined;
    const drawn = new SharesWithin(box);
    this.chords.addTo(drawn, edge.stepOf);
    const seen = valuesIn(box, edge);
    const now = misfit(drawn, seen, edge.edgeWidthPx);
    if (now.worst < SUSPECT + SUSPECT_STRAYS * edge.stray) return undefined;
    const step = edge.stepOf(ring);
    const without = drawn.with(stretches.at(corners, at), -step);
    const tried = (others: readonly Corner[], chords: readonly number[]): Choice => ({
      corners: others,
      chords,
      misfit: misfit(without.with(chords, step), seen, edge.edgeWidthPx).sum2,
    });
    const moved = (share: number): Choice => {
      const others = corners.with(at, movedIn(edge.ring, corner, share));
      return tried(others, stretches.at(others, at));
    };
    const left = tried(corners.toSpliced(at, 1), stretches.without(corners, at));
    if (left.misfit < EXPLAINED * now.sum2) return left;
    const half = moved(0.5);
    const further = half.misfit < now.sum2 && half.misfit >= EXPLAINED * now.sum2 ? [0.25, 0.75, 0] : [];
    const best = [left, half, ...further.map(moved)].reduce((a, b) => (b.misfit < a.misfit ? b : a));
    return best.misfit < Math.min(now.sum2 * BETTER, now.sum2 - LEAST_GAIN, seen.length * UNEXPLAINED) ? best : undefined;
  }

  private boxOf({ x, y }: Ring, corner: Corner): PixelBox {
    const [px, py] = [x[corner.index], y[corner.index]];
    return {
      left: Math.max(0, Math.floor(Math.min(px, corner.x)) - AROUND),
      top: Math.max(0, Math.floor(Math.min(py, corner.y)) - AROUND),
      right: Math.min(this.width, Math.floor(Math.max(px, corner.x)) + AROUND + 1),
      bottom: Math.min(this.height, Math.floor(Math.max(py, corner.y)) + AROUND + 1),
    };
  }
}

/** What the picture has in a box, row by row. */
function valuesIn({ left, top, right, bottom }: PixelBox, { valueAt }: CorneredEdge): Float64Array {
  const out = new Float64Array((right - left) * (bottom - top));
  for (let y = top, i = 0; y < bottom; y++) for (let x = left; x < right; x++) out[i++] = valueAt(x, y);
  return out;
}

/** Sum of the squared differences between what pixels show and what they would, and the largest difference. */
function misfit(shares: SharesWithin, seen: Float64Array, edgeWidthPx: number): { sum2: number; worst: number } {
  // A ramp of width w has the variance w² / 12, of which 1 / 12 is the pixel's own; a share s of both neighbours adds 2 s.
  const values = shares.pixels(Math.min(0.25, (edgeWidthPx ** 2 - 1) / 24));
  let sum2 = 0;
  let worst2 = 0;
  for (let i = 0; i < values.length; i++) {
    const off2 = (values[i] - seen[i]) ** 2;
    sum2 += off2;
    if (off2 > worst2) worst2 = off2;
  }
  return { sum2, worst: Math.sqrt(worst2) };
}

/** How far a corner lies from the edge's point that is nearest to it, px. */
const gapOf = ({ x, y }: Ring, { x: cx, y: cy, index }: Corner): number => Math.hypot(cx - x[index], cy - y[index]);

/** A corner moved towards the edge's point that is nearest to it, to a share of its distance. */
function movedIn(ring: Ring, corner: Corner, share: number): Corner {
  const [x, y] = [ring.x[corner.index], ring.y[corner.index]];
  return { ...corner, x: x + share * (corner.x - x), y: y + share * (corner.y - y) };
}

/** The stretches of an edge between corners, each divided into curves once. */
class Stretches {
  private readonly known = new Map<Corner | undefined, Map<Corner | undefined, readonly number[]>>();

  constructor(
    private readonly edge: CorneredEdge,
    private readonly finder: JointFinder,
  ) {}

  /** Chords of the stretches before and after a corner. */
  at(corners: readonly Corner[], at: number): readonly number[] {
    const [a, b] = [this.before(corners, at), this.after(corners, at)];
    return this.isAlone(corners) ? this.chords(a, b) : [...this.chords(a, corners[at]), ...this.chords(corners[at], b)];
  }

  /** Chords of the stretch that there is without a corner. */
  without(corners: readonly Corner[], at: number): readonly number[] {
    if (this.isAlone(corners)) return chordsOf(this.finder, closedSection(this.edge.ring, 0, this.edge.calmPx));
    return this.chords(this.before(corners, at), this.after(corners, at));
  }

  /** Length of the shorter of the two stretches at a corner, px; of the one that there is, half. */
  shorterAt(corners: readonly Corner[], at: number): number {
    const { along, n } = this.edge.ring;
    if (this.isAlone(corners)) return along[n] / 2;
    const here = along[corners[at].index];
    const [a, b] = [this.before(corners, at), this.after(corners, at)];
    const back = here - (a === undefined ? 0 : along[a.index]);
    const on = (b === undefined ? along[n] : along[b.index]) - here;
    return Math.min(back < 0 ? back + along[n] : back, on < 0 ? on + along[n] : on);
  }

  /** Whether a closed edge has this corner alone. */
  private isAlone(corners: readonly Corner[]): boolean {
    return this.edge.ends === undefined && corners.length === 1;
  }

  private before(corners: readonly Corner[], at: number): Corner | undefined {
    return at > 0 ? corners[at - 1] : this.edge.ends === undefined ? corners.at(-1) : undefined;
  }

  private after(corners: readonly Corner[], at: number): Corner | undefined {
    return at + 1 < corners.length ? corners[at + 1] : this.edge.ends === undefined ? corners[0] : undefined;
  }

  /** From a corner, or the beginning of an open edge, to a corner, or its end. */
  private chords(from: Corner | undefined, to: Corner | undefined): readonly number[] {
    const known = this.known.get(from)?.get(to);
    if (known !== undefined) return known;
    const made = chordsOf(this.finder, this.section(from, to));
    const ofFrom = this.known.get(from) ?? new Map<Corner | undefined, readonly number[]>();
    this.known.set(from, ofFrom.set(to, made));
    return made;
  }

  private section(from: Corner | undefined, to: Corner | undefined): Section {
    const { ring, ends, trimPx, calmPx } = this.edge;
    if (ends === undefined) {
      const [a, b] = [from as Corner, to as Corner];
      return sectionBetween(ring, a.index, b.index, a, b, trimPx, calmPx);
    }
    const end = (corner: Corner | undefined, otherwise: End): End => (corner === undefined ? otherwise : freeEndAt(corner.x, corner.y));
    return sectionWithin(ring, from?.index ?? 0, to?.index ?? ring.n - 1, end(from, ends[0]), end(to, ends[1]), trimPx, calmPx);
  }
}

/** Chords of the curves that a stretch is drawn with: x0, y0, x1, y1 of each. */
function chordsOf(finder: JointFinder, section: Section): number[] {
  const out: number[] = [];
  for (const { from, to, straight, cubic } of finder.divide(section)) {
    const [a, b] = [section.joint(from), section.joint(to)];
    const c = [a.x, a.y, cubic.x1, cubic.y1, cubic.x2, cubic.y2, b.x, b.y];
    const count = straight ? 1 : chordCount(c, 0, CHORD_PX);
    let [x, y] = [a.x, a.y];
    for (let k = 1; k <= count; k++) {
      const [nx, ny] = k === count ? [b.x, b.y] : [cubicAt(c, 0, k / count), cubicAt(c, 1, k / count)];
      out.push(x, y, nx, ny);
      [x, y] = [nx, ny];
    }
  }
  return out;
}
