import { AppError } from '../core/errors/appError.ts';
import { followedBy, scaling, translation } from '../core/geometry/affine.ts';
import { fontOf } from '../core/lettering/fontOf.ts';
import { SHIPPED_FONTS } from '../core/lettering/fonts.ts';
import { coverageOf } from '../core/outline/coverage.ts';
import { boundsOf, type Curves } from '../core/outline/curves.ts';
import { transformCurves } from '../core/outline/transformCurves.ts';
import { drain } from './drain.ts';
import type { ShapeTools } from './designShapes.ts';

/** A font, how alike it is to some letters, how high its capitals are then, and what they say. */
export interface FontLikeness {
  readonly font: string;
  /** 0 to 1. */
  readonly score: number;
  readonly heightMm: number;
  readonly text: string;
}

/** Letters are drawn so high to be read, px; less where a long text would be broader than this. */
const HIGH_PX = 90;
const MOST_PX = 6000;
const MARGIN_PX = 6;
/** So many are told. */
const TOLD = 5;

/** The shipped fonts that traced letters are most like. @throws AppError `nothingToCut` for none. */
export async function fontsLike(letters: Curves, tools: ShapeTools, isStale: () => boolean): Promise<readonly FontLikeness[]> {
  const box = boundsOf(letters);
  if (box === undefined) throw new AppError('nothingToCut');
  const highest = box.bottom - box.top;
  const scale = Math.min(HIGH_PX / highest, MOST_PX / (box.right - box.left));
  const [width, height] = [Math.ceil((box.right - box.left) * scale) + 2 * MARGIN_PX, Math.ceil(highest * scale) + 2 * MARGIN_PX];
  const drawn = transformCurves(letters, followedBy(followedBy(translation(-box.left, -box.top), scaling(scale)), translation(MARGIN_PX, MARGIN_PX)));
  const faces = await Promise.all(SHIPPED_FONTS.map(({ name }) => tools.font(name)));
  const guesses = await drain(fontOf(coverageOf(drawn, width, height), width, height, faces), isStale);
  return guesses.slice(0, TOLD).map(({ font, score, heightPx, text }) => ({ font, score, heightMm: heightPx / scale, text }));
}
