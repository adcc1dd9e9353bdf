import { ref, shallowRef, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { OnBlankView } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { tellError } from '../shared/tellError.ts';

const SIDE_PX = 1400;
/** While it is turned, a coarser one will do. */
const TURNING_PX = 700;
const WAIT_MS = 120;

/** The finished blank, made anew while it is looked at and the job changes. */
export function useOnBlank(isShown: Ref<boolean>) {
  const bench = useBench();
  const proof = shallowRef<OnBlankView>();
  /** How far a round blank is turned, degrees. */
  const turnDeg = ref(0);
  const isTurning = ref(false);
  useMadeAnew([isShown, () => bench.result, turnDeg, isTurning], () => (isTurning.value ? 0 : WAIT_MS), async (isLatest) => {
    const of = bench.ofJob();
    if (!isShown.value || of === undefined || bench.result?.cut === undefined) return;
    try {
      const made = await bench.onBlank({ ...of, sidePx: isTurning.value ? TURNING_PX : SIDE_PX, turnRad: (turnDeg.value * Math.PI) / 180 });
      if (isLatest()) proof.value = made;
    } catch (caught) {
      const error = asAppError(caught, 'unexpected');
      if (isLatest() && error.code !== 'cancelled') tellError(error);
    }
  });
  return { proof, turnDeg, isTurning };
}
