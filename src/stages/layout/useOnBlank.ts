import { computed, ref, shallowRef, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { tracedPart, withPart } from '../../core/job/tracedPart.ts';
import type { Rgba8 } from '../../core/raster/raster.ts';
import type { OnBlankView } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { tellError } from '../shared/tellError.ts';

const SIDE_PX = 1400;
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
  const turnRad = computed(() => (turnDeg.value * Math.PI) / 180);
  function otherJob(job: Job): Job | undefined {
    if (otherMm.value === undefined || job.objects.length > 1) return undefined;
    const part = tracedPart(job);
    // It is centred anew: what was placed by hand was placed for its own size.
    const { place: _, ...rest } = withPart(job, { ...part, size: { ...part.size, sizeMm: otherMm.value } });
    return rest;
  }
  useMadeAnew([isShown, isSolid, () => bench.result, turnDeg, isTurning, otherMm], () => (isTurning.value ? 0 : WAIT_MS), async (isLatest) => {
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
    try {
      const made = await bench.onBlank(request);
      if (isLatest()) proof.value = made;
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
  return { area, proof, other, otherMm, turnDeg, turnRad, isTurning };
}
export type OnBlank = ReturnType<typeof useOnBlank>;
