import { computed } from 'vue';
import type { Job } from '../../core/job/job.ts';
import type { Layout } from '../../core/layout/layout.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';

/** How the cards of the layout change it: shown while something is dragged, kept once it is let go. */
export function useLayoutEdits() {
  const bench = useBench();
  const settings = useSettings();
  const job = computed(() => bench.job as Job);
  const layout = computed(() => job.value.layout);
  const withLayout = (change: Partial<Layout>): Job => ({ ...job.value, layout: { ...layout.value, ...change } });
  const drag = (change: Partial<Layout>): void => bench.preview(withLayout(change));
  function set(label: string, change: Partial<Layout>): void {
    drag(change);
    bench.commitPreview(label);
  }
  const length = (value: number): string => formatLength(mm(value), settings.unit);
  return { job, layout, drag, set, cancel: bench.revert, commit: bench.commit, unit: computed(() => settings.unit), length };
}
