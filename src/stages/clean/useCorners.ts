import { computed, markRaw, ref, shallowRef, watch, type Ref } from 'vue';
import type { SquaringStep } from '../../core/clean/steps/squaring.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Step } from '../../core/clean/recipe.ts';
import { stepsBefore, withChanged } from '../../core/edit/recipeEdits.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import type { Placed } from '../shared/pictureScene.ts';
import { cornerAt, cornerMoved, startingCorners } from './cornerDrag.ts';
import { say } from '../../core/words/say.ts';

/** Reach of a corner's handle, CSS px. */
const REACH_PX = 14;

/**
 * Setting the four corners of a rectangle for squaring. While they are set the table shows the photo as it reaches the step, for the corners lie on that and
 * not on the flat picture that comes out. States: idle, or one corner held.
 */
export function useCorners(step: Ref<Step | undefined>) {
  const bench = useBench();
  const part = computed(() => bench.part as TracedPart);
  /** Whether the corners are being set instead of the flat picture looked at. */
  const setting = ref(true);
  const held = ref<number>();
  const squaring = computed(() => (step.value?.kind === 'squaring' && step.value.marks.by === 'corners' ? step.value : undefined));
  const active = computed(() => squaring.value !== undefined && setting.value);
  const corners = computed(() => (squaring.value?.marks.by === 'corners' ? squaring.value.marks.corners : []));
  watch(() => step.value?.id, () => (setting.value = true));

  /** The photo as it reaches the step. */
  const photo = shallowRef<Placed & { widthPx: number; heightPx: number }>();
  const wanted = computed(() => (squaring.value === undefined || bench.picture === undefined ? undefined : JSON.stringify([bench.picture.pictureKey, stepsBefore(part.value.recipe, squaring.value.id)])));
  watch(wanted, async (asked) => {
    const of = bench.ofJob();
    photo.value = undefined;
    if (asked === undefined || of === undefined || squaring.value === undefined) return;
    try {
      const { frame, view, widthPx, heightPx } = await bench.moment({ ...of, recipe: stepsBefore(part.value.recipe, squaring.value.id) });
      if (wanted.value !== asked || view === undefined) return;
      const box = { x: frame.leftPx, y: frame.topPx, width: widthPx / frame.scale, height: heightPx / frame.scale };
      photo.value = markRaw({ pixels: view, box, widthPx: box.width, heightPx: box.height });
    } catch (error) {
      if (asAppError(error, 'unexpected').code === 'unexpected') throw error;
    }
  }, { immediate: true });

  type Marks = SquaringStep['marks'];
  const withMarks = (marks: Marks): TracedPart => ({ ...part.value, recipe: withChanged<'squaring'>(part.value.recipe, squaring.value?.id ?? step.value?.id ?? '', { marks }) });
  /** Goes from the mark sheet to four corners, which start a little inside the photo. */
  function begin(): void {
    if (step.value?.kind !== 'squaring' || bench.picture === undefined) return;
    const { widthPx, heightPx } = bench.picture;
    setting.value = true;
    bench.commitPart(say('Squaring: by four corners'), withMarks({ by: 'corners', corners: startingCorners(widthPx, heightPx), widthMm: 100 }));
  }
  function press(point: TablePoint, scale: number): boolean {
    if (!active.value) return false;
    held.value = cornerAt(corners.value, point.x, point.y, REACH_PX / scale);
    return true;
  }
  function move(point: TablePoint): void {
    const now = squaring.value;
    if (held.value === undefined || now?.marks.by !== 'corners' || photo.value === undefined) return;
    bench.previewPart(withMarks({ ...now.marks, corners: cornerMoved(now.marks.corners, held.value, point, photo.value) }));
  }
  function release(): void {
    if (held.value === undefined) return;
    held.value = undefined;
    bench.commitPreview(say('Squaring: corner'));
  }
  /** Lets go without a change. True when a corner was held. */
  function leave(): boolean {
    if (held.value === undefined) return false;
    held.value = undefined;
    bench.revert();
    return true;
  }
  const toggle = (): void => void (setting.value = !setting.value);
  return { toggle, active, setting, corners, held, photo, begin, press, move, release, leave };
}
