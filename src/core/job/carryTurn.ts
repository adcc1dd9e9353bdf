import type { Places } from '../clean/finds.ts';
import type { TurnStep } from '../clean/steps/turn.ts';
import { turnedPoint, unturnedPoint, type Turn } from '../raster/turn.ts';
import { STEP_KINDS, type Recipe, type Step } from './recipe.ts';

const STRAIGHT: Turn = { mirrored: false, quarters: 0, angleDeg: 0 };

/** What a turn step does while it is switched on. */
export const turnOf = (step: TurnStep | undefined): Turn => (step === undefined || !step.enabled ? STRAIGHT : step);

/** Steps after whose result places are counted anew stand first, in their own order, so that all other places mean the same picture. */
export function basesFirst(recipe: Recipe): Step[] {
  const isBase = (step: Step): boolean => STEP_KINDS[step.kind].isBase === true;
  return [...recipe.filter(isBase), ...recipe.filter((step) => !isBase(step))];
}

/**
 * Carries places in the picture over when it is turned another way, so that strokes and points stay on what they were put on.
 * @param steps those after the turn. @param widthPx size of the picture before the turn.
 */
export function carryTurn(steps: Recipe, before: Turn, after: Turn, widthPx: number, heightPx: number): Step[] {
  const carry = (x: number, y: number): [number, number] => {
    const [ux, uy] = unturnedPoint(before, widthPx, heightPx, x, y);
    return turnedPoint(after, widthPx, heightPx, ux, uy);
  };
  return steps.map((step) => carried(step, carry));
}

/** The recipe with a turn changed and everything after it carried over. @param size of the picture before the turn. */
export function turnedAnew(recipe: Recipe, id: string, next: TurnStep | undefined, { widthPx, heightPx }: { widthPx: number; heightPx: number }): Step[] {
  const at = recipe.findIndex((step) => step.id === id);
  const current = recipe[at];
  if (current?.kind !== 'turn') return [...recipe];
  return [...recipe.slice(0, at), ...(next === undefined ? [] : [next]), ...carryTurn(recipe.slice(at + 1), turnOf(current), turnOf(next), widthPx, heightPx)];
}

type Carry = (x: number, y: number) => [number, number];

function carried(step: Step, carry: Carry): Step {
  switch (step.kind) {
    case 'areaLift': {
      const [xPx, yPx] = carry(step.at.xPx, step.at.yPx);
      return { ...step, at: { xPx, yPx }, ...carriedSpared(step, carry) };
    }
    case 'sweep':
    case 'gapMending':
      return { ...step, ...carriedSpared(step, carry) };
    case 'crop':
      return { ...step, rect: carriedRect(step.rect, carry) };
    case 'subjectLift':
      return { ...step, strokes: step.strokes.map((stroke) => ({ ...stroke, points: carriedPoints(stroke.points, carry) })) };
    case 'rubOut':
    case 'bringBack':
      return { ...step, strokes: step.strokes.map((stroke) => ({ ...stroke, points: carriedPoints(stroke.points, carry) })) };
    default:
      return step;
  }
}

function carriedSpared({ spared }: { spared?: Places | undefined }, carry: Carry): { spared?: { xPx: number; yPx: number }[] } {
  if (spared === undefined) return {};
  return {
    spared: spared.map(({ xPx, yPx }) => {
      const [x, y] = carry(xPx, yPx);
      return { xPx: x, yPx: y };
    }),
  };
}

function carriedPoints(points: readonly number[], carry: Carry): number[] {
  const out: number[] = [];
  for (let i = 0; i + 1 < points.length; i += 2) out.push(...carry(points[i], points[i + 1]));
  return out;
}

/** The rectangle around the carried one; exact for quarters. */
function carriedRect({ xPx, yPx, widthPx, heightPx }: { xPx: number; yPx: number; widthPx: number; heightPx: number }, carry: Carry): { xPx: number; yPx: number; widthPx: number; heightPx: number } {
  const corners = [carry(xPx, yPx), carry(xPx + widthPx, yPx), carry(xPx, yPx + heightPx), carry(xPx + widthPx, yPx + heightPx)];
  const left = Math.min(...corners.map(([x]) => x));
  const top = Math.min(...corners.map(([, y]) => y));
  return { xPx: left, yPx: top, widthPx: Math.max(...corners.map(([x]) => x)) - left, heightPx: Math.max(...corners.map(([, y]) => y)) - top };
}
