import { computed, shallowRef, type Ref } from 'vue';
import { objectOf } from '../../core/edit/objectEdits.ts';
import { turnDegOf, withScaled, withStretched, withTurned } from '../../core/edit/placeEdits.ts';
import { placed, rotation, type Affine } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import { flatten } from '../../core/outline/flatten.ts';
import type { DesignPart } from '../../core/run/designRun.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import type { Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** How near to a handle one may point, and how far above the part the one that turns stands, CSS px. */
const NEAR_PX = 8;
const ABOVE_PX = 24;
/** A drag beyond the fixed side does not turn the part inside out, share of its size. */
const LEAST_FACTOR = 0.02;
/** With Shift held a part turns in steps. */
const STEP_RAD = Math.PI / 12;
/** Chords by which the box of a turned part is known, mm. */
const CHORD_MM = 0.2;

/** A grip on the selected part: which side of its box, or the one that turns it. */
export interface Handle {
  readonly kind: 'size' | 'turn';
  /** −1, 0 or 1 from the middle of the box. */
  readonly across: number;
  readonly down: number;
  /** mm of the design. */
  readonly x: number;
  readonly y: number;
}

interface Held {
  readonly handle: Handle;
  readonly from: { readonly x: number; readonly y: number };
  readonly id: string;
  readonly job: Job;
  readonly box: Bounds;
  readonly parts: readonly DesignPart[];
  readonly origin: { readonly x: number; readonly y: number };
  readonly place: { readonly xMm: number; readonly yMm: number };
  /** Points of the part, by which its box is known when it is turned. */
  readonly points: Float64Array;
  readonly moved: boolean;
}

