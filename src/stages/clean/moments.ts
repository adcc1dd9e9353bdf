import { STEP_KINDS, STEP_NAMES, type Recipe, type Step } from '../../core/clean/recipe.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** A moment of the recipe: `came` before all steps that clean, `now` after all of them, or the id of the step after which it is. */
export type Moment = 'came' | 'now' | (string & {});

/** Steps that change the picture itself; every moment lies after them, so that places stay the same. */
const isBase = (step: Step): boolean => STEP_KINDS[step.kind].isBase === true;

/** The moments that can be looked at, in order, with their names. */
export function momentsOf(recipe: Recipe): readonly { readonly moment: Moment; readonly name: string }[] {
  const active = recipe.filter((step) => step.enabled && !isBase(step));
  const came = recipe.some((step) => step.enabled && isBase(step)) ? say('as it was laid straight') : say('as it came');
  const between = active.slice(0, -1).map((step, k) => ({ moment: step.id, name: say`${k + 1} after ${inSentence(STEP_NAMES[step.kind])}` }));
  return [{ moment: 'came', name: came }, ...between, { moment: 'now', name: say('now') }];
}

/** The steps up to a moment; a step that is gone counts as now. */
export function recipeAt(recipe: Recipe, moment: Moment): Step[] {
  if (moment === 'came') return recipe.filter(isBase);
  const at = moment === 'now' ? -1 : recipe.findIndex(({ id }) => id === moment);
  return at < 0 ? [...recipe] : recipe.slice(0, at + 1);
}
