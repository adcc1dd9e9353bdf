import { computed, onScopeDispose, watch, type Ref } from 'vue';
import { holdOutlines, knowing } from '../../core/edit/paletteEdits.ts';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { FilmPaths } from '../../core/outline/edit/editFilms.ts';
import { pathsFromCurves } from '../../core/outline/edit/editPath.ts';
import { heldPathOf, heldText } from '../../core/outline/heldOutline.ts';
import type { HeldOutline } from '../../core/outline/outlineSettings.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import type { NodeSubject } from '../shared/nodes/useNodeEditing.ts';

/** The traced films as something whose nodes are edited: what was is held by hand. @param isOn whether nodes are shown. */
export function useHeldNodes(isOn: Ref<boolean>): NodeSubject {
  const bench = useBench();
  const rack = useRack();
  const films = computed<readonly FilmPaths[]>((before) => (isOn.value ? rack.films.map(({ film, outline }) => ({ id: film.id, paths: pathsFromCurves(outline, before?.find(({ id }) => id === film.id)?.paths) })) : []));
  watch(films, writtenAhead, { immediate: true });
  onScopeDispose(() => writtenAhead([]));
  function keep(label: string, changed: readonly FilmPaths[]): void {
    const part = bench.part as TracedPart;
    const outlines = changed.map(({ id, paths }): HeldOutline => ({ film: id, from: part.outline.held?.find(({ film }) => film === id)?.from ?? rack.films.find(({ film }) => film.id === id)?.mark ?? '', path: heldPathOf(paths) }));
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

const TURN_MS = 6;
const REST_MS = 24;

/** Writes what an edit will hold before there is one, so that the first one need not wait for all of it. What was begun before is left. */
const writtenAhead = ahead((films: readonly FilmPaths[]) => films.flatMap(({ paths }) => paths), heldText);

/** Goes through items in short turns, with time for other things between; those of the newest call alone. */
function ahead<Source, Item>(itemsOf: (source: Source) => readonly Item[], visit: (item: Item) => void): (source: Source) => void {
  let current = 0;
  return (source) => {
    const own = ++current;
    let next = 0;
    let items: readonly Item[] | undefined;
    const goOn = (): void => {
      if (own !== current) return;
      items ??= itemsOf(source);
      for (const end = performance.now() + TURN_MS; next < items.length && performance.now() < end; next++) visit(items[next]);
      if (next < items.length) setTimeout(goOn, REST_MS);
    };
    setTimeout(goOn, REST_MS);
  };
}
