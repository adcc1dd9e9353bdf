import { MM_PER_INCH } from '../core/units/length.ts';
import type { LengthUnit } from '../core/units/parseLength.ts';

export interface Tick {
  /** Along the ruler, CSS px. */
  readonly at: number;
  /** Label for a major tick. */
  readonly label?: string;
  readonly level: 'major' | 'middle' | 'minor';
}

/** Steps between labels that people can count in: mm, and inches down to a sixteenth. */
const MM_STEPS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];
const INCH_STEPS = [0.25, 0.5, 1, 2, 4, 6, 12, 24, 48];
const LEAST_LABEL_PX = 44;

/**
 * Ticks of a ruler.
 * @param length of the ruler, CSS px. @param zeroAt where 0 lies, CSS px. @param pxPerMm CSS px on one true mm, above 0.
 */
export function rulerTicks(length: number, zeroAt: number, pxPerMm: number, unit: LengthUnit): Tick[] {
  const pxPerUnit = unit === 'mm' ? pxPerMm : pxPerMm * MM_PER_INCH;
  if (!(pxPerUnit > 0) || !Number.isFinite(pxPerUnit)) return [];
  const steps = unit === 'mm' ? MM_STEPS : INCH_STEPS;
  const step = steps.find((s) => s * pxPerUnit >= LEAST_LABEL_PX) ?? steps[steps.length - 1];
  const parts = unit === 'mm' ? (String(step).startsWith('2') ? 4 : 10) : 8;
  const fine = step / parts;
  if (fine * pxPerUnit < 3) return ticksOf(length, zeroAt, pxPerUnit, step, 2);
  return ticksOf(length, zeroAt, pxPerUnit, step, parts);
}

function ticksOf(length: number, zeroAt: number, pxPerUnit: number, step: number, parts: number): Tick[] {
  const fine = step / parts;
  const first = Math.ceil(-zeroAt / pxPerUnit / fine);
  const last = Math.floor((length - zeroAt) / pxPerUnit / fine);
  if (last - first > 4000) return [];
  const ticks: Tick[] = [];
  for (let k = first; k <= last; k++) {
    const at = zeroAt + k * fine * pxPerUnit;
    if (k % parts === 0) ticks.push({ at, level: 'major', label: String(Math.round((k / parts) * step * 100) / 100) });
    else ticks.push({ at, level: parts % 2 === 0 && k % (parts / 2) === 0 ? 'middle' : 'minor' });
  }
  return ticks;
}
