import { computed, type Ref } from 'vue';
import type { Job } from '../../core/job/job.ts';
import { useBench } from '../../stores/bench.ts';
import { useSettings } from '../../stores/settings.ts';
import { backdropPaint } from '../../ui/backdrops.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { strokeCutLine } from '../../ui/draw/cutLines.ts';
import type { DrawScene } from '../../ui/LightTable.vue';
import { toScreenX, toScreenY, type Box, type Size, type Viewport } from '../../ui/viewport.ts';
import { drawClear, drawCut, drawPlaced, onSide } from '../shared/pictureScene.ts';
import { useFilmPaths } from '../shared/useFilmPaths.ts';
import type { useSharpPatch } from '../shared/useSharpPatch.ts';
import { drawNodes } from '../shared/nodes/drawNodes.ts';
import { LineLayer } from '../shared/nodes/LineLayer.ts';
import type { NodeEditing } from '../shared/nodes/useNodeEditing.ts';
import type { useProof } from './useProof.ts';
import type { useVariant } from './useVariant.ts';
import { say } from '../../core/words/say.ts';

/** How the art and its films are looked at. */
export const VIEWS = [{ value: 'cut', name: say('art | cut') }, { value: 'over', name: say('lines over art') }, { value: 'nodes', name: say('nodes') }, { value: 'proof', name: say('proof') }, { value: 'two', name: say('two variants') }] as const;
export type View = (typeof VIEWS)[number]['value'];

interface Parts {
  readonly view: Ref<View>;
  readonly divider: Ref<number>;
  readonly patch: ReturnType<typeof useSharpPatch>['patch'];
  readonly proof: ReturnType<typeof useProof>['proof'];
  readonly variants: ReturnType<typeof useVariant>;
  readonly nodes: NodeEditing;
  /** A frame that is being drawn around areas. */
  readonly frame: Ref<Box | undefined>;
}

/** What the light table of Separate shows. */
export function useSeparateScene({ view, divider, patch, proof, variants, nodes, frame }: Parts) {
  const bench = useBench();
  const settings = useSettings();
  const { shown, paths, colours } = useFilmPaths();
  const paint = computed(() => backdropPaint(settings.backdrop, (bench.job as Job).blank.colour, colours.value, settings.isDark));
  const box = computed<Box>(() => {
    const clean = bench.result?.clean;
    if (clean === undefined) return { x: 0, y: 0, width: bench.picture?.widthPx ?? 100, height: bench.picture?.heightPx ?? 100 };
    const { leftPx, topPx, scale } = clean.frame;
    return { x: leftPx, y: topPx, width: Math.round(clean.widthPx / scale), height: Math.round(clean.heightPx / scale) };
  });
  const others = computed(() => (variants.view.value?.films ?? []).map(({ film, outline }) => ({ colour: film.colour, path: pathFromCurves(outline) })));

  const layer = new LineLayer();
  const draw: DrawScene = (context, at, size) => {
    drawClear(context, at, box.value, paint.value);
    scenes[view.value](context, at, size);
    if (frame.value !== undefined) drawFrame(context, at, frame.value);
  };
  type Draw = (context: CanvasRenderingContext2D, at: Viewport, size: Size) => void;
  const art = (context: CanvasRenderingContext2D, at: Viewport): void => {
    if (bench.cleanView !== undefined) drawPlaced(context, at, { pixels: bench.cleanView.pixels, box: box.value });
    if (patch.value !== undefined) drawPlaced(context, at, patch.value);
  };
  const films = (context: CanvasRenderingContext2D, at: Viewport, list: readonly { readonly path: Path2D; readonly colour: string }[]): void => list.forEach(({ path, colour }) => drawCut(context, at, path, colour));
  const sides = (context: CanvasRenderingContext2D, size: Size, left: () => void, right: () => void): void => {
    const x = divider.value * size.width;
    onSide(context, size, 0, x, left);
    onSide(context, size, x, size.width, right);
  };
  const scenes: Readonly<Record<View, Draw>> = {
    cut: (context, at, size) => sides(context, size, () => art(context, at), () => films(context, at, paths.value)),
    over: (context, at) => {
      art(context, at);
      for (const { path } of paths.value) strokeCutLine(context, path, at);
    },
    nodes: (context, at, size) => {
      art(context, at);
      drawNodes(context, at, { films: nodes.films.value, chosen: nodes.refs.value, side: nodes.side.value, frame: nodes.frame.value, layer }, size);
    },
    proof: (context, at, size) => {
      const made = proof.value;
      sides(context, size, () => (made === undefined ? art(context, at) : drawPlaced(context, at, { pixels: made.composed, box: box.value })), () => {
        context.globalAlpha = 0.25;
        art(context, at);
        context.globalAlpha = 1;
        if (made !== undefined) drawPlaced(context, at, { pixels: made.difference, box: box.value });
      });
    },
    two: (context, at, size) => sides(context, size, () => films(context, at, paths.value), () => films(context, at, others.value)),
  };
  const redrawOn = computed(() => [bench.result, bench.cleanView, patch.value, paint.value, shown.value, view.value, divider.value, proof.value, others.value, frame.value, nodes.films.value, nodes.refs.value, nodes.side.value, nodes.frame.value]);
  return { box, draw, redrawOn };
}

function drawFrame(context: CanvasRenderingContext2D, at: Viewport, { x, y, width, height }: Box): void {
  context.save();
  context.strokeStyle = '#9e2f4b';
  context.lineWidth = 1.4;
  context.setLineDash([4, 3]);
  context.strokeRect(toScreenX(at, x), toScreenY(at, y), width * at.scale, height * at.scale);
  context.restore();
}
