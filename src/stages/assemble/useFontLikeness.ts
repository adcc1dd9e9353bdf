import { ref, shallowRef, watch } from 'vue';
import { withNewObject } from '../../core/edit/objectEdits.ts';
import { withOperation } from '../../core/edit/operationEdits.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { Job } from '../../core/job/job.ts';
import { joinCurves } from '../../core/outline/transformCurves.ts';
import type { FontLikeness } from '../../engine/fontsLike.ts';
import { useBench } from '../../stores/bench.ts';
import { useServices } from '../../stores/services.ts';
import { tellError } from '../shared/tellError.ts';
import type { Parts } from './useParts.ts';
import type { Pieces } from './usePieces.ts';
import { say } from '../../core/words/say.ts';

/** Which font the selected pieces are in, and setting them anew in it. */
export function useFontLikeness(parts: Parts, pieces: Pieces) {
  const bench = useBench();
  const { engine } = useServices();
  const busy = ref(false);
  const found = shallowRef<readonly FontLikeness[]>([]);
  watch(() => pieces.marks.value, () => (found.value = []));

  async function ask(): Promise<void> {
    const of = pieces.marks.value;
    busy.value = true;
    try {
      const likely = await engine.fontsLike(joinCurves(pieces.selected.value.map(({ curves }) => curves)));
      if (pieces.marks.value === of) found.value = likely;
    } catch (error) {
      tellError(asAppError(error, 'unexpected'));
    } finally {
      busy.value = false;
    }
  }

  /** Sets what the pieces say in a font, at their size, in their place and on their film, and takes the pieces off. */
  function take({ font, heightMm, text }: FontLikeness): void {
    const [id, facts] = [pieces.partId.value, pieces.facts.value];
    const origin = bench.result?.cut?.originMm ?? { x: 0, y: 0 };
    const film = parts.films.value.find((each) => each.id === facts?.films[0]);
    if (id === undefined || facts === undefined || film === undefined) return;
    const { left, top, right, bottom } = facts.box;
    const placement = { a: 1, b: 0, c: 0, d: 1, e: (left + right) / 2 - origin.x, f: (top + bottom) / 2 - origin.y };
    const lettering = { kind: 'lettering' as const, id: `lettering-${crypto.randomUUID().slice(0, 8)}`, film: film.id, placement, lettering: { text: text.trim() === '' ? say('Text') : text, font, heightMm } };
    const without = withOperation(bench.job as Job, id, { id: crypto.randomUUID().slice(0, 8), kind: 'takeOff', pieces: [...pieces.marks.value] });
    bench.commit(say`Set in ${font}`, withNewObject(without, lettering, film));
    parts.select(lettering.id);
  }
  return { busy, found, ask, take };
}
