import { computed, markRaw, ref, shallowRef, watch, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Recipe, Step } from '../../core/clean/recipe.ts';
import { useBench } from '../../stores/bench.ts';
import type { Placed } from '../shared/pictureScene.ts';
import { momentsOf, recipeAt, type Moment } from './moments.ts';

/** Two moments of the recipe side by side, and what the open step takes away. What is asked for comes from the engine; older answers are dropped. */
export function useMoments(step: Ref<Step | undefined>) {
  const bench = useBench();
  const part = computed(() => bench.part as TracedPart);
  const moments = computed(() => momentsOf(part.value.recipe));
  const left = ref<Moment>('came');
  const right = ref<Moment>('now');
  watch(moments, (known) => {
    if (!known.some(({ moment }) => moment === left.value)) left.value = 'came';
    if (!known.some(({ moment }) => moment === right.value)) right.value = 'now';
  });

  const leftArt = useMoment(() => (left.value === 'came' || left.value === 'now' ? undefined : recipeAt(part.value.recipe, left.value)), false);
  const rightArt = useMoment(() => (right.value === 'came' || right.value === 'now' ? undefined : recipeAt(part.value.recipe, right.value)), false);

  /** Steps whose effect is small differences all over: they are judged by what they take away. */
  const showsRemoved = computed(() => step.value?.enabled === true && (step.value.kind === 'smoothing' || step.value.kind === 'lightLevelling'));
  const wantsRemoved = ref(false);
  const removed = useMoment(() => (wantsRemoved.value && showsRemoved.value && step.value !== undefined ? recipeAt(part.value.recipe, step.value.id) : undefined), true);
  return { moments, left, right, leftArt, rightArt, showsRemoved, wantsRemoved, removed };
}

/** The art after some steps, for as long as some are asked for. */
function useMoment(wanted: () => Recipe | undefined, removed: boolean) {
  const bench = useBench();
  const shown = shallowRef<Placed>();
  watch([wanted, () => bench.picture], async ([recipe, picture]) => {
    const of = bench.ofJob();
    if (recipe === undefined || picture === undefined || of === undefined) {
      shown.value = undefined;
      return;
    }
    const asked = JSON.stringify(recipe);
    try {
      const { frame, view } = await bench.moment({ ...of, recipe, removed });
      if (view === undefined || JSON.stringify(wanted()) !== asked) return;
      shown.value = markRaw({ pixels: view, box: { x: frame.leftPx, y: frame.topPx, width: view.width / frame.scale, height: view.height / frame.scale } });
    } catch (error) {
      // The run beside it tells what is wrong; here the last picture stays.
      if (asAppError(error, 'unexpected').code === 'unexpected') throw error;
    }
  }, { immediate: true });
  return shown;
}
