import type { Places } from '../clean/finds.ts';
import type { Step } from '../clean/recipe.ts';

/** Where a place in the picture comes to lie. */
export type Carry = (x: number, y: number) => [number, number];

/** A step with all its places carried over: points, frames, strokes, corners, and what it leaves alone. */
export function carriedStep(step: Step, carry: Carry): Step {
  switch (step.kind) {
    case 'squaring':
      return step.marks.by === 'corners' ? { ...step, marks: { ...step.marks, corners: carriedPlaces(step.marks.corners, carry) } } : step;
    case 'areaLift':
      return { ...step, at: carriedPlaces([step.at], carry)[0], ...carriedSpared(step, carry) };
    case 'sweep':
      return { ...step, ...carriedSpared(step, carry) };
    case 'gapMending':
      return { ...step, ...carriedSpared(step, carry), ...(step.frame === undefined ? {} : { frame: carriedRect(step.frame, carry) }) };
    case 'crop':
      return { ...step, rect: carriedRect(step.rect, carry) };
    case 'subjectLift':
      return { ...step, strokes: step.strokes.map((stroke) => ({ ...stroke, points: carriedPoints(stroke.points, carry) })) };
    case 'rubOut':
    case 'bringBack':
      return { ...step, strokes: step.strokes.map((stroke) => ({ ...stroke, points: carriedPoints(stroke.points, carry) })) };
    case 'drawIn':
      return { ...step, strokes: step.strokes.map((stroke) => ({ ...stroke, points: carriedPoints(stroke.points, carry) })) };
    default:
      return step;
  }
}

function carriedSpared({ spared }: { spared?: Places | undefined }, carry: Carry): { spared?: { xPx: number; yPx: number }[] } {
  return spared === undefined ? {} : { spared: carriedPlaces(spared, carry) };
}

export function carriedPlaces(places: Places, carry: Carry): { xPx: number; yPx: number }[] {
  return places.map(({ xPx, yPx }) => {
    const [x, y] = carry(xPx, yPx);
    return { xPx: x, yPx: y };
  });
}

function carriedPoints(points: readonly number[], carry: Carry): number[] {
  const out: number[] = [];
  for (let i = 0; i + 1 < points.length; i += 2) out.push(...carry(points[i], points[i + 1]));
  return out;
}

/** The rectangle around the carried one; exact for quarters. */
function carriedRect(
  { xPx, yPx, widthPx, heightPx }: { xPx: number; yPx: number; widthPx: number; heightPx: number },
  carry: Carry,
): { xPx: number; yPx: number; widthPx: number; heightPx: number } {
  const corners = [carry(xPx, yPx), carry(xPx + widthPx, yPx), carry(xPx, yPx + heightPx), carry(xPx + widthPx, yPx + heightPx)];
  const left = Math.min(...corners.map(([x]) => x));
  const top = Math.min(...corners.map(([, y]) => y));
  return { xPx: left, yPx: top, widthPx: Math.max(...corners.map(([x]) => x)) - left, heightPx: Math.max(...corners.map(([, y]) => y)) - top };
}
