import { computed, ref, shallowRef } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import type { PrintsView } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { canvasOf } from '../shared/bitmaps.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { tellError } from '../shared/tellError.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { PagePaint } from './drawPages.ts';

/** Changes that follow each other are drawn once, ms after the last. */
const WAIT_MS = 200;

/** The pages of a job that is printed: what lies on them, with the art as it will be printed. */
export function usePrint() {
  const bench = useBench();
  const job = computed(() => bench.job as Job);
  const isPrinted = computed(() => PROCESSES[job.value.process].isPrinted);
  const pages = computed(() => bench.result?.cut?.print);
  const prints = shallowRef<PrintsView>();
  /** Which page is on the table, from 0. */
  const at = ref(0);
  const shownAt = computed(() => Math.min(at.value, Math.max(0, (pages.value?.pages.length ?? 1) - 1)));
  /** What lies behind the ink: the paper, or the blank's own colour. */
  const behind = ref<'paper' | 'blank'>('paper');

  useMadeAnew([isPrinted, () => bench.result], () => WAIT_MS, async (isLatest) => {
    const of = bench.ofJob();
    if (!isPrinted.value || of === undefined || pages.value === undefined) return;
    try {
      const made = await bench.prints(of);
      if (isLatest()) prints.value = made;
    } catch (caught) {
      const error = asAppError(caught, 'unexpected');
      // What is wrong with the picture is told by the run.
      if (isLatest() && error.code !== 'cancelled' && error.code !== 'nothingToCut') tellError(error);
    }
  });

  const paint = computed((): PagePaint => {
    const { layout, blank } = job.value;
    const cut = bench.result?.cut;
    const colours = new Map(cut?.rack.map(({ film }) => [film.id, film.colour]));
    const pictures = new Map(prints.value?.pictures.map(({ id, picture, toDesign, below }) => [id, { canvas: canvasOf(picture), toDesign, below }]));
    return { paper: layout.paper ?? 'clear', behind: behind.value, blank: blank.colour, pictures, parts: cut?.bent?.parts ?? cut?.parts ?? [], slits: pages.value?.hasMarks === true ? cut?.sheets[shownAt.value]?.weedLines : undefined, colourOf: (film) => colours.get(film) ?? '#241b2f' };
  });
  const count = computed(() => pages.value?.pages.reduce((sum, placements) => sum + placements.length, 0) ?? 0);
  return { isPrinted, pages, paint, at: shownAt, behind, count, warnings: computed(() => prints.value?.warnings ?? []), isReady: computed(() => prints.value !== undefined), show: (page: number) => (at.value = page) };
}
