import { computed, markRaw, shallowRef } from 'vue';
import { MAX_TOLERANCE } from '../../core/clean/steps/areaLift.ts';
import { levelFromTolerance } from '../../core/clean/liftMask.ts';
import { asAppError } from '../../core/errors/appError.ts';
import type { Recipe } from '../../core/clean/recipe.ts';
import type { ReachView } from '../../engine/protocol.ts';
import { useBench } from '../../stores/bench.ts';
import type { TablePoint } from '../../ui/useTableView.ts';
import { tellError } from '../shared/tellError.ts';

/** Screen px that one unit of tolerance is worth while pulling. */
const PX_PER_UNIT = 14;
/** Shorter pulls are clicks: the tolerance finds itself. */
const CLICK_PX = 5;

/**
 * Press and pull for an area lift. States: idle; waiting (pressed, the engine computes how far each tolerance goes); pulling (the area under the
 * present tolerance is shown). Released, it gives the tolerance; Escape leaves.
 */
export function useLiftPull() {
  const bench = useBench();
  const start = shallowRef<TablePoint>();
  const end = shallowRef<TablePoint>();
  const reach = shallowRef<ReachView>();

  const pulledPx = computed(() => (start.value === undefined || end.value === undefined ? 0 : Math.hypot(end.value.screenX - start.value.screenX, end.value.screenY - start.value.screenY)));
  const isClick = computed(() => pulledPx.value < CLICK_PX);
  const tolerance = computed(() => (isClick.value ? reach.value?.tolerance : Math.min(MAX_TOLERANCE, Math.round((pulledPx.value / PX_PER_UNIT) * 10) / 10)));

  async function begin(recipe: Recipe, point: TablePoint): Promise<void> {
    const of = bench.ofJob();
    const { picture } = bench;
    if (of === undefined || picture === undefined || point.x < 0 || point.y < 0 || point.x >= picture.widthPx || point.y >= picture.heightPx) return;
    start.value = end.value = point;
    reach.value = undefined;
    try {
      const found = await bench.reach({ ...of, recipe, at: { xPx: point.x, yPx: point.y } });
      if (start.value === point) reach.value = markRaw(found);
    } catch (error) {
      leave();
      tellError(asAppError(error, 'unexpected'));
    }
  }
  function pull(point: TablePoint): void {
    if (start.value !== undefined) end.value = point;
  }
  /** Ends the pull. Gives where it began and the tolerance, `auto` for a plain click. */
  function release(): { xPx: number; yPx: number; tolerance: 'auto' | number } | undefined {
    const from = start.value;
    if (from === undefined) return undefined;
    const outcome = { xPx: from.x, yPx: from.y, tolerance: isClick.value ? ('auto' as const) : (tolerance.value ?? 0) };
    leave();
    return outcome;
  }
  function leave(): void {
    start.value = end.value = undefined;
    reach.value = undefined;
  }
  return { start, end, reach, tolerance, begin, pull, release, leave };
}

/** The area that a lift takes at a tolerance, as a tinted layer of the size of the reduced picture. */
export function liftLayer(reach: ReachView, tolerance: number, canvas: HTMLCanvasElement): void {
  canvas.width = reach.width;
  canvas.height = reach.height;
  const context = canvas.getContext('2d');
  if (context === null) return;
  const image = context.createImageData(reach.width, reach.height);
  const words = new Uint32Array(image.data.buffer);
  const limit = levelFromTolerance(tolerance);
  const { levels } = reach;
  // Madder at about half strength, in the byte order of canvas pixels.
  for (let i = 0; i < words.length; i++) if (levels[i] <= limit) words[i] = 0x8c4b2f9e;
  context.putImageData(image, 0, 0);
}
