import { useEventListener, useIntervalFn, useStorage } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useShelf } from '../../stores/shelf.ts';
import { TOUR_STEPS } from './tourSteps.ts';
import { say } from '../../core/words/say.ts';

const PICTURE = '/demo/pictures/crew-crest.jpg';
const NAME = say('First shirt');
const LOOK_EVERY_MS = 250;

interface TourState {
  /** Whether it was never begun, is under way, was left, or is done. */
  readonly is: 'new' | 'underWay' | 'left' | 'done';
  /** The job that it is made on, and the step. */
  readonly jobId?: string;
  readonly at?: number;
}

/** Where the tour is, the same everywhere and after a reload. */
const state = useStorage<TourState>('limner.tour', { is: 'new' }, undefined, { mergeDefaults: true });

/** The tour as a newcomer meets it: begun on a job of its own, left at any time. */
export function useTour() {
  const shelf = useShelf();
  const router = useRouter();

  /** Begins with the demo’s crest as a new job. @throws AppError of bringing it in; TypeError where the demo is not here. */
  async function begin(): Promise<void> {
    const response = await fetch(PICTURE);
    if (!response.ok) throw new TypeError('the demo picture is not here');
    const entry = await shelf.addFile(new File([await response.arrayBuffer()], 'crew-crest.jpg'), { opensNext: true });
    await shelf.rename(entry.id, NAME);
    state.value = { is: 'underWay', jobId: entry.id, at: 0 };
    await router.push({ name: 'picture', params: { id: entry.id } });
  }
  const leave = (): void => void (state.value = { is: 'left' });
  return { state, isNew: computed(() => state.value.is === 'new'), begin, leave };
}

/** The step that is under way on the job that lies on the bench; goes on by itself when it is done. */
export function useTourStep() {
  const bench = useBench();
  const route = useRoute();
  const isHere = computed(() => state.value.is === 'underWay' && bench.entry?.id !== undefined && bench.entry.id === state.value.jobId);
  const at = computed(() => Math.min(state.value.at ?? 0, TOUR_STEPS.length));
  const step = computed(() => (isHere.value ? TOUR_STEPS[at.value] : undefined));
  const isOver = computed(() => isHere.value && at.value >= TOUR_STEPS.length);
  const before = ref<Job>();
  const pressed = ref('');
  watch([() => bench.entry?.id, at], () => [before.value, pressed.value] = [bench.job, ''], { immediate: true });

  useEventListener(document, 'click', ({ target }: MouseEvent) => {
    if (target instanceof Element) pressed.value = target.closest('button, [role="radio"], a')?.textContent?.trim() ?? pressed.value;
  }, { capture: true });
  const pointed = ref<HTMLElement>();
  useIntervalFn(() => {
    const { value: now } = step;
    if (now === undefined || bench.job === undefined || before.value === undefined) return;
    if (now.isDone({ job: bench.job, before: before.value, page: String(route.name), pressed: pressed.value })) state.value = { ...state.value, at: at.value + 1 };
    else pointed.value = document.querySelector<HTMLElement>(now.at) ?? undefined;
  }, LOOK_EVERY_MS);
  watch(pointed, (next, last) => {
    last?.classList.remove('tour-here');
    next?.classList.add('tour-here');
  });
  watch(step, () => (pointed.value = undefined));

  const skip = (): void => void (state.value = { ...state.value, at: at.value + 1 });
  const finish = (): void => void (state.value = { is: 'done' });
  return { step, at, isOver, skip, finish };
}
