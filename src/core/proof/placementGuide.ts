import type { RectMm } from '../geometry/rectMm.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import type { Blank } from '../process/blanks.ts';
import { say } from '../words/say.ts';

/** A strip that is laid at a collar is so broad, mm, at least and at most. */
const [LEAST_STRIP_MM, MOST_STRIP_MM] = [80, 160];
/** Card that is narrower bends when it is laid, mm. */
const LEAST_LEG_MM = 6;
/** Legs of an angle are no longer, mm. */
const MOST_LEG_MM = 200;
/** Notches show the middle: how deep they are, mm. */
const NOTCH_MM = 4;

/** A piece of card that places film on a blank: outlines in mm of the blank's printable area, y down. */
export interface PlacementGuide {
  readonly curves: Curves;
  /** What it is laid at: the collar's seam, with its upper notch in the middle, or the upper left of the printable area. */
  readonly at: 'collar' | 'corner';
}

/** How it is laid. */
export const GUIDE_WORDS: Readonly<Record<PlacementGuide['at'], string>> = {
  collar: say('Its upper notch on the middle of the collar, the film’s box against its lower edge.'),
  corner: say('Its corner on that of the printable area, the film’s box into its inner one.'),
};

/**
 * The guide for film at its place on the printable area, as it is trimmed. Of what has a collar: a strip from the seam down to the film, notched where the middles of both are. Of all else an angle: its outer corner lies on that of the printable area, its inner one takes the film's;
 * a leg that would be too narrow is left out, and with both there is none. Of a round area there is none.
 */
export function placementGuide({ form, belowCollarMm, widthMm, round }: Pick<Blank, 'form' | 'belowCollarMm' | 'widthMm' | 'round'>, film: RectMm): PlacementGuide | undefined {
  if (form === 'shirt' && belowCollarMm !== undefined) return strip(-belowCollarMm, widthMm / 2, film);
  return round === true ? undefined : angle(widthMm / 2, film);
}

function strip(seam: number, middle: number, { xMm, yMm, widthMm }: RectMm): PlacementGuide | undefined {
  if (yMm - seam < LEAST_LEG_MM + 2 * NOTCH_MM) return undefined;
  const own = xMm + widthMm / 2;
  const half = Math.max(LEAST_STRIP_MM, Math.min(MOST_STRIP_MM, widthMm)) / 2;
  const [left, right] = [Math.min(middle, own) - half, Math.max(middle, own) + half];
  return { at: 'collar', curves: outline([[left, seam], ...notch(middle, seam, 1), [right, seam], [right, yMm], ...notch(own, yMm, -1), [left, yMm]]) };
}

function angle(middle: number, { xMm, yMm, widthMm, heightMm }: RectMm): PlacementGuide | undefined {
  const [hasLeg, hasTop] = [xMm >= LEAST_LEG_MM, yMm >= LEAST_LEG_MM];
  if (!hasLeg && !hasTop) return undefined;
  // Past the middle where it is not too long, so that its notch is on it.
  const right = Math.min(Math.max(xMm + widthMm / 2, middle) + 3 * NOTCH_MM, MOST_LEG_MM);
  const bottom = Math.min(yMm + heightMm / 2 + 3 * NOTCH_MM, MOST_LEG_MM);
  const [x, y] = [Math.max(0, xMm), Math.max(0, yMm)];
  const [own, ownDown] = [xMm + widthMm / 2, yMm + heightMm / 2];
  const atTop = own + NOTCH_MM < right && hasTop ? notch(own, y, -1) : [];
  if (!hasLeg) return { at: 'corner', curves: outline([[x, 0], [right, 0], [right, y], ...atTop, [x, y]]) };
  const atSide = ownDown + NOTCH_MM < bottom ? ([[x, ownDown - NOTCH_MM], [x - NOTCH_MM, ownDown], [x, ownDown + NOTCH_MM]] as const) : [];
  if (!hasTop) return { at: 'corner', curves: outline([[0, y], [x, y], ...atSide, [x, bottom], [0, bottom]]) };
  return { at: 'corner', curves: outline([[0, 0], [right, 0], [right, y], ...atTop, [x, y], ...atSide, [x, bottom], [0, bottom]]) };
}

/** A notch in a level edge, into the card: from left to right on its upper edge, from right to left on its lower one. */
const notch = (x: number, y: number, down: 1 | -1): readonly (readonly [number, number])[] => [
  [x - down * NOTCH_MM, y],
  [x, y + down * NOTCH_MM],
  [x + down * NOTCH_MM, y],
];

function outline(points: readonly (readonly [number, number])[]): Curves {
  const builder = new CurvesBuilder();
  builder.polygon(points.flat());
  return nestRings(builder.build());
}
