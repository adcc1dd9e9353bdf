import type { KnifeWay } from '../../core/layout/knifeWay.ts';
import type { WastePiece, WeedingPlan } from '../../core/layout/wasteRegions.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { fillPath } from '../../ui/draw/cutLines.ts';
import { drawNumbers } from '../../ui/draw/numbers.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

type Context = CanvasRenderingContext2D;

const MADDER = '#9e2f4b';
const WOAD = '#2f5d8a';
/** How hard waste lifts, as a tint over the film. */
const TINTS: Readonly<Record<WastePiece['ease'], string>> = { easy: '#ffffff2e', care: '#b9751a66', hard: '#9e2f4b80' };
/** Waste that is smaller on screen gets no number, CSS px². */
const LEAST_NUMBERED_PX2 = 220;

/** The way of the tool as far as it has come: what is cut strongly, where it only moves thin, and the tool itself. */
export function drawKnife(context: Context, view: Viewport, { points, does, roles, atS }: KnifeWay, now: number): void {
  context.save();
  context.lineCap = 'round';
  context.lineJoin = 'round';
  const at = (k: number): [number, number] => [toScreenX(view, points[2 * k]), toScreenY(view, points[2 * k + 1])];
  let done = 1;
  while (done < atS.length && atS[done] <= now) done++;
  // Runs of one kind as one stroke.
  for (let from = 1; from < done;) {
    let to = from;
    while (to < done && does[to] === does[from]) to++;
    context.beginPath();
    context.moveTo(...at(from - 1));
    for (let k = from; k < to; k++) context.lineTo(...at(k));
    const isMove = does[from] === 0;
    context.setLineDash(isMove ? [2, 5] : []);
    context.strokeStyle = isMove || roles[does[from] - 1] === 'mark' ? WOAD : MADDER;
    context.lineWidth = isMove ? 1 : 2.2;
    context.stroke();
    from = to;
  }
  const [x, y] = toolAt(points, atS, done, now);
  const [sx, sy] = [toScreenX(view, x), toScreenY(view, y)];
  context.setLineDash([]);
  context.fillStyle = '#fffdf8';
  context.strokeStyle = MADDER;
  context.lineWidth = 2;
  context.beginPath();
  context.arc(sx, sy, 6, 0, 2 * Math.PI);
  context.fill();
  context.stroke();
  context.restore();
}

/** Between the last place that it has passed and the next one. */
function toolAt(points: Float64Array, atS: Float64Array, next: number, now: number): [number, number] {
  const [a, b] = [next - 1, Math.min(next, atS.length - 1)];
  const share = atS[b] > atS[a] ? Math.min(1, (now - atS[a]) / (atS[b] - atS[a])) : 0;
  return [points[2 * a] + share * (points[2 * b] - points[2 * a]), points[2 * a + 1] + share * (points[2 * b + 1] - points[2 * a + 1])];
}

/** The waste that still lies, numbered in the order in which it is lifted, and tinted by how hard that is. */
export function drawWaste(context: Context, view: Viewport, { waste }: WeedingPlan, paths: readonly Path2D[], film: string, lifted: number): void {
  context.save();
  for (let k = lifted; k < waste.length; k++) {
    fillPath(context, paths[k], view, film);
    fillPath(context, paths[k], view, TINTS[waste[k].ease]);
  }
  context.restore();
  const left = waste.map((each, k) => ({ x: each.xMm, y: each.yMm, words: String(k + 1), areaMm2: each.areaMm2 })).slice(lifted);
  drawNumbers(context, view, left.filter(({ areaMm2 }) => areaMm2 * view.scale ** 2 >= LEAST_NUMBERED_PX2));
}

export const wastePaths = ({ waste }: WeedingPlan): Path2D[] => waste.map(({ curves }) => pathFromCurves(curves));
