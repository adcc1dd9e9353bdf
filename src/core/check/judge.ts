import { numberWords } from '../units/parseLength.ts';
import type { Look } from './lookAt.ts';
import { say } from '../words/say.ts';

/** A plain-words judgement of a picture for a job. */
export interface Judgement {
  readonly verdict: 'good' | 'fair' | 'poor';
  readonly words: string;
}

export interface JudgeInput {
  readonly look: Look;
  /** Picture pixels on an inch of the finished design. */
  readonly dpi: number;
  /** Pieces and holes too small for the process at this size; undefined while nothing is outlined. */
  readonly tooSmall: number | undefined;
  /** Smallest piece that the process takes, mm². */
  readonly leastPieceMm2: number;
}

/** From here on edges come out as drawn; below the other value they are guessed. */
const GOOD_DPI = 100;
const POOR_DPI = 45;
/** More real tones than this is shading, not flat colour. */
const SHADED_TONES = 9;

/** Says whether a picture will cut at its finished size, and if not, why. */
export function judge({ look, dpi, tooSmall, leastPieceMm2 }: JudgeInput): Judgement {
  const reasons: string[] = [];
  let verdict: Judgement['verdict'] = 'good';
  if (dpi < POOR_DPI) {
    verdict = 'poor';
    reasons.push(say`only ${Math.round(dpi)} dots per inch at this size: edges will be guessed. Cut it smaller or ask for a larger picture`);
  } else if (dpi < GOOD_DPI) {
    verdict = 'fair';
    reasons.push(say`${Math.round(dpi)} dots per inch at this size: fine for bold shapes, small lettering loses its form`);
  }
  if (look.realColours > SHADED_TONES) {
    if (verdict === 'good') verdict = 'fair';
    reasons.push(say('it is shaded, so one film shows only what is darker than the threshold'));
  }
  if (tooSmall !== undefined && tooSmall > 0) {
    if (verdict === 'good') verdict = 'fair';
    reasons.push(say`${numberWords(tooSmall, 0)} ${tooSmall === 1 ? say('place is') : say('places are')} smaller than ${leastPieceMm2} mm² and may lift with the knife`);
  }
  if (reasons.length === 0) return { verdict, words: say`Will cut well: ${Math.round(dpi)} dots per inch at this size.` };
  return { verdict, words: `${verdict === 'poor' ? say('Will not cut well') : say('Will cut, with care')}: ${reasons.join('; ')}.` };
}
