import { computed, shallowRef, type Ref } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength } from '../../core/units/parseLength.ts';
import { timeWords } from '../../core/units/timeWords.ts';
import type { SheetPlanView } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import type { Viewport } from '../../ui/viewport.ts';
import { tellError } from '../shared/tellError.ts';
import { useMadeAnew } from '../shared/useMadeAnew.ts';
import { drawKnife, drawWaste, wastePaths } from './drawPlan.ts';
import { usePlay } from './usePlay.ts';
import { decimals, say } from '../../core/words/say.ts';

const WAIT_MS = 150;

/** How the sheet on the table is cut and weeded, to be played; made while one of the two is looked at. */
export function useSheetPlan(view: Ref<'cutting' | 'weeded' | undefined>, sheet: Ref<Sheet | undefined>) {
  const bench = useBench();
  const settings = useSettings();
  const plan = shallowRef<SheetPlanView>();
  useMadeAnew([view, sheet, () => bench.result], () => WAIT_MS, async (isLatest) => {
    const of = bench.ofJob();
    if (view.value === undefined || sheet.value === undefined || of === undefined) return;
    try {
      const made = await bench.sheetPlan({ ...of, filmId: sheet.value.filmId, sheet: sheet.value.number ?? 1 });
      if (isLatest()) plan.value = made;
    } catch (caught) {
      const error = asAppError(caught, 'unexpected');
      if (isLatest() && error.code !== 'cancelled' && error.code !== 'nothingToCut') tellError(error);
    }
  });
  const way = computed(() => plan.value?.way);
  const weeding = computed(() => plan.value?.weeding);
  const cutting = usePlay(computed(() => way.value?.atS[way.value.atS.length - 1] ?? 0));
  // A piece of waste every half second.
  const lifting = usePlay(computed(() => weeding.value?.waste.length ?? 0), () => 2);
  const paths = computed(() => (weeding.value === undefined ? [] : wastePaths(weeding.value)));
  const words = computed(() => {
    if (view.value === 'cutting' && way.value !== undefined) {
      const { cutMm, lifts } = way.value;
      const metres = settings.unit === 'mm' && cutMm >= 1000 ? `${decimals(cutMm / 1000, 1)} m` : formatLength(mm(cutMm), settings.unit);
      return say`about ${timeWords(cutting.end.value)}: ${metres} cut, ${lifts === 1 ? say('1 start') : say`${lifts} starts`}`;
    }
    if (view.value === 'weeded' && weeding.value !== undefined) {
      const { waste, picked, takesS } = weeding.value;
      const hard = waste.filter(({ ease }) => ease === 'hard').length;
      return say`${waste.length === 1 ? say('1 bit of waste') : say`${waste.length} bits of waste`}, ${picked} to pick out, about ${timeWords(takesS)}${hard === 0 ? '' : say`; ${hard} hard`}`;
    }
    return '';
  });
  function draw(context: CanvasRenderingContext2D, at: Viewport, film: string): void {
    if (view.value === 'cutting' && way.value !== undefined) drawKnife(context, at, way.value, cutting.at.value);
    if (view.value === 'weeded' && weeding.value !== undefined) drawWaste(context, at, weeding.value, paths.value, film, Math.round(lifting.at.value));
  }
  const play = computed(() => (view.value === 'cutting' && way.value !== undefined ? cutting : view.value === 'weeded' && weeding.value !== undefined ? lifting : undefined));
  return { play, words, draw, redrawOn: computed(() => [plan.value, cutting.at.value, lifting.at.value]) };
}
