import { useEventListener } from '@vueuse/core';
import type { Ref } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { isTyping } from '../shared/isTyping.ts';
import type { Operations } from './useOperations.ts';
import type { Parts } from './useParts.ts';
import type { Pieces } from './usePieces.ts';
import { say } from '../../core/words/say.ts';

interface Table {
  readonly parts: Parts;
  readonly pieces: Pieces;
  readonly operations: Operations;
  readonly place: Readonly<Ref<{ readonly xMm: number; readonly yMm: number }>>;
  readonly isOnePart: Readonly<Ref<boolean>>;
  /** Whether something else has the table for now. */
  readonly isAway: () => boolean;
  /** Lets go of what the pointer holds. @returns whether it held anything. */
  readonly drop: () => boolean;
}

/** Arrow keys nudge by a millimetre, with Shift by ten. */
const NUDGES: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
const round = (value: number): number => Math.round(value * 10) / 10;

/** Keys on the table of Assemble: Escape leaves step by step, Delete takes off, arrows nudge. */
export function useTableKeys({ parts, pieces, operations, place, isOnePart, isAway, drop }: Table): void {
  const bench = useBench();

  function escape(): void {
    if (drop()) return;
    if (operations.splitting.value) operations.splitting.value = false;
    else if (operations.open.value !== undefined) operations.open.value = undefined;
    else if (pieces.marks.value.length > 0) pieces.clear();
    else parts.select();
  }
  function takeOff(event: KeyboardEvent): void {
    if (pieces.marks.value.length === 0 && !parts.removable.value) return;
    event.preventDefault();
    if (pieces.marks.value.length > 0) pieces.takeOff();
    else parts.remove();
  }
  function nudge(event: KeyboardEvent): void {
    const way = NUDGES[event.key];
    const target = event.target as HTMLElement;
    if (way === undefined || bench.result?.cut === undefined || target.closest('[role="radiogroup"], [role="slider"], .el-select, [role="menu"]') !== null) return;
    event.preventDefault();
    const by = event.shiftKey ? 10 : 1;
    if (parts.canMove.value && !isOnePart.value) bench.commit(say('Nudge'), parts.shifted(way[0] * by, way[1] * by));
    else bench.commit(say('Nudge'), { ...(bench.job as Job), place: { xMm: round(place.value.xMm + way[0] * by), yMm: round(place.value.yMm + way[1] * by) } });
  }

  useEventListener('keydown', (event: KeyboardEvent) => {
    if (isAway() || isTyping(event.target) || event.ctrlKey || event.metaKey) return;
    if (event.key === 'Escape') escape();
    else if (event.key === 'Delete' || event.key === 'Backspace') takeOff(event);
    else nudge(event);
  });
}
