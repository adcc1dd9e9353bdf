import type { Places } from '../clean/finds.ts';
import type { Recipe, Step } from './recipe.ts';

/** A recipe for the same picture with `factor` times as many pixels a side: places, strokes and lengths in picture pixels go along. */
export const scaledRecipe = (recipe: Recipe, factor: number): Step[] => recipe.map((step) => scaled(step, factor));

function scaled(step: Step, factor: number): Step {
  switch (step.kind) {
    case 'squaring':
      return step.marks.by === 'corners' ? { ...step, marks: { ...step.marks, corners: scaledPlaces(step.marks.corners, factor) } } : step;
    case 'crop': {
      const { xPx, yPx, widthPx, heightPx } = step.rect;
      return { ...step, rect: { xPx: xPx * factor, yPx: yPx * factor, widthPx: widthPx * factor, heightPx: heightPx * factor } };
    }
    case 'areaLift':
      return { ...step, at: scaledPlaces([step.at], factor)[0], ...scaledSpared(step.spared, factor), ...(step.guardPx === undefined ? {} : { guardPx: Math.min(500, step.guardPx * factor) }) };
    case 'gapMending':
      return { ...step, widestPx: Math.max(1, Math.min(500, step.widestPx * factor)), ...scaledSpared(step.spared, factor) };
    case 'sweep':
      return { ...step, ...scaledSpared(step.spared, factor) };
    case 'edgeTidying':
      return { ...step, amountPx: Math.max(0.5, Math.min(20, step.amountPx * factor)) };
    case 'subjectLift':
      return { ...step, strokes: step.strokes.map((stroke) => scaledStroke(stroke, factor)), ...(step.rimPx === undefined ? {} : { rimPx: Math.min(300, step.rimPx * factor) }) };
    case 'rubOut':
    case 'bringBack':
      return { ...step, strokes: step.strokes.map((stroke) => scaledStroke(stroke, factor)) };
    default:
      return step;
  }
}

const scaledPlaces = (places: Places, factor: number): { xPx: number; yPx: number }[] => places.map(({ xPx, yPx }) => ({ xPx: xPx * factor, yPx: yPx * factor }));
const scaledSpared = (spared: Places | undefined, factor: number): { spared?: { xPx: number; yPx: number }[] } => (spared === undefined ? {} : { spared: scaledPlaces(spared, factor) });

function scaledStroke<S extends { radiusPx: number; points: number[] }>(stroke: S, factor: number): S {
  return { ...stroke, radiusPx: Math.min(2000, stroke.radiusPx * factor), points: stroke.points.map((value) => value * factor) };
}
