import { MAX_GUARD_PX } from '../clean/steps/areaLift.ts';
import { MAX_TIDY_PX } from '../clean/steps/edgeTidying.ts';
import { MAX_BRUSH_PX } from '../clean/steps/strokes.ts';
import { MAX_RIM_PX } from '../clean/steps/subjectLift.ts';
import { carriedStep } from './carriedStep.ts';
import type { Recipe, Step } from '../clean/recipe.ts';

/**
 * A recipe for the same picture with `factor` times as many pixels a side: places, strokes and lengths in picture pixels go along, as far as the steps take
 * them.
 */
export const scaledRecipe = (recipe: Recipe, factor: number): Step[] =>
  recipe.map((step) =>
    withLengths(
      carriedStep(step, (x, y) => [x * factor, y * factor]),
      factor,
    ),
  );

/** The step with its lengths in picture pixels scaled. */
function withLengths(step: Step, factor: number): Step {
  const scaled = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value * factor));
  const wider = <S extends { radiusPx: number }>(strokes: readonly S[]): S[] =>
    strokes.map((stroke) => ({ ...stroke, radiusPx: scaled(stroke.radiusPx, 0, MAX_BRUSH_PX) }));
  switch (step.kind) {
    case 'areaLift':
      return step.guardPx === undefined ? step : { ...step, guardPx: scaled(step.guardPx, 0, MAX_GUARD_PX) };
    case 'gapMending':
      return { ...step, widestPx: scaled(step.widestPx, 1, 500) };
    case 'edgeTidying':
      return { ...step, amountPx: scaled(step.amountPx, 0.5, MAX_TIDY_PX) };
    case 'subjectLift':
      return { ...step, strokes: wider(step.strokes), ...(step.rimPx === undefined ? {} : { rimPx: scaled(step.rimPx, 0, MAX_RIM_PX) }) };
    case 'rubOut':
    case 'bringBack':
      return { ...step, strokes: wider(step.strokes) };
    case 'drawIn':
      return { ...step, strokes: wider(step.strokes) };
    default:
      return step;
  }
}
