import type { Recipe, Step } from '../clean/recipe.ts';

/** A recipe for what is printed: ink has all colours, so they are not brought to few; all other steps stay. */
export const printRecipe = (recipe: Recipe): Step[] => recipe.filter(({ kind }) => kind !== 'fewerColours');
