import { computed, type Ref } from 'vue';
import { holdOutlines, knowing } from '../../core/edit/paletteEdits.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FilmPaths } from '../../core/outline/edit/editFilms.ts';
import { curvesFromPaths, pathsFromCurves } from '../../core/outline/edit/editPath.ts';
import { heldPath } from '../../core/outline/heldOutline.ts';
import type { HeldOutline } from '../../core/outline/outlineSettings.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import type { NodeSubject } from '../shared/nodes/useNodeEditing.ts';

/** The traced films as something whose nodes are edited: what was is held by hand. @param isOn whether nodes are shown. */
export function useHeldNodes(isOn: Ref<boolean>): NodeSubject {
  const bench = useBench();
  const rack = useRack();
  const films = computed<readonly FilmPaths[]>(() => (isOn.value ? rack.films.map(({ film, outline }) => ({ id: film.id, paths: pathsFromCurves(outline) })) : []));
  function keep(label: string, changed: readonly FilmPaths[]): void {
    const part = bench.part as TracedPart;
    const outlines = changed.map(({ id, paths }): HeldOutline => ({ film: id, from: part.outline.held?.find(({ film }) => film === id)?.from ?? rack.films.find(({ film }) => film.id === id)?.mark ?? '', path: heldPath(curvesFromPaths(paths)) }));
    bench.commitPart(label, holdOutlines(knowing(part, { tones: bench.result?.cut?.tones ?? [] }), outlines));
  }
  return {
    films,
    alone: computed(() => (rack.isAlone ? rack.chosen?.film.id : undefined)),
    // Only a finished run has the outlines that would be held.
    isReady: computed(() => bench.result?.quality === 'final'),
    perMm: () => bench.resolutionPxPerMm ?? 1,
    keep,
  };
}
