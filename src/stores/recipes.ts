import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { Recipe, Step } from '../core/clean/recipe.ts';
import { sortedByName, type NamedRecipe } from '../storage/ports.ts';
import { useServices } from './services.ts';

/** The steps of a recipe as new ones, so that the same recipe can be used in several jobs and twice in one. */
export const asNewSteps = (recipe: Recipe): Step[] => recipe.map((step) => ({ ...step, id: crypto.randomUUID() }));

/** Recipes kept under a name. */
export const useRecipes = defineStore('recipes', () => {
  const { storage } = useServices();
  const all = shallowRef<readonly NamedRecipe[]>([]);
  const loaded = ref(false);

  async function load(): Promise<void> {
    all.value = await storage.recipes();
    loaded.value = true;
  }
  /** Keeps a recipe; one of the same name is replaced. */
  async function keep(name: string, recipe: Recipe): Promise<void> {
    const same = all.value.find((each) => each.name === name);
    const kept: NamedRecipe = { id: same?.id ?? crypto.randomUUID(), name, recipe, savedAt: Date.now() };
    await storage.putRecipe(kept);
    all.value = sortedByName([...all.value.filter(({ id }) => id !== kept.id), kept]);
  }
  async function remove(id: string): Promise<NamedRecipe | undefined> {
    const gone = all.value.find((each) => each.id === id);
    await storage.removeRecipe(id);
    all.value = all.value.filter((each) => each.id !== id);
    return gone;
  }
  return { all, loaded, load, keep, remove };
});
