import { boxAround, changedLayer, type Design, type DesignLayer } from '../assemble/design.ts';
import { fanOnBlank, placeOnBlank } from '../assemble/placeOnBlank.ts';
import { bentCurves } from '../combine/bendCurves.ts';
import { translation } from '../geometry/affine.ts';
import { bentBy, type Fan } from '../geometry/fan.ts';
import type { Job } from '../job/job.ts';
import { ringCount } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { canonicalJson } from '../task/hash.ts';
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
  const flat = layout.unbent === true || layout.work !== undefined ? undefined : fanOnBlank(blank, placeOnBlank(place, blank, design));
  if (flat === undefined || design.layers.every(({ curves }) => ringCount(curves) === 0)) return { design, parts };
  const key = canonicalJson(flat);
  const known = bentBefore.get(design);
  if (known?.key === key && known.parts === parts) return known.laid;
  const laid = laidOn(flat, design, parts);
  bentBefore.set(design, { key, parts, laid });
  return laid;
}

/** What was bent last of a design: another number of copies bends nothing again. */
const bentBefore = new WeakMap<Design, { readonly key: string; readonly parts: readonly DesignPart[]; readonly laid: LaidDesign }>();

function laidOn(flat: Fan, design: Design, parts: readonly DesignPart[]): LaidDesign {
  const bend = (layer: DesignLayer): DesignLayer => changedLayer(layer, (curves) => bentCurves(curves, bentBy(flat)));
  const layers = design.layers.map(bend);
  // The box of a bent design starts at 0, 0 again.
  const box = boxAround(layers);
  const home = translation(-box.left, -box.top);
  const shift = (layer: DesignLayer): DesignLayer => changedLayer(layer, (curves) => transformCurves(curves, home));
  return {
    design: { layers: layers.map(shift), widthMm: mm(box.right - box.left), heightMm: mm(box.bottom - box.top) },
    parts: parts.map((part) => {
      const own = part.layers.map(bend).map(shift);
      return { ...part, layers: own, box: own.every(({ curves }) => ringCount(curves) === 0) ? part.box : boxAround(own) };
    }),
    fan: { ...flat, xMm: home.e, yMm: home.f },
  };
}
