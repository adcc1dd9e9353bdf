import { computed, ref, shallowRef, watch } from 'vue';
import { AppError, asAppError } from '../../core/errors/appError.ts';
import { explain, type Explanation } from '../../core/errors/explain.ts';
import { translation, type Affine } from '../../core/geometry/affine.ts';
import type { Job } from '../../core/job/job.ts';
import { cameraPlaces, readPage, type PageSeen } from '../../core/print/readPage.ts';
import { httpPrinter, type PrinterState, type PrintOrder } from '../../machines/httpPrinter.ts';
import { useBench } from '../../stores/bench.ts';
import { today } from '../shared/today.ts';
import type { useMachine } from './useMachine.ts';
import { say } from '../../core/words/say.ts';

/** Why a page cannot be cut by its marks, and what helps. */
const FAULTS: Readonly<Record<NonNullable<PageSeen['fault']>, Explanation>> = {
  tooFew: { what: say('Fewer than three marks were found.'), todo: say('See to those that are told below, then look for them again.') },
  turned: { what: say('The page lies turned by half.'), todo: say('Lay it with the corner that has the square at the upper left.') },
  other: { what: say('These are not the marks of this page.'), todo: say('Lay in the page that was printed for this job, at its true size.') },
  bent: { what: say('The marks do not lie in one plane.'), todo: say('Press the page flat on the mat, then look for them again.') },
};

/** What is printed first and cut afterwards: the printer, the page in the cutter, and how its marks tell that it lies. */
export function usePrinted(machine: ReturnType<typeof useMachine>) {
  const bench = useBench();
  const printer = httpPrinter('/devices/printer');
  const printerState = shallowRef<PrinterState>();
  const trouble = shallowRef<AppError>();
  const order = ref<PrintOrder>({ paper: 'a4', kind: (bench.job as Job).layout.paper === 'clear' ? 'clear' : 'white', quality: 'photo' });
  const printing = ref(false);
  /** Pages of this job that came out; none after a change of it. */
  const printedPages = ref(0);
  const address = ref<string>();
  /** The page as it came out, to be shown where it lies. */
  const picture = shallowRef<HTMLImageElement>();
  watch(address, (from) => {
    picture.value = undefined;
    if (from === undefined) return;
    const image = new Image();
    image.addEventListener('load', () => {
      if (address.value === from) picture.value = image;
    });
    image.src = from;
  });
  const page = ref(1);
  const laid = ref<number>();
  const seen = shallowRef<PageSeen>();
  const looking = ref(false);
  const print = computed(() => bench.result?.cut?.print);
  const pageCount = computed(() => print.value?.pages.length ?? 0);

  async function safely(work: () => Promise<void>): Promise<void> {
    trouble.value = undefined;
    try {
      await work();
    } catch (error) {
      trouble.value = asAppError(error, 'unexpected');
    }
  }
  void safely(async () => {
    const state = await printer.state();
    printerState.value = state;
    const { widthMm, heightMm } = (bench.job as Job).layout.sheet;
    const fitting = state.papers.find((paper) => paper.widthMm > widthMm - 0.5 && paper.heightMm > heightMm - 0.5);
    if (fitting !== undefined) order.value = { ...order.value, paper: fitting.paper };
  });
  watch(() => bench.job, () => [printedPages.value, laid.value, seen.value] = [0, undefined, undefined]);
  watch(page, () => {
    [laid.value, seen.value] = [undefined, undefined];
    if (printedPages.value > 0) address.value = printer.pageAddress(page.value);
  });

  async function printIt(): Promise<void> {
    const of = bench.ofJob();
    if (of === undefined) return;
    printing.value = true;
    await safely(async () => {
      const [file] = await bench.files({ ...of, kinds: ['pdf'], name: of.job.name, date: today() });
      if (file === undefined) throw new AppError('nothingToCut');
      printerState.value = await printer.print(file.bytes, order.value);
      [printedPages.value, page.value, laid.value, seen.value] = [pageCount.value, Math.min(page.value, pageCount.value), undefined, undefined];
      address.value = printer.pageAddress(page.value);
    });
    printing.value = false;
  }

  /** The page is told to lie with its lower left at the corner of the area. */
  const asTold = (): Affine => translation(0, (machine.state.value?.area.heightMm ?? 0) - (bench.job as Job).layout.sheet.heightMm);

  async function layIn(): Promise<void> {
    seen.value = undefined;
    const done = await machine.order(async () => await machine.port.value.loadPage?.(page.value));
    laid.value = done ? page.value : undefined;
  }

  /** Looks at each mark in turn. */
  async function look(): Promise<void> {
    const area = print.value?.area;
    if (area === undefined) return;
    looking.value = true;
    await machine.order(async () => {
      const views = [];
      for (const { xMm, yMm } of cameraPlaces(area, asTold())) {
        const view = await machine.port.value.look?.(xMm, yMm);
        if (view !== undefined) views.push(view);
      }
      seen.value = readPage(area, views);
    });
    looking.value = false;
  }

  const cutIt = async (): Promise<void> => {
    const toBed = seen.value?.toBed;
    if (toBed !== undefined) await machine.sendPrinted(page.value, toBed);
  };

  return {
    printerState, order, printing, printedPages, address, picture, page, laid, seen, looking, print, pageCount, printIt, layIn, look, cutIt,
    told: computed(() => (trouble.value === undefined ? undefined : explain(trouble.value))),
    /** Why it cannot be cut by what was seen. */
    fault: computed(() => (seen.value?.fault === undefined ? undefined : FAULTS[seen.value.fault])),
  };
}
export type Printed = ReturnType<typeof usePrinted>;
