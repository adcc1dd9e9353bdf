import { computed, onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import type { AppError } from '../../core/errors/appError.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { Figures } from '../../core/check/figures.ts';
import { figuresTogether } from '../../core/check/figures.ts';
import type { VariantView } from '../../engine/protocol.ts';
import { withPart } from '../../core/job/tracedPart.ts';
import { countOfTones } from '../../core/edit/paletteEdits.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { variantsOf, type Variant } from './variants.ts';
import { say } from '../../core/words/say.ts';

const WAIT_MS = 250;

/** Another way to cut the same art beside the one on the bench. */
export function useVariant(isShown: Ref<boolean>) {
  const bench = useBench();
  const rack = useRack();
  const choices = computed<readonly Variant[]>(() => (bench.part === undefined ? [] : variantsOf(bench.part, { tones: bench.result?.cut?.tones ?? [], films: rack.films.map(({ film }) => film) }, countOfTones(bench.result?.cut?.tones))));
  const wanted = ref<string>();
  const variant = computed(() => choices.value.find(({ id }) => id === wanted.value) ?? choices.value[0]);
  const view = shallowRef<VariantView>();
  const error = shallowRef<AppError>();
  const here = computed<Figures>(() => figuresTogether(rack.films));

  let timer: ReturnType<typeof setTimeout> | undefined;
  let turn = 0;
  async function make(): Promise<void> {
    const of = bench.ofJob();
    const mine = ++turn;
    if (!isShown.value || of === undefined || variant.value === undefined) return;
    try {
      const made = await bench.variant({ ...of, job: withPart(of.job, variant.value.part) });
      if (mine !== turn) return;
      view.value = made;
      error.value = undefined;
    } catch (caught) {
      if (mine !== turn) return;
      view.value = undefined;
      error.value = asAppError(caught, 'unexpected');
    }
  }
  watch([isShown, () => bench.result, () => variant.value?.id], () => {
    clearTimeout(timer);
    view.value = undefined;
    timer = setTimeout(() => void make(), WAIT_MS);
  }, { immediate: true });
  onScopeDispose(() => {
    clearTimeout(timer);
    turn++;
  });

  function take(): void {
    const taken = variant.value;
    if (taken !== undefined) bench.commitPart(say`Variant: ${taken.name}`, taken.part);
  }
  const choose = (id: string): void => void (wanted.value = id);
  return { choices, variant, view, error, here, choose, take };
}
