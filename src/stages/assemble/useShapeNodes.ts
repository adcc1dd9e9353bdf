import { computed, ref, watch, type Ref } from 'vue';
import { withObjectChanged } from '../../core/edit/objectEdits.ts';
import { followedBy, IDENTITY, inverseOf, translation } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import type { ImportedObject } from '../../core/job/objects.ts';
import { boundsOf, type Bounds, type Curves } from '../../core/outline/curves.ts';
import type { FilmPaths } from '../../core/outline/edit/editFilms.ts';
import { curvesFromPaths, pathsFromCurves } from '../../core/outline/edit/editPath.ts';
import { curvesFromPathData, pathData } from '../../core/outline/pathData.ts';
import { joinCurves, transformCurves } from '../../core/outline/transformCurves.ts';
import { useBench } from '../../stores/bench.ts';
import { useNodeEditing, type NodeSubject } from '../shared/nodes/useNodeEditing.ts';
import type { Parts } from './useParts.ts';

/** The nodes of a drawn shape, or a drawing that came in, as it lies on the blank: before what is done to it. */
export function useShapeNodes(parts: Parts, place: Ref<{ readonly xMm: number; readonly yMm: number }>, scale: Ref<number>) {
  const bench = useBench();
  const wanted = ref(false);
  const job = computed(() => bench.job as Job);
  const shape = computed((): ImportedObject | undefined => {
    const object = parts.object.value;
    return object?.kind === 'imported' && job.value.objects.includes(object) ? object : undefined;
  });
  const isOn = computed(() => wanted.value && shape.value !== undefined);
  watch(() => shape.value?.id, () => (wanted.value = false));

  /** From its own mm to those of the design, and to those of the blank. */
  const toDesign = computed(() => {
    const { x, y } = bench.result?.cut?.originMm ?? { x: 0, y: 0 };
    return followedBy(shape.value?.placement ?? IDENTITY, translation(x, y));
  });
  const toBlank = computed(() => followedBy(toDesign.value, translation(place.value.xMm, place.value.yMm)));
  // Outlines that an edit leaves alone stay the same objects, so that only changed ones are looked at and drawn anew.
  const films = computed<readonly FilmPaths[]>((before) => (isOn.value ? (shape.value?.paths ?? []).map(({ path }, k) => ({ id: String(k), paths: pathsFromCurves(transformCurves(curvesFromPathData(path), toBlank.value), before?.[k]?.paths) })) : []));

  function keep(label: string, changed: readonly FilmPaths[]): void {
    const object = shape.value;
    if (object === undefined) return;
    const back = inverseOf(toBlank.value);
    const paths = object.paths.map((each, k) => {
      const edited = changed.find(({ id }) => id === String(k));
      return edited === undefined ? each : { ...each, path: pathData(transformCurves(curvesFromPaths(edited.paths), back)) };
    });
    const next = withObjectChanged<ImportedObject>(job.value, object.id, (same) => ({ ...same, paths }));
    bench.commit(label, parts.keepingPlace(next, boxAfter(object, paths)));
  }
  /** The box of the part once its nodes have moved: what was done to it reaches as far beyond its nodes as before. */
  function boxAfter(object: ImportedObject, paths: ImportedObject['paths']): Bounds {
    const boxOf = (all: ImportedObject['paths']): Bounds | undefined => boundsOf(joinCurves(all.map(({ path }): Curves => transformCurves(curvesFromPathData(path), toDesign.value))));
    const [before, after, own] = [boxOf(object.paths), boxOf(paths), parts.box.value];
    if (before === undefined || after === undefined || own === undefined) return after ?? own ?? { left: 0, top: 0, right: 0, bottom: 0 };
    return { left: after.left + own.left - before.left, top: after.top + own.top - before.top, right: after.right + own.right - before.right, bottom: after.bottom + own.bottom - before.bottom };
  }

  const subject: NodeSubject = { films, alone: computed(() => undefined), isReady: computed(() => bench.result?.quality === 'final'), perMm: () => 1, keep };
  const editing = useNodeEditing(isOn, scale, subject);
  return { isOn, canOpen: computed(() => shape.value !== undefined), toggle: () => void (wanted.value = !wanted.value), leave: () => void (wanted.value = false), editing };
}
export type ShapeNodes = ReturnType<typeof useShapeNodes>;
