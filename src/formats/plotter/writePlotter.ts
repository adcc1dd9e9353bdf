import { holderStrokes } from '../../core/layout/bladeOffset.ts';
import type { CutPlan } from '../../core/layout/cutPlan.ts';
import { toolStrokes, type ToolStroke } from '../../core/layout/toolStrokes.ts';
import type { CutSettings } from '../../core/process/material.ts';

/** Steps of the language when nothing is scaled, mm. */
export const PLOTTER_STEP_MM = 0.025;
/** Steps of a file that scales them: a thousandth of a mm. */
export const FINE_STEP_MM = 0.001;

/** What is cut goes with the first tool, what is drawn with the second. */
export const KNIFE_TOOL = 1;
export const PEN_TOOL = 2;

export interface PlotterSettings {
  /** Scales the steps to a thousandth of a mm, for machines that know the instructions for it; a fortieth when absent, which all know. */
  readonly fine?: boolean | undefined;
  /** Each place is told from the one before it instead of from the corner. */
  readonly relative?: boolean | undefined;
  /** Tool, speed and force are told; they are set at the machine when absent. */
  readonly cut?: Pick<CutSettings, 'tool' | 'forceG' | 'speedMmS'> | undefined;
  /** Strokes that were done already: they are left out. */
  readonly done?: number | undefined;
  /** Passes, overcut and blade offset are in the path; the machine sees to them when absent. */
  readonly compensated?: Pick<CutSettings, 'tool' | 'passes' | 'overcutMm' | 'bladeOffsetMm'> | undefined;
}

/**
 * How far chords between places of the grid lie from the curve, mm. Rounding both ends of a chord of length c to a grid of step q makes it longer by q²/12c on average, being a chord makes an arc of radius r shorter by c³/24r²:
 * they are alike for c⁴ = 2q²r², where the chord lies c²/8r = q √2 / 8 within the arc, whatever its radius.
 */
const chordFor = (stepMm: number): number => (stepMm * Math.SQRT2) / 8;
/** Curves are followed so much closer than that before the places are chosen. */
const CLOSER = 8;

/** Places in one instruction: what old machines hold. */
const MOST_PLACES = 120;

/**
 * A sheet in plotter language (HP-GL, Hewlett-Packard, "Interfacing and Programming Manual" of the 7475A): strokes in the order of the plan, y up from the lower left of the sheet.
 * Curves are chords within a hundredth of a mm.
 */
export function writePlotter(plan: CutPlan, { fine = false, relative = false, cut, compensated, done = 0 }: PlotterSettings = {}): string {
  const stepMm = fine ? FINE_STEP_MM : PLOTTER_STEP_MM;
  const strokes = toolStrokes(plan, { chordMm: chordFor(stepMm) / CLOSER, ...(compensated === undefined ? { tool: cut?.tool ?? 'knife' } : compensated) });
  const trails = compensated !== undefined && compensated.tool === 'knife';
  const all = trails ? compensatedStrokes(strokes, compensated.bladeOffsetMm) : strokes;
  const lines = ['IN;', ...(fine ? ['IP0,0,4000,4000;SC0,100000,0,100000;'] : []), 'PA;'];
  let tool = 0;
  let at = { x: 0, y: 0 };
  for (const { role, points } of all.slice(done)) {
    const wanted = role === 'mark' || cut?.tool === 'pen' ? PEN_TOOL : KNIFE_TOOL;
    if (wanted !== tool) {
      lines.push(`SP${wanted};`);
      if (cut !== undefined) lines.push(`VS${Math.round(cut.speedMmS / 10)};`, ...(wanted === KNIFE_TOOL ? [`FS${Math.round(cut.forceG)};`] : []));
      tool = wanted;
    }
    const places = onGrid(fewerPlaces(points, chordFor(stepMm)), plan.heightMm, stepMm);
    if (relative) lines.push(`PR;PU${places[0].x - at.x},${places[0].y - at.y};`);
    else lines.push(`PU${places[0].x},${places[0].y};`);
    for (let k = 1; k < places.length; k += MOST_PLACES) {
      const part = places.slice(k, k + MOST_PLACES);
      lines.push(`PD${part.map(({ x, y }, i) => (relative ? `${x - (part[i - 1] ?? places[k - 1]).x},${y - (part[i - 1] ?? places[k - 1]).y}` : `${x},${y}`)).join(',')};`);
    }
    at = places[places.length - 1];
  }
  lines.push('PU;', 'PA;', 'PU0,0;', 'SP0;');
  return `${lines.join('\n')}\n`;
}

/** What a pen draws is drawn where it is; the knife's holder leads its tip. */
function compensatedStrokes(strokes: readonly ToolStroke[], offsetMm: number): ToolStroke[] {
  const cuts = holderStrokes(strokes.filter(({ role }) => role !== 'mark'), offsetMm);
  // Strokes without length are left out by both.
  const marks = strokes.filter(({ role }) => role === 'mark');
  return [...marks, ...cuts];
}

/** Places on the grid of steps, y up; those that fall on the one before are left out, an end never. */
function onGrid(points: Float64Array, heightMm: number, stepMm: number): { x: number; y: number }[] {
  const places: { x: number; y: number }[] = [];
  for (let i = 0; i < points.length; i += 2) {
    const place = { x: Math.round(points[i] / stepMm), y: Math.round((heightMm - points[i + 1]) / stepMm) };
    const last = places.at(-1);
    if (last === undefined || last.x !== place.x || last.y !== place.y) places.push(place);
  }
  return places;
}

/** Places of a line, as few as one finds going along it, between which it strays no further than a distance: its ends are kept. */
function fewerPlaces(points: Float64Array, withinMm: number): Float64Array {
  const count = points.length / 2;
  const kept = [0];
  let from = 0;
  while (from < count - 1) {
    let to = from + 1;
    while (to + 1 < count && lieWithin(points, from, to + 1, withinMm)) to++;
    kept.push(to);
    from = to;
  }
  return Float64Array.from(kept.flatMap((k) => [points[2 * k], points[2 * k + 1]]));
}

/** Whether all places between two lie near the chord between them, and not beyond its ends. */
function lieWithin(points: Float64Array, from: number, to: number, withinMm: number): boolean {
  const [x, y] = [points[2 * from], points[2 * from + 1]];
  const [dx, dy] = [points[2 * to] - x, points[2 * to + 1] - y];
  const square = dx * dx + dy * dy;
  if (square === 0) return false;
  for (let k = from + 1; k < to; k++) {
    const [px, py] = [points[2 * k] - x, points[2 * k + 1] - y];
    const along = px * dx + py * dy;
    if (along < 0 || along > square || Math.abs(px * dy - py * dx) > withinMm * Math.sqrt(square)) return false;
  }
  return true;
}
