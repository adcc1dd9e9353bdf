import { explain } from '../../core/errors/explain.ts';
import { STEP_NAMES, type Recipe } from '../../core/clean/recipe.ts';
import type { BatchOutcome } from '../../stores/batch.ts';
import { inSentence, say } from '../../core/words/say.ts';

/** What became of a picture that a recipe was applied to, in one line. Steps are told by their place: their ids are new in every job. */
export function outcomeWords({ steps, noCut, findings, error }: BatchOutcome, recipe: Recipe): string {
  if (error !== undefined) return explain(error).what;
  const active = recipe.filter((step) => step.enabled);
  const skipped = steps.flatMap(({ skipped: code, facts }, k) => {
    const name = active[k] === undefined ? say('a step') : inSentence(STEP_NAMES[active[k].kind]);
    if (code !== undefined) return [say`${name} skipped: ${explain({ code, details: {} }).what}`];
    return facts['offArt'] === 1 ? [say`${name} skipped: its place is not on this picture`] : [];
  });
  const looked = findings === undefined || findings === 0 ? [] : [say`${findings} ${findings === 1 ? say('place') : say('places')} to look at in the cut check`];
  const words = [...skipped, ...(noCut === undefined ? [] : [explain(noCut).what]), ...looked];
  return words.length === 0 ? say('ready to cut') : words.join(' ');
}
