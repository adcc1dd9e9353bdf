import { computed, ref, shallowRef, type Ref } from 'vue';
import type { AppError} from '../../core/errors/appError.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { ProofView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { useRack } from '../../stores/rack.ts';

/** Changes that follow each other are proofed once, ms after the last. */
const WAIT_MS = 250;

/** The films laid over each other beside the art, made anew while it is looked at and the cut changes; one film may be laid out of place. */
export function useProof(isShown: Ref<boolean>) {
  const bench = useBench();
  const rack = useRack();
  const proof = shallowRef<ProofView>();
  const error = shallowRef<AppError>();
  /** How far the film that is looked at, or else the topmost, lies out of place, mm to the right and down. */
  const shiftMm = ref(0);
  const shifted = computed(() => (rack.isAlone ? rack.chosen : rack.films.at(-1))?.film);

  useMadeAnew([isShown, () => bench.result, shiftMm, shifted], () => WAIT_MS, async (isLatest) => {
    const of = bench.ofJob();
    const film = shifted.value;
    if (!isShown.value || of === undefined || film === undefined) return;
    // Along the diagonal, so that edges both ways show it.
    const step = shiftMm.value / Math.SQRT2;
    try {
      const made = await bench.proof({ ...of, ...(shiftMm.value === 0 ? {} : { shift: { filmId: film.id, xMm: step, yMm: step } }) });
      if (!isLatest()) return;
      proof.value = made;
      error.value = undefined;
    } catch (caught) {
      if (isLatest()) error.value = asAppError(caught, 'unexpected');
    }
  });
  return { proof, error, shiftMm, shifted };
}
