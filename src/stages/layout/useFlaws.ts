import { computed, ref, shallowRef } from 'vue';
import type { RectMm } from '../../core/geometry/rectMm.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** A smaller frame is a click that moved a little, mm. */
const LEAST_MM = 1;

/** Marks what of a sheet cannot be used: a frame is dragged over it, a click on one takes it away. */
export function useFlaws() {
  const { layout, set } = useLayoutEdits();
  const isMarking = ref(false);
  const flaws = computed(() => layout.value.flaws ?? []);
  const drawn = shallowRef<{ readonly from: TablePoint; readonly rect: RectMm }>();
  const rectOf = (a: TablePoint, b: TablePoint): RectMm => ({ xMm: Math.min(a.x, b.x), yMm: Math.min(a.y, b.y), widthMm: Math.abs(a.x - b.x), heightMm: Math.abs(a.y - b.y) });

  function press(point: TablePoint): boolean {
    if (!isMarking.value) return false;
    drawn.value = { from: point, rect: rectOf(point, point) };
    return true;
  }
  function move(point: TablePoint): void {
    if (drawn.value !== undefined) drawn.value = { ...drawn.value, rect: rectOf(drawn.value.from, point) };
  }
  function release(): void {
    if (drawn.value === undefined) return;
    const { rect, from } = drawn.value;
    drawn.value = undefined;
    if (rect.widthMm >= LEAST_MM && rect.heightMm >= LEAST_MM) return set(say('Flaw'), { flaws: [...flaws.value, rect] });
    const left = flaws.value.filter(({ xMm, yMm, widthMm, heightMm }) => from.x < xMm || from.y < yMm || from.x > xMm + widthMm || from.y > yMm + heightMm);
    if (left.length < flaws.value.length) set(say('Flaw taken away'), { flaws: left.length === 0 ? undefined : left });
  }
  return { isMarking, count: computed(() => flaws.value.length), shown: computed(() => (drawn.value === undefined ? flaws.value : [...flaws.value, drawn.value.rect])), press, move, release };
}
