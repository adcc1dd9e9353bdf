import { sparedOf, type Places } from '../clean/finds.ts';
import type { Recipe, Step } from '../clean/recipe.ts';

/** The steps that find things by themselves. */
type SparingStep = Extract<Step, { kind: 'sweep' | 'gapMending' | 'areaLift' }>;

/** Whether the finds of a step can be left alone one by one. */
export const sparesFinds = (step: Step): step is SparingStep =>
  step.kind === 'sweep' || step.kind === 'gapMending' || (step.kind === 'areaLift' && step.enclosed);

/** The recipe with places added to, or taken out of, those that a step leaves alone. */
export function withSpared(recipe: Recipe, id: string, places: Places, spared: boolean): Step[] {
  return recipe.map((step) => {
    if (step.id !== id || !sparesFinds(step)) return step;
    const now = step.spared ?? [];
    const gone = sparedOf(
      now.map(({ xPx }) => xPx),
      now.map(({ yPx }) => yPx),
      new Float64Array(now.length),
      places,
    );
    const others = now.filter((_, k) => gone[k] === 0);
    return { ...step, spared: spared ? [...others, ...places.map(({ xPx, yPx }) => ({ xPx, yPx }))] : others };
  });
}
