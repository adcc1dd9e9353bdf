import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { shareAlong, withFoundWeedLines, withOwnWeedLine, type WeedLineName } from '../../core/edit/weedLineEdits.ts';
import type { Layout } from '../../core/layout/layout.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import type { WeedLinePlace } from '../../core/layout/weedLines.ts';
import { isTyping } from '../shared/isTyping.ts';
import { useLayoutEdits } from './useLayoutEdits.ts';
import { say } from '../../core/words/say.ts';

/** How near to a line's grip one may point, CSS px. */
const NEAR_PX = 10;

/** A place on the sheet, mm. */
export interface PlaceMm {
  readonly x: number;
  readonly y: number;
}

/** Where the grip of a line is: at the upper or left end, where the box's own edge is. */
export const gripOf = ({ isUpright, atMm, fromMm }: WeedLinePlace): PlaceMm => (isUpright ? { x: atMm, y: fromMm } : { x: fromMm, y: atMm });

/** The weed lines of the sheet on the table: which is chosen, moved by its grip or by keys, left out or put back. */
export function useWeedLines(sheet: Ref<Sheet | undefined>, scale: Ref<number>) {
  const { layout, drag, set, cancel } = useLayoutEdits();
  const places = computed(() => sheet.value?.weedLinePlaces ?? []);
  const chosenName = shallowRef<Pick<WeedLinePlace, 'box' | 'strip'>>();
  const chosenAt = computed(() => {
    const name = chosenName.value;
    const found = name === undefined ? -1 : places.value.findIndex(({ box, strip }) => box === name.box && strip === name.strip);
    return found < 0 ? undefined : found;
  });
  const chosen = computed(() => (chosenAt.value === undefined ? undefined : places.value[chosenAt.value]));
  watch([() => sheet.value?.filmId, () => sheet.value?.number], () => (chosenName.value = undefined));
  const nameOf = ({ box, strip }: Pick<WeedLinePlace, 'box' | 'strip'>): WeedLineName => ({ film: sheet.value?.filmId ?? '', sheet: sheet.value?.number ?? 1, box, strip });
  const shareAt = (line: WeedLinePlace, point: PlaceMm): number => shareAlong(line, sheet.value?.boxes[line.box] ?? { xMm: 0, yMm: 0, widthMm: 1, heightMm: 1 }, point);

  function lineAt(point: PlaceMm): WeedLinePlace | undefined {
    return places.value.find((line) => Math.hypot(gripOf(line).x - point.x, gripOf(line).y - point.y) * scale.value <= NEAR_PX);
  }

  /** The line in hand, with the layout as it was when it was taken up. */
  let inHand: { readonly line: WeedLinePlace; readonly before: Layout; moved: boolean } | undefined;
  function press(point: PlaceMm): boolean {
    const found = lineAt(point);
    chosenName.value = found;
    if (found === undefined) return false;
    inHand = { line: found, before: layout.value, moved: false };
    return true;
  }
  function move(point: PlaceMm): boolean {
    if (inHand === undefined) return false;
    inHand.moved = true;
    drag(withOwnWeedLine(inHand.before, nameOf(inHand.line), shareAt(inHand.line, point)));
    return true;
  }
  function release(): void {
    if (inHand?.moved === true) set(say('Move a weed line'), { weedLines: layout.value.weedLines });
    inHand = undefined;
  }
  const leaveOut = (): void => {
    if (chosen.value !== undefined) set(say('Leave out a weed line'), withOwnWeedLine(layout.value, nameOf(chosen.value)));
  };
  const putBack = (): void => {
    if (chosen.value !== undefined) set(say('Weed line as found'), withFoundWeedLines(layout.value, nameOf(chosen.value)));
  };
  /** Moves the chosen one along its box, mm. */
  function nudge(byMm: number): void {
    const line = chosen.value;
    if (line === undefined) return;
    const at = line.atMm + byMm;
    set(say('Move a weed line'), withOwnWeedLine(layout.value, nameOf(line), shareAt(line, { x: at, y: at })));
  }
  useEventListener('keydown', (event: KeyboardEvent) => {
    const line = chosen.value;
    if (isTyping(event.target) || line === undefined) return;
    const [back, on] = line.isUpright ? ['ArrowLeft', 'ArrowRight'] : ['ArrowUp', 'ArrowDown'];
    if (event.key === back || event.key === on) nudge((event.key === on ? 1 : -1) * (event.shiftKey ? 10 : 1));
    else if (event.key === 'Delete' || event.key === 'Backspace') leaveOut();
    else if (event.key === 'Escape') {
      if (inHand !== undefined) cancel();
      inHand = undefined;
      chosenName.value = undefined;
    } else return;
    event.preventDefault();
  });

  return {
    places, chosen, chosenAt, press, move, release, leaveOut, putBack, lineAt,
    ownCount: computed(() => layout.value.weedLines?.own?.length ?? 0),
    allAsFound: () => set(say('Weed lines as found'), withFoundWeedLines(layout.value)),
    chooseNext: () => {
      const next = places.value[((chosenAt.value ?? -1) + 1) % Math.max(1, places.value.length)];
      chosenName.value = next;
    },
  };
}
export type WeedLinesInHand = ReturnType<typeof useWeedLines>;
