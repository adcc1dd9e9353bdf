import { TransitionPresets, usePreferredReducedMotion, useTransition } from '@vueuse/core';
import { computed, ref, shallowRef, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { tracedPart, withPart } from '../../core/job/tracedPart.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import type { OnBlankView } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { usePlay } from './usePlay.ts';
import { tellError } from '../shared/tellError.ts';

const SIDE_PX = 1400;
/** A film takes so long to come down, ms. */
const LANDS_MS = 420;
/** Films a second, while they come down one after the other. */
const FILMS_PER_S = 0.9;
/** While it is turned, a coarser one will do. */
const TURNING_PX = 700;
const WAIT_MS = 120;
/** Long side of what is wound around in three dimensions, px. */
const AREA_SIDE_PX = 2048;

/** The finished blank, made anew while it is looked at and the job changes; beside it the same in another size, where one is named. */
export function useOnBlank(isShown: Ref<boolean>, isSolid: Ref<boolean>) {
  const bench = useBench();
  const proof = shallowRef<OnBlankView>();
  const other = shallowRef<OnBlankView>();
  /** What is wound around a round one, and the run that it was made of. */
  const area = shallowRef<Rgba8>();
  let madeOf: unknown;
  /** How far a round blank is turned, degrees. */
  const turnDeg = ref(0);
  const isTurning = ref(false);
  /** Size of the one beside it, mm by the leading side; none when undefined. */
  const otherMm = ref<number>();
  /** Films are laid on one after the other: how many lie there by now. Of what is printed there are none. */
  const films = computed(() => (bench.job === undefined || PROCESSES[bench.job.process].isPrinted ? 0 : (bench.result?.cut?.rack.length ?? 0)));
  const press = usePlay(films, () => FILMS_PER_S);
  const filmsOn = computed(() => Math.ceil(press.at.value));
  /** What lay there before the film that comes down just now, and how far it has come, 0 to 1. */
  const beneath = shallowRef<OnBlankView>();
  const landings = ref(0);
  const motion = usePreferredReducedMotion();
  const landed = useTransition(landings, { duration: LANDS_MS, transition: TransitionPresets.easeOutCubic, disabled: computed(() => motion.value === 'reduce') });
  const landing = computed(() => Math.max(0, Math.min(1, 1 - landings.value + landed.value)));
  let shownOn = 0;
  const turnRad = computed(() => (turnDeg.value * Math.PI) / 180);
  function otherJob(job: Job): Job | undefined {
    if (otherMm.value === undefined || job.objects.length > 1) return undefined;
    const part = tracedPart(job);
    // It is centred anew: what was placed by hand was placed for its own size.
    const { place: _, ...rest } = withPart(job, { ...part, size: { ...part.size, sizeMm: otherMm.value } });
    return rest;
  }
  useMadeAnew([isShown, isSolid, () => bench.result, turnDeg, isTurning, otherMm, filmsOn], () => (isTurning.value || press.isPlaying.value ? 0 : WAIT_MS), async (isLatest) => {
    const of = bench.ofJob();
    if (!isShown.value || of === undefined || bench.result?.cut === undefined) return;
    // In three dimensions it is wound around where it is drawn; a turn makes nothing anew.
    if (isSolid.value) {
      if (madeOf === bench.result) return;
      try {
        const made = await bench.onArea({ ...of, sidePx: AREA_SIDE_PX });
        if (isLatest()) [area.value, madeOf] = [made, bench.result];
      } catch (caught) {
        tell(caught, isLatest);
      }
      return;
    }
    const request = { ...of, sidePx: isTurning.value ? TURNING_PX : SIDE_PX, turnRad: turnRad.value };
    const on = filmsOn.value;
    try {
      const made = await bench.onBlank(on < films.value ? { ...request, filmsOn: on } : request);
      if (isLatest()) {
        beneath.value = proof.value;
        if (on === shownOn + 1 && press.isPlaying.value) landings.value++;
        [proof.value, shownOn] = [made, on];
      }
      const beside = otherJob(of.job);
      const second = beside === undefined ? undefined : await bench.onBlank({ ...request, job: beside });
      if (isLatest()) other.value = second;
    } catch (caught) {
      tell(caught, isLatest);
    }
  });
  function tell(caught: unknown, isLatest: () => boolean): void {
    const error = asAppError(caught, 'unexpected');
    if (isLatest() && error.code !== 'cancelled') tellError(error);
  }
  return { area, proof, beneath, landing, press, films, filmsOn, other, otherMm, turnDeg, turnRad, isTurning };
}
export type OnBlank = ReturnType<typeof useOnBlank>;
