import { boxAround, type Design, type DesignLayer } from '../assemble/design.ts';
import { placeOnBlank } from '../assemble/placeOnBlank.ts';
import { bentCurves } from '../combine/bendCurves.ts';
import { bent, fanOf, type Fan } from '../geometry/fan.ts';
import type { Job } from '../job/job.ts';
import { ringCount } from '../outline/curves.ts';
import { radiiOf } from '../process/blanks.ts';
import { mm } from '../units/length.ts';
import type { DesignPart } from './designRun.ts';

/** The design as it is cut or printed: of a blank that tapers bent, so that it lies level on it; else as it is. */
export interface LaidDesign {
  readonly design: Design;
  readonly parts: readonly DesignPart[];
  /** How it was bent, from the design's mm to those of the laid one. */
  readonly fan?: Fan;
}

/** What work that lies on the sheet already is cut around lies flat there: then nothing is bent. */
export function laidDesign({ blank, place, layout }: Pick<Job, 'blank' | 'place' | 'layout'>, design: Design, parts: readonly DesignPart[]): LaidDesign {
  const radii = radiiOf(blank);
  const isEmpty = design.layers.every(({ curves }) => ringCount(curves) === 0);
  if (radii === undefined || isEmpty || layout.unbent === true || layout.work !== undefined) return { design, parts };
  const flat = fanOf(radii.upperMm, radii.lowerMm, blank, placeOnBlank(place, blank, design));
  if (flat === undefined) return { design, parts };
  const bend = (fan: Fan) => (layer: DesignLayer): DesignLayer => {
    const map = (x: number, y: number): { x: number; y: number } => bent(fan, x, y);
    return { ...layer, curves: bentCurves(layer.curves, map), ...(layer.marks === undefined ? {} : { marks: bentCurves(layer.marks, map) }) };
  };
  // The box of a bent design starts at 0, 0 again.
  const box = boxAround(design.layers.map(bend(flat)));
  const fan = { ...flat, xMm: -box.left, yMm: -box.top };
  return {
    design: { layers: design.layers.map(bend(fan)), widthMm: mm(box.right - box.left), heightMm: mm(box.bottom - box.top) },
    parts: parts.map((part) => {
      const layers = part.layers.map(bend(fan));
      return { ...part, layers, box: layers.every(({ curves }) => ringCount(curves) === 0) ? part.box : boxAround(layers) };
    }),
    fan,
  };
}
