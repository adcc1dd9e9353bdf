import type { Task } from '../../task/task.ts';
import { CLEARLY, explaining, type Difference } from './explaining.ts';
import type { Strokes, TonedArt } from './findStrokes.ts';
import { StrokeColours } from './strokeColours.ts';

/** Mixtures with the ground leave at most this share of a stroke's difference from it unexplained; else it is of several tones, or of none. */
const MOST_OFF = 0.15;
/** A stroke a pixel wide covers half of the pixels at its thickest, wherever it runs between them; less than this is another tone's. */
const THICKEST = 0.45;
/** A stroke with more than this share of its pixels beyond a tone is none of it, but of a further tone and a nearer one, whose mixture looks like it. */
const MOST_BEYOND = 0.15;
/** Tones that leave no more than the best by this factor unexplained cannot be told apart by colours. */
const AS_WELL = 1.1;
/** Strokes stand together when they are in squares this large, px, that touch: letters of a word. */
const SQUARE_PX = 32;
/** Tint spreads so far around a stroke, px. */
const SPREAD_PX = 2;
const PIXELS_PER_TURN = 50_000;

/** What is known of a stroke. */
interface Evidence {
  /** The tones of which it may be, by the colours of its pixels. */
  readonly likely: readonly number[];
  /** The sum of the differences from the ground of all pixels of it and around it: compression spreads tint, but the sum stays. */
  readonly sum: Difference;
}

/**
 * The tone of each stroke: that whose mixtures with the ground its pixels are. Where its own colours do not tell, because compression has spread their tint,
 * all strokes that stand together on that ground are asked, as the letters of a word. Undefined for a stroke of several tones, or of none.
 * @param settled the tone of every pixel so far: what decides between tones that cannot be told apart.
 */
export function* tonesOfStrokes(art: TonedArt, strokes: Strokes, settled: Uint8Array): Task<(number | undefined)[]> {
  const { pixels, starts, grounds } = strokes;
  const reader = new EvidenceReader(art);
  const evidence: Evidence[] = [];
  let sinceTurn = 0;
  for (const [k, ground] of grounds.entries()) {
    evidence.push(reader.read(pixels.slice(starts[k], starts[k + 1]), ground));
    sinceTurn += starts[k + 1] - starts[k];
    if (sinceTurn < PIXELS_PER_TURN) continue;
    sinceTurn = 0;
    yield k / grounds.length;
  }
  const beside = new StrokesBeside(strokes, art.smooth.width);
  return grounds.map((ground, k) => {
    const { likely, sum } = evidence[k];
    if (likely.length < 2) return likely[0];
    const own = explaining(art.tones, likely, ground, sum, CLEARLY);
    if (own.length === 1) return own[0];
    const together = beside.of(k).reduce((all, other) => added(all, evidence[other].sum), sum);
    const best = explaining(art.tones, likely, ground, together, AS_WELL);
    const votes = art.tones.map(() => 0);
    for (let i = starts[k]; i < starts[k + 1]; i++) votes[settled[pixels[i]]]++;
    return best.reduce((most, tone) => (votes[tone] > votes[most] ? tone : most));
  });
}

const added = (a: Difference, b: Difference): Difference => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** Reads what is known of one stroke after the other. */
class EvidenceReader {
  private readonly colours: StrokeColours;
  private readonly seen: Uint8Array;

  constructor(private readonly art: TonedArt) {
    this.colours = new StrokeColours(art.smooth, art.tones);
    this.seen = new Uint8Array(art.nearest.length);
  }

  read(pixels: readonly number[], ground: number): Evidence {
    const { colours, art } = this;
    colours.read(pixels, ground);
    const most = MOST_OFF * colours.difference();
    const likely = [...art.tones.keys()].filter((tone) => {
      if (tone === ground) return false;
      const explained = colours.unexplained(tone);
      return explained.most >= THICKEST && explained.left <= most && explained.beyond <= MOST_BEYOND;
    });
    return { likely, sum: likely.length === 0 ? [0, 0, 0] : this.sumAround(pixels, ground) };
  }

  private sumAround(pixels: readonly number[], ground: number): Difference {
    const { seen } = this;
    const { tones, smooth, core } = this.art;
    const { width, height, data } = smooth;
    const { r, g, b } = tones[ground];
    const sum: [number, number, number] = [0, 0, 0];
    const marked: number[] = [];
    for (const i of pixels) {
      const x = i % width;
      const y = (i - x) / width;
      for (let v = Math.max(0, y - SPREAD_PX); v <= Math.min(height - 1, y + SPREAD_PX); v++) {
        for (let j = v * width + Math.max(0, x - SPREAD_PX), last = v * width + Math.min(width - 1, x + SPREAD_PX); j <= last; j++) {
          if (seen[j] !== 0 || core[j] !== 0) continue;
          seen[j] = 1;
          marked.push(j);
          sum[0] += data[4 * j] - r;
          sum[1] += data[4 * j + 1] - g;
          sum[2] += data[4 * j + 2] - b;
        }
      }
    }
    for (const j of marked) seen[j] = 0;
    return sum;
  }
}

/** The strokes that stand together with one on its ground, by the squares in which their middles lie. */
class StrokesBeside {
  private readonly bySquare = new Map<number, number[]>();
  private readonly across: number;

  constructor(
    private readonly strokes: Strokes,
    private readonly width: number,
  ) {
    this.across = Math.ceil(width / SQUARE_PX) + 2;
    for (const k of strokes.grounds.keys()) {
      const square = this.squareOf(k);
      const there = this.bySquare.get(square);
      if (there === undefined) this.bySquare.set(square, [k]);
      else there.push(k);
    }
  }

  of(k: number): number[] {
    const { grounds } = this.strokes;
    const square = this.squareOf(k);
    const near: number[] = [];
    for (let up = -this.across; up <= this.across; up += this.across) {
      for (let at = square + up - 1; at <= square + up + 1; at++) {
        for (const other of this.bySquare.get(at) ?? []) if (other !== k && grounds[other] === grounds[k]) near.push(other);
      }
    }
    return near;
  }

  private squareOf(k: number): number {
    const { pixels, starts } = this.strokes;
    const middle = pixels[(starts[k] + starts[k + 1]) >> 1];
    return Math.floor(Math.floor(middle / this.width) / SQUARE_PX) * this.across + Math.floor((middle % this.width) / SQUARE_PX) + 1;
  }
}
