import type { TurnStep } from '../clean/steps/turn.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { turnedPoint, unturnedPoint } from '../raster/turn.ts';
import { carriedPlaces, type Carry } from './carriedStep.ts';
import { turnedAnew, turnOf } from './carryTurn.ts';
import { heldPath } from '../outline/heldOutline.ts';
import type { TracedPart } from '../job/tracedPart.ts';
import type { HeldOutline } from '../outline/outlineSettings.ts';
import type { Separation } from '../separate/separation.ts';
import { scaledRecipe } from './scaledRecipe.ts';

/**
 * The part with a turn of its recipe changed: later steps, and the single areas that were pointed at and outlines held by hand, stay on what they were put on.
 * @param next the turn as it will be; undefined when it goes. @param size of the picture before the turn.
 */
export function turnedPart(part: TracedPart, id: string, next: TurnStep | undefined, size: { widthPx: number; heightPx: number }): TracedPart {
  const { recipe } = part;
  const at = recipe.findIndex((step) => step.id === id);
  const current = recipe[at];
  const turned = { ...part, recipe: turnedAnew(recipe, id, next, size) };
  // A squared picture lies as its marks say, however the photo was turned.
  if (current?.kind !== 'turn' || recipe.some((step, k) => k > at && step.kind === 'squaring' && step.enabled)) return turned;
  return withPlaces(turned, (x, y) =>
    turnedPoint(turnOf(next), size.widthPx, size.heightPx, ...unturnedPoint(turnOf(current), size.widthPx, size.heightPx, x, y)),
  );
}

/** The part for the same picture with `factor` times as many pixels a side. */
export const scaledPart = (part: TracedPart, factor: number): TracedPart =>
  withPlaces({ ...part, recipe: scaledRecipe(part.recipe, factor) }, (x, y) => [x * factor, y * factor]);

/** Areas that were pointed at and outlines held by hand, carried over. */
function withPlaces(part: TracedPart, carry: Carry): TracedPart {
  const { separation, outline } = part;
  const held = outline.held === undefined ? part : { ...part, outline: { ...outline, held: outline.held.map((each) => carriedOutline(each, carry)) } };
  if (separation.way !== 'flat' || separation.spots === undefined) return held;
  const places = carriedPlaces(separation.spots, carry);
  const carried: Separation = { ...separation, spots: separation.spots.map(({ film }, k) => ({ ...places[k], film })) };
  return { ...held, separation: carried };
}

/** Turns, mirrors and scales map straight lines to straight lines: three points tell all of it. */
function carriedOutline(held: HeldOutline, carry: Carry): HeldOutline {
  const [[e, f], [x1, y1], [x2, y2]] = [carry(0, 0), carry(1, 0), carry(0, 1)];
  return { ...held, path: heldPath(transformCurves(curvesFromPathData(held.path), { a: x1 - e, b: y1 - f, c: x2 - e, d: y2 - f, e, f })) };
}
