import { computed, ref, shallowRef, watch } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { drawPins } from '../../ui/draw/pins.ts';
import { StillLayer } from '../../ui/draw/stillLayer.ts';
import type { DrawScene } from '../../ui/LightTable.vue';
import { toScreenX, toScreenY, type Box, type Size, type Viewport } from '../../ui/viewport.ts';
import { drawClear, drawCut, drawPlaced, onSide, type Placed } from '../shared/pictureScene.ts';
import { useFilmPaths } from '../shared/useFilmPaths.ts';
import { useSharpPatch } from '../shared/useSharpPatch.ts';
import { drawBrushRim, drawCorners, drawCropFrame, drawFrame, drawLasso, drawLiftLayer, drawPull, drawStroke } from './cleanScene.ts';
import type { useCleanTools } from './useCleanTools.ts';
import { liftLayer } from './useLiftPull.ts';
import type { useMoments } from './useMoments.ts';
import type { usePlaces } from './usePlaces.ts';

export type CleanViewName = 'cut' | 'before' | 'one' | 'removed';

const CLEARS = 'rgb(158 47 75 / 45%)';
const KEEPS = 'rgb(47 93 138 / 45%)';

/** What the table of Clean shows: the picture, the art and the cut beside each other as the view says, and over them the tool at work and the pins. */
export function useCleanScene(tools: ReturnType<typeof useCleanTools>, places: ReturnType<typeof usePlaces>, moments: ReturnType<typeof useMoments>) {
  const bench = useBench();
  const settings = useSettings();
  const sharpPicture = useSharpPatch('base');
  const sharpClean = useSharpPatch('clean');

  const view = ref<CleanViewName>('cut');
  const divider = ref(0.5);
  const swapped = ref(false);
  const tableView = shallowRef<{ view: Viewport; size: Size }>({ view: { scale: 1, x: 0, y: 0 }, size: { width: 1, height: 1 } });

  const baseBox = computed<Box>(() => ({ x: 0, y: 0, width: bench.base?.widthPx ?? 100, height: bench.base?.heightPx ?? 100 }));
  const box = computed<Box>(() => (tools.corners.active.value && tools.corners.photo.value !== undefined ? tools.corners.photo.value.box : baseBox.value));
  const films = useFilmPaths();
  const paint = computed(() => backdropPaint(settings.backdrop, (bench.job as Job).blank.colour, films.colours.value, settings.isDark));
  const cleanBox = computed<Box>(() => {
    const clean = bench.result?.clean;
    if (clean === undefined) return baseBox.value;
    const { leftPx, topPx, scale } = clean.frame;
    return { x: leftPx, y: topPx, width: clean.widthPx / scale, height: clean.heightPx / scale };
  });
  watch(view, (now) => (moments.wantsRemoved.value = now === 'removed'));
  watch(moments.showsRemoved, (can) => {
    if (!can && view.value === 'removed') view.value = 'cut';
  });

  const layer = document.createElement('canvas');
  watch([tools.pull.reach, tools.pull.tolerance], ([reach, tolerance]) => {
    if (reach !== undefined && tolerance !== undefined) liftLayer(reach, tolerance, layer);
  });

  const drawPicture: DrawScene = (context, at) => {
    const { base: picture } = bench;
    if (picture === undefined) return;
    drawClear(context, at, baseBox.value, paint.value);
    drawPlaced(context, at, { pixels: picture.view, box: baseBox.value });
    if (sharpPicture.patch.value !== undefined) drawPlaced(context, at, sharpPicture.patch.value);
  };
  const drawAfter: DrawScene = (context, at) => {
    drawClear(context, at, cleanBox.value, paint.value);
    if (bench.cleanView !== undefined) drawPlaced(context, at, { pixels: bench.cleanView.pixels, box: cleanBox.value });
    if (sharpClean.patch.value !== undefined && bench.result?.clean.key === bench.cleanView?.key) drawPlaced(context, at, sharpClean.patch.value);
  };
  const drawCutSide: DrawScene = (context, at) => {
    drawClear(context, at, cleanBox.value, paint.value);
    for (const { path, colour } of films.paths.value) drawCut(context, at, path, colour);
  };
  const drawMoment = (placed: Placed): DrawScene => (context, at) => {
    drawClear(context, at, placed.box, paint.value);
    drawPlaced(context, at, placed);
  };
  const sideOf = (moment: string, art: Placed | undefined): DrawScene => (moment === 'came' ? drawPicture : art === undefined || moment === 'now' ? drawAfter : drawMoment(art));

  function sides(): readonly [DrawScene, DrawScene] {
    if (view.value === 'cut') return [drawPicture, drawCutSide];
    if (view.value === 'removed') return [drawAfter, moments.removed.value === undefined ? drawAfter : drawMoment(moments.removed.value)];
    return [sideOf(moments.left.value, moments.leftArt.value), sideOf(moments.right.value, moments.rightArt.value)];
  }
  /** The photo whose corners are set, instead of the flat picture that they lead to. */
  function drawPhoto(context: CanvasRenderingContext2D, at: Viewport): void {
    if (tools.corners.photo.value !== undefined) drawPlaced(context, at, tools.corners.photo.value);
    drawCorners(context, at, tools.corners.corners.value, tools.corners.held.value);
  }
  const still = new StillLayer();
  const stillOn = computed(() => [
    bench.base, bench.result, bench.cleanView, paint.value, films.shown.value, view.value, divider.value, swapped.value, sharpPicture.patch.value, sharpClean.patch.value,
    moments.left.value, moments.right.value, moments.leftArt.value, moments.rightArt.value, moments.removed.value,
  ]);
  const draw: DrawScene = (context, at, size) => {
    if (tools.corners.active.value) {
      drawPhoto(context, at);
      return;
    }
    still.draw(context, [at.scale, at.x, at.y, ...stillOn.value], (layerContext) => drawStill(layerContext, at, size));
    drawTool(context, at);
    drawPins(context, at, places.places.value, places.chosen.value);
  };
  /** The scene without tool and pins, which follow the pointer. */
  function drawStill(context: CanvasRenderingContext2D, at: Viewport, size: Size): void {
    if (view.value === 'one') {
      (swapped.value ? drawPicture : drawAfter)(context, at, size);
      return;
    }
    const [first, second] = sides();
    const [left, right] = swapped.value ? [second, first] : [first, second];
    const x = divider.value * size.width;
    onSide(context, size, 0, x, () => left(context, at, size));
    onSide(context, size, x, size.width, () => right(context, at, size));
  }

  const clears = computed(() => tools.tool.value === 'rubOut' || (tools.tool.value === 'subjectLift' && tools.brush.says.value === 'clear'));
  function drawTool(context: CanvasRenderingContext2D, at: Viewport): void {
    const { pull, brush, step, isBrush } = tools;
    if (pull.reach.value !== undefined) drawLiftLayer(context, at, layer, pull.reach.value);
    if (pull.start.value !== undefined && pull.end.value !== undefined) drawPull(context, pull.start.value, pull.end.value);
    if (brush.stroke.value !== undefined && brush.lasso.value && tools.tool.value === 'subjectLift') drawLasso(context, at, brush.stroke.value, clears.value ? CLEARS : KEEPS);
    else if (brush.stroke.value !== undefined) drawStroke(context, at, brush.stroke.value, tools.tool.value === 'drawIn' ? brush.colour.value : clears.value ? CLEARS : KEEPS);
    if (step.value?.kind === 'subjectLift') for (const stroke of step.value.strokes) (stroke.lasso === true ? drawLasso : drawStroke)(context, at, stroke, stroke.says === 'clear' ? CLEARS : KEEPS);
    if (isBrush.value && brush.at.value !== undefined) drawBrushRim(context, toScreenX(at, brush.at.value.x), toScreenY(at, brush.at.value.y), brush.radiusPx.value * at.scale);
    if (step.value?.kind === 'crop' && bench.base !== undefined) drawCropFrame(context, at, step.value.rect, bench.base);
    const frame = tools.frame.value ?? (step.value?.kind === 'gapMending' ? step.value.frame : undefined);
    if (frame !== undefined) drawFrame(context, at, frame);
    if (tools.level.value !== undefined) drawPull(context, tools.level.value.from, tools.level.value.to);
    if (step.value?.kind === 'areaLift' && pull.start.value === undefined) {
      const point = { screenX: toScreenX(at, step.value.at.xPx), screenY: toScreenY(at, step.value.at.yPx) };
      drawPull(context, point, point);
    }
  }
  const redrawOn = computed(() => [
    stillOn.value, tools.level.value, tools.frame.value, tools.brush.colour.value, tools.pull.reach.value, tools.pull.end.value, tools.brush.stroke.value, tools.brush.at.value, tools.brush.radiusPx.value, tools.step.value, tools.tool.value,
    tools.corners.active.value, tools.corners.photo.value, tools.corners.corners.value, tools.corners.held.value, places.places.value, places.chosen.value,
  ]);

  function look(at: Viewport, size: Size): void {
    tableView.value = { view: at, size };
    sharpPicture.look(at, size);
    sharpClean.look(at, size);
  }
  watch(() => bench.result, () => sharpClean.look(tableView.value.view, tableView.value.size));
  return { view, divider, swapped, tableView, box, draw, redrawOn, look };
}
