import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, type Ref } from 'vue';
import { withNewObject } from '../../core/edit/objectEdits.ts';
import { withOperation } from '../../core/edit/operationEdits.ts';
import type { Film } from '../../core/film/film.ts';
import { translation } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import type { ImportedObject } from '../../core/job/objects.ts';
import { boundsOf, type Bounds } from '../../core/outline/curves.ts';
import { curvesFromPaths, type EditPath, type Point } from '../../core/outline/edit/editPath.ts';
import { closesAt, penBack, penDone, penDown, penPulled } from '../../core/outline/edit/pen.ts';
import { pathData } from '../../core/outline/pathData.ts';
import { transformCurves } from '../../core/outline/transformCurves.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { isTyping } from '../shared/isTyping.ts';
import { mostSeen, type Parts } from './useParts.ts';
import { say } from '../../core/words/say.ts';

/** How near to the first node one points to close a shape, and how far one pulls for a curve, CSS px. */
const NEAR_PX = 9;
const PULL_PX = 4;
/** An open line is cut so broad at first, mm. */
const LINE_MM = 2;

/** A shape that is drawn node by node: a click for a corner, a drag for a curve, the first node again or Enter for the end. Places are mm of the blank. */
export function usePen(parts: Parts, place: Ref<{ readonly xMm: number; readonly yMm: number }>, scale: Ref<number>) {
  const bench = useBench();
  const path = shallowRef<EditPath>();
  const pointer = shallowRef<Point>();
  const pulling = shallowRef<TablePoint>();
  const isOn = computed(() => path.value !== undefined);
  const closes = computed(() => path.value !== undefined && pointer.value !== undefined && closesAt(path.value, pointer.value, NEAR_PX / Math.max(scale.value, 1e-6)));

  function start(): void {
    parts.select();
    path.value = { closed: false, nodes: [] };
  }
  function press(at: TablePoint): void {
    if (path.value === undefined) return;
    if (closesAt(path.value, at, NEAR_PX / scale.value)) return finish(true);
    path.value = penDown(path.value, at);
    pulling.value = at;
  }
  function move(at: TablePoint): void {
    pointer.value = { x: at.x, y: at.y };
    const from = pulling.value;
    if (from === undefined || path.value === undefined || Math.hypot(at.screenX - from.screenX, at.screenY - from.screenY) < PULL_PX) return;
    path.value = penPulled(path.value, at);
  }
  const release = (): void => void (pulling.value = undefined);

  function finish(closed: boolean): void {
    const done = path.value === undefined ? undefined : penDone(path.value, closed);
    path.value = pointer.value = pulling.value = undefined;
    const [job, cut] = [bench.job, bench.result?.cut];
    if (done === undefined || job === undefined || cut === undefined) return;
    const { x, y } = cut.originMm;
    const inDesign = transformCurves(curvesFromPaths([done]), translation(-place.value.xMm, -place.value.yMm));
    const film = mostSeen(cut.rack.map(({ film: each }) => each), job.blank.colour);
    const object: ImportedObject = { kind: 'imported', id: `drawn-${crypto.randomUUID().slice(0, 8)}`, name: say('Drawn shape'), fileName: '', paths: [{ film: film.id, path: pathData(transformCurves(inDesign, translation(-x, -y))) }] };
    bench.commit(say('Drawn shape'), parts.keepingPlace(asLaid(job, object, film, done.closed), boundsOf(inDesign) as Bounds, job, undefined, [object.id]));
    parts.select(object.id);
  }

  const cancel = (): void => void (path.value = pointer.value = pulling.value = undefined);
  useEventListener('keydown', (event: KeyboardEvent) => {
    if (path.value === undefined || isTyping(event.target)) return;
    if (event.key === 'Escape') cancel();
    else if (event.key === 'Enter') finish(event.shiftKey);
    else if (event.key === 'Backspace' || event.key === 'Delete') path.value = penBack(path.value);
    else return;
    event.preventDefault();
    event.stopPropagation();
  }, { capture: true });

  return { path, pointer, isOn, closes, start, press, move, release, finish, cancel };
}

/** A closed shape is film; an open one a line of a width. */
function asLaid(job: Job, object: ImportedObject, film: Film, closed: boolean): Job {
  const next = withNewObject(job, object, film);
  return closed ? next : withOperation(next, object.id, { id: crypto.randomUUID().slice(0, 8), kind: 'line', widthMm: LINE_MM, corners: 'round', ends: 'round' });
}
export type Pen = ReturnType<typeof usePen>;
