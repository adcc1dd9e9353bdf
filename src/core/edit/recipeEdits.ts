import type { Recipe, Step, StepKindName } from '../clean/recipe.ts';

/** The recipe with one more step: after the given one, or at the end. */
export function withStep(recipe: Recipe, step: Step, afterId?: string): Step[] {
  const at = afterId === undefined ? -1 : recipe.findIndex(({ id }) => id === afterId);
  return at < 0 ? [...recipe, step] : [...recipe.slice(0, at + 1), step, ...recipe.slice(at + 1)];
}

export const withoutStep = (recipe: Recipe, id: string): Step[] => recipe.filter((step) => step.id !== id);

/** The recipe with a step's settings changed; the step is found by its id. */
export const withChanged = <Kind extends StepKindName>(recipe: Recipe, id: string, change: Partial<Extract<Step, { kind: Kind }>>): Step[] =>
  recipe.map((step) => (step.id === id ? ({ ...step, ...change } as Step) : step));

/** The recipe with a step moved by whole places; it stops at the ends. */
export function withMoved(recipe: Recipe, id: string, by: number): Step[] {
  const from = recipe.findIndex((step) => step.id === id);
  if (from < 0) return [...recipe];
  const to = Math.max(0, Math.min(recipe.length - 1, from + by));
  const steps = [...recipe];
  const [moved] = steps.splice(from, 1);
  steps.splice(to, 0, moved);
  return steps;
}

/** The steps that come before the given one. */
export const stepsBefore = (recipe: Recipe, id: string): Step[] => {
  const at = recipe.findIndex((step) => step.id === id);
  return at < 0 ? [...recipe] : recipe.slice(0, at);
};
