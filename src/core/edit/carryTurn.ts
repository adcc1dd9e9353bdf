import type { TurnStep } from '../clean/steps/turn.ts';
import { turnedPoint, unturnedPoint, type Turn } from '../raster/turn.ts';
import { carriedStep, type Carry } from './carriedStep.ts';
import { STEP_KINDS, type Recipe, type Step } from '../clean/recipe.ts';

const STRAIGHT: Turn = { mirrored: false, quarters: 0, angleDeg: 0 };

/** What a turn step does while it is switched on. */
export const turnOf = (step: TurnStep | undefined): Turn => (step === undefined || !step.enabled ? STRAIGHT : step);

/** Steps after whose result places are counted anew stand first, in their own order, so that all other places mean the same picture. */
export function basesFirst(recipe: Recipe): Step[] {
  const isBase = (step: Step): boolean => STEP_KINDS[step.kind].isBase === true;
  return [...recipe.filter(isBase), ...recipe.filter((step) => !isBase(step))];
}

/**
 * Carries places in the picture over when it is turned another way, so that strokes and points stay on what they were put on.
 * @param steps those after the turn. @param widthPx size of the picture before the turn.
 */
export function carryTurn(steps: Recipe, before: Turn, after: Turn, widthPx: number, heightPx: number): Step[] {
  const carry: Carry = (x, y) => {
    const [ux, uy] = unturnedPoint(before, widthPx, heightPx, x, y);
    return turnedPoint(after, widthPx, heightPx, ux, uy);
  };
  // A squared picture lies as its corners or its sheet say, however the photo was turned: places after it stay.
  const squared = steps.findIndex((step) => step.kind === 'squaring' && step.enabled);
  return steps.map((step, k) => (squared >= 0 && k > squared ? step : carriedStep(step, carry)));
}

/** The recipe with a turn changed and everything after it carried over. @param size of the picture before the turn. */
export function turnedAnew(recipe: Recipe, id: string, next: TurnStep | undefined, { widthPx, heightPx }: { widthPx: number; heightPx: number }): Step[] {
  const at = recipe.findIndex((step) => step.id === id);
  const current = recipe[at];
  if (current?.kind !== 'turn') return [...recipe];
  return [...recipe.slice(0, at), ...(next === undefined ? [] : [next]), ...carryTurn(recipe.slice(at + 1), turnOf(current), turnOf(next), widthPx, heightPx)];
}