/** The grips on the one part that is selected: corners keep its proportions (Shift: not), sides stretch it, the one above turns it. */
export function useHandles(parts: Parts, place: Ref<{ readonly xMm: number; readonly yMm: number }>, scale: Ref<number>, isAway: () => boolean) {
  const bench = useBench();
  const held = shallowRef<Held>();
  /** What is told beside the part while it turns. */
  const turnedDeg = shallowRef<number>();

  const handles = computed((): readonly Handle[] => {
    const box = parts.box.value;
    if (box === undefined || parts.object.value === undefined || !parts.canMove.value || isAway()) return [];
    const { left, top, right, bottom } = box;
    const [x, y] = [(left + right) / 2, (top + bottom) / 2];
    // A side's grip would cover the corners' of a part that is small on screen.
    const isSmall = Math.min(right - left, bottom - top) * scale.value < 4 * NEAR_PX;
    const sides = [-1, 0, 1].flatMap((down) => [-1, 0, 1].map((across) => ({ across, down })));
    return [
      ...sides
        .filter(({ across, down }) => (across !== 0 || down !== 0) && (!isSmall || (across !== 0 && down !== 0)))
        .map(({ across, down }): Handle => ({ kind: 'size', across, down, x: x + (across * (right - left)) / 2, y: y + (down * (bottom - top)) / 2 })),
      { kind: 'turn', across: 0, down: -1, x, y: top - ABOVE_PX / Math.max(scale.value, 1e-6) },
    ];
  });
  const handleAt = ({ x, y }: { readonly x: number; readonly y: number }): Handle | undefined => handles.value.find((each) => Math.hypot(each.x - x, each.y - y) * scale.value <= NEAR_PX);

  /** Takes a grip up. @param at mm of the design. @returns whether there was one. */
  function take(at: { readonly x: number; readonly y: number }): boolean {
    const handle = handleAt(at);
    const [object, box, job] = [parts.object.value, parts.box.value, bench.job];
    if (handle === undefined || object === undefined || box === undefined || job === undefined) return false;
    const points = Float64Array.from(parts.inDesignOf(object.id).flatMap(({ layers }) => layers.flatMap(({ curves }) => [...flatten(curves, CHORD_MM).points])));
    held.value = { handle, from: at, id: object.id, job, box, parts: parts.inDesign.value, origin: bench.result?.cut?.originMm ?? { x: 0, y: 0 }, place: { ...place.value }, points, moved: false };
    return true;
  }

  /** @param point mm of the blank. */
  function drag(point: TablePoint, event: PointerEvent): void {
    const now = held.value;
    if (now === undefined) return;
    const at = { x: point.x - now.place.xMm, y: point.y - now.place.yMm };
    if (!now.moved && Math.hypot(at.x - now.from.x, at.y - now.from.y) * scale.value < 2) return;
    held.value = { ...now, moved: true };
    if (now.handle.kind === 'turn') turn(now, at, event.shiftKey);
    else size(now, at, event.shiftKey);
  }

  function size({ handle: { across, down }, id, job, box, parts: before, origin }: Held, at: { readonly x: number; readonly y: number }, free: boolean): void {
    const fixed = { x: across === 0 ? (box.left + box.right) / 2 : across > 0 ? box.left : box.right, y: down === 0 ? (box.top + box.bottom) / 2 : down > 0 ? box.top : box.bottom };
    const [width, height] = [box.right - box.left, box.bottom - box.top];
    const pulled = { x: (across * (at.x - fixed.x)) / width, y: (down * (at.y - fixed.y)) / height };
    const isCorner = across !== 0 && down !== 0;
    // Along the diagonal of the box, so that the grip stays under the pointer as nearly as it can.
    const even = (pulled.x * width ** 2 + pulled.y * height ** 2) / (width ** 2 + height ** 2);
    const factor = (value: number): number => Math.max(LEAST_FACTOR, value);
    const [fx, fy] = isCorner && !free ? [factor(even), factor(even)] : [across === 0 ? 1 : factor(pulled.x), down === 0 ? 1 : factor(pulled.y)];
    const [x, y] = [fixed.x - origin.x, fixed.y - origin.y];
    const next = fx === fy ? withScaled(job, id, fx, x, y) : withStretched(job, id, fx, fy, x, y);
    const grown = { left: fixed.x + fx * (box.left - fixed.x), right: fixed.x + fx * (box.right - fixed.x), top: fixed.y + fy * (box.top - fixed.y), bottom: fixed.y + fy * (box.bottom - fixed.y) };
    bench.preview(parts.keepingPlace(next, grown, job, before, [id]));
  }

  function turn({ id, job, box, parts: before, origin, points }: Held, at: { readonly x: number; readonly y: number }, inSteps: boolean): void {
    const [x, y] = [(box.left + box.right) / 2, (box.top + box.bottom) / 2];
    const free = Math.atan2(at.y - y, at.x - x) + Math.PI / 2;
    const rad = inSteps ? Math.round(free / STEP_RAD) * STEP_RAD : free;
    const next = withTurned(job, new Set([id]), rad, x - origin.x, y - origin.y);
    const turned = objectOf(next.objects, id);
    turnedDeg.value = turned === undefined ? undefined : Math.round(10 * turnDegOf(turned)) / 10;
    bench.preview(parts.keepingPlace(next, boxOfTurned(points, rotation(rad, x, y)) ?? box, job, before, [id]));
  }

  function letGo(): void {
    const now = held.value;
    held.value = undefined;
    turnedDeg.value = undefined;
    if (now?.moved === true) bench.commitPreview(now.handle.kind === 'turn' ? say('Turn') : say('Size'));
  }
  function drop(): void {
    held.value = undefined;
    turnedDeg.value = undefined;
    bench.revert();
  }
  const CURSORS: Readonly<Record<string, string>> = { '1,1': 'nwse-resize', '-1,-1': 'nwse-resize', '1,-1': 'nesw-resize', '-1,1': 'nesw-resize', '0,1': 'ns-resize', '0,-1': 'ns-resize', '1,0': 'ew-resize', '-1,0': 'ew-resize' };
  const cursorOf = ({ kind, across, down }: Handle): string => (kind === 'turn' ? 'grab' : CURSORS[`${across},${down}`]);
  return { handles, handleAt, held, turnedDeg, take, drag, letGo, drop, cursorOf };
}

function boxOfTurned(points: Float64Array, by: Affine): Bounds | undefined {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < points.length; k += 2) {
    const { x, y } = placed(by, points[k], points[k + 1]);
    [left, right] = [Math.min(left, x), Math.max(right, x)];
    [top, bottom] = [Math.min(top, y), Math.max(bottom, y)];
  }
  return left > right ? undefined : { left, top, right, bottom };
}
export type Handles = ReturnType<typeof useHandles>;
