import { followedBy, inverseOf, scaling, translation, type Affine } from '../geometry/affine.ts';
import type { Frame } from '../raster/art.ts';
import { hashText } from '../task/hash.ts';
import type { Curves } from './curves.ts';
import { ringsOf, type EditPath } from './edit/editPath.ts';
import { nestRings } from './nestRings.ts';
import type { HeldOutline } from './outlineSettings.ts';
import { curvesFromPathData, pathData } from './pathData.ts';
import { transformCurves } from './transformCurves.ts';

/** Marks compare places to this, art px: far below what any change of a setting moves. */
const MARK_PX = 0.01;

/** Says which outline it is: equal for equal curves, whatever their numbers' last digits. */
export function outlineMark({ verbs, coords }: Curves): string {
  return hashText(`${verbs.join('')} ${Array.from(coords, (value) => Math.round(value / MARK_PX)).join(' ')}`);
}

/** From art px to px of the picture as turned and squared. */
export const pictureFromFrame = ({ leftPx, topPx, scale }: Frame): Affine => followedBy(scaling(1 / scale), translation(leftPx, topPx));

/** Digits of a pixel to which an outline held by hand is kept: films that share an edge keep sharing it. */
const HELD_DIGITS = 6;

/** How an outline, in px of the picture, is written when it is held by hand. */
export const heldPath = (curves: Curves): string => pathData(curves, HELD_DIGITS);

/** Edited paths are never changed in place: the text of one is written once. */
const texts = new WeakMap<EditPath, string>();

/** How one edited path, in px of the picture, is written when it is held by hand. */
export function heldText(path: EditPath): string {
  const known = texts.get(path);
  if (known !== undefined) return known;
  const text = heldPath(ringsOf([path]));
  texts.set(path, text);
  return text;
}

/** The same of several, one after the other: which lies in which is read from how they lie. */
export const heldPathOf = (paths: readonly EditPath[]): string => paths.map(heldText).join('');

/** An outline held by hand, in art px. */
export const heldCurves = (held: HeldOutline, frame: Frame): Curves =>
  transformCurves(nestRings(curvesFromPathData(held.path)), inverseOf(pictureFromFrame(frame)));
