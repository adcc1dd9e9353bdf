import { within, type Task } from '../../task/task.ts';
import { CLEARLY, explaining, type Difference } from './explaining.ts';
import { dotsAmong, type Dot } from './dots.ts';
import { findStrokes, type TonedArt } from './findStrokes.ts';
import { growStroke } from './growStroke.ts';
import { StrokeColours } from './strokeColours.ts';
import { tonesOfStrokes } from './tonesOfStrokes.ts';

const HALF = 127.5;
const STROKES_PER_TURN = 500;
/** A stroke goes on along pixels that it covers by at least this much, of 255, and that differ from the ground by more levels than compression leaves there. */
const LEAST_COVER = 50;
const LEAST_GROWN = 45;

/**
 * Gives strokes too thin to have an inside, as those of small lettering, one tone from end to end. A pixel of such a stroke is mixed with its ground, and
 * compression has spread its tint, so that by itself it may look like the ground, or like a third tone; all pixels of a letter, or of a word, together tell
 * whose mixtures with the ground they are. From where there is at least half of that tone it goes on along the crest of the stroke.
 * @param settled the tone of every pixel so far; changed. @returns the dots among them, which are as small as noise.
 */
export function* settleStrokes(settled: Uint8Array, art: TonedArt): Task<Dot[]> {
  const strokes = yield* within(findStrokes(art), 0, 0.6);
  const { pixels, starts, grounds } = strokes;
  const tones = yield* within(tonesOfStrokes(art, strokes, settled), 0.6, 0.9);
  const drawing = new StrokeDrawing(settled, art);
  const dots: Dot[] = [];
  for (const [k, tone] of tones.entries()) {
    if (tone !== undefined) dots.push(...drawing.draw(pixels.slice(starts[k], starts[k + 1]), grounds[k], tone));
    if (k % STROKES_PER_TURN === STROKES_PER_TURN - 1) yield 0.9 + (0.1 * k) / tones.length;
  }
  return dots;
}

/** Gives the pixels of one stroke after the other its tone or that of its ground. */
class StrokeDrawing {
  private readonly colours: StrokeColours;
  /** How much of a pixel the tone covers, of 255: of the pixels of the stroke that is being drawn; 0 elsewhere. */
  private readonly cover: Uint8Array;

  constructor(
    private readonly settled: Uint8Array,
    private readonly art: TonedArt,
  ) {
    this.colours = new StrokeColours(art.smooth, art.tones);
    this.cover = new Uint8Array(settled.length);
  }

  /** Gives the dots that it is, or is made of. */
  draw(pixels: readonly number[], ground: number, tone: number): Dot[] {
    const { settled, art, colours, cover } = this;
    colours.read(pixels, ground);
    let most = 0;
    for (const [k, i] of pixels.entries()) {
      cover[i] = Math.max(1, Math.min(255, Math.round(255 * colours.share(k, tone))));
      most = Math.max(most, cover[i]);
    }
    // A stroke between two rows of pixels may have less than half of all.
    const least = Math.min(HALF, most);
    const kept = this.ownTones(pixels, ground, tone);
    for (const i of pixels) if (!kept.has(settled[i])) settled[i] = cover[i] >= least ? tone : ground;
    const leastGrown = Math.max(LEAST_COVER, (255 * LEAST_GROWN) / colours.distance(tone));
    growStroke(pixels, cover, settled, { tone, ground, width: art.smooth.width, least: leastGrown });
    const dots = dotsAmong(pixels.filter((i) => settled[i] === tone), cover, { tone, ground, fullLevels: colours.distance(tone), width: art.smooth.width });
    for (const i of pixels) cover[i] = 0;
    return dots;
  }

  /**
   * Third tones that pixels of a stroke have for good, as those of a dot that it touches: their mixtures with the ground explain those pixels clearly better
   * than the tone of the stroke does.
   */
  private ownTones(pixels: readonly number[], ground: number, tone: number): Set<number> {
    const { settled } = this;
    const { smooth, tones } = this.art;
    const { data } = smooth;
    const { r, g, b } = tones[ground];
    const sums = new Map<number, [number, number, number]>();
    for (const i of pixels) {
      if (settled[i] === ground || settled[i] === tone) continue;
      const sum = sums.get(settled[i]) ?? [0, 0, 0];
      sum[0] += data[4 * i] - r;
      sum[1] += data[4 * i + 1] - g;
      sum[2] += data[4 * i + 2] - b;
      sums.set(settled[i], sum);
    }
    const isOwn = ([third, sum]: [number, Difference]): boolean => !explaining(tones, [third, tone], ground, sum, CLEARLY).includes(tone);
    return new Set([...sums].filter(isOwn).map(([third]) => third));
  }
}
