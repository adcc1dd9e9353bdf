import { computed, type Ref } from 'vue';
import type { Job } from '../../core/job/job.ts';
import type { Layout } from '../../core/layout/layout.ts';
import { isByItself, layoutFor, withFilmByItself, withLayoutOf } from '../../core/layout/layoutFor.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useRack } from '../../stores/rack.ts';
import { useSettings } from '../../stores/settings.ts';

/**
 * How the cards of the layout change it: shown while something is dragged, kept once it is let go. What a film has for itself is shown and changed where that
 * film is the one on the table.
 * @param filmId another film than that on the table.
 */
export function useLayoutEdits(filmId?: Ref<string | undefined>) {
  const bench = useBench();
  const rack = useRack();
  const settings = useSettings();
  const job = computed(() => bench.job as Job);
  // Of what is printed all films are on one page.
  const ofFilm = computed(() => (PROCESSES[job.value.process].isPrinted ? '' : ((filmId === undefined ? rack.roll?.film.id : filmId.value) ?? '')));
  const layout = computed(() => layoutFor(job.value.layout, ofFilm.value));
  const byItself = computed(() => isByItself(job.value.layout, ofFilm.value));
  const withLayout = (change: Partial<Layout>): Job => ({ ...job.value, layout: withLayoutOf(job.value.layout, ofFilm.value, change) });
  const drag = (change: Partial<Layout>): void => bench.preview(withLayout(change));
  function set(label: string, change: Partial<Layout>): void {
    drag(change);
    bench.commitPreview(label);
  }
  const setByItself = (label: string, on: boolean): void => bench.commit(label, { ...job.value, layout: withFilmByItself(job.value.layout, ofFilm.value, on) });
  const length = (value: number): string => formatLength(mm(value), settings.unit);
  return { job, layout, byItself, drag, set, setByItself, cancel: bench.revert, commit: bench.commit, unit: computed(() => settings.unit), length };
}
