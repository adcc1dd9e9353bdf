import { z } from 'zod';
import { fanOf, type Fan } from '../geometry/fan.ts';
import { flatten } from '../outline/flatten.ts';
import { radiiOf, type Blank } from '../process/blanks.ts';
import type { Design } from './design.ts';

/** Where a design lies on its blank: the upper left of its box, mm on the printable area. */
export interface PlaceMm {
  readonly xMm: number;
  readonly yMm: number;
}

export const MAX_GUIDES = 40;
/** A line on the printable area that parts snap to: upright so far from its left, or level so far from its top. */
export const guideSchema = z.strictObject({ way: z.enum(['upright', 'level']), atMm: z.number().min(-20_000).max(20_000) });
export type Guide = z.infer<typeof guideSchema>;

/** A print sits a little below the top edge of the printable area, like a crest on a chest: a sixth of what is free. */
const TOP_SHARE = 1 / 6;

/** The place that was chosen, or else centred across and near the top. */
export function placeOnBlank(place: PlaceMm | undefined, blank: { widthMm: number; heightMm: number }, design: { widthMm: number; heightMm: number }): PlaceMm {
  if (place !== undefined) return place;
  return { xMm: (blank.widthMm - design.widthMm) / 2, yMm: Math.max(0, blank.heightMm - design.heightMm) * TOP_SHARE };
}

/** How what lies at a place of a blank that tapers is bent for it; undefined where it does not taper. */
export function fanOnBlank(blank: Blank, at: PlaceMm): Fan | undefined {
  const radii = radiiOf(blank);
  return radii === undefined ? undefined : fanOf(radii.upperMm, radii.lowerMm, blank, at);
}

/** Chords by which a design is held against a round blank, mm. */
const CHORD_MM = 0.1;

/**
 * How far a placed design reaches over the printable area, mm; 0 when it lies on it. Over a round one (an oval when it is not as high as wide) by its outlines,
 * not their box.
 */
export function overBlankMm(
  place: PlaceMm,
  blank: { widthMm: number; heightMm: number; round?: boolean | undefined },
  design: Pick<Design, 'widthMm' | 'heightMm' | 'layers'>,
): number {
  if (blank.round === true) return overRoundMm(place, blank, design);
  const over = Math.max(-place.xMm, -place.yMm, place.xMm + design.widthMm - blank.widthMm, place.yMm + design.heightMm - blank.heightMm);
  return over > 1e-6 ? over : 0;
}

function overRoundMm({ xMm, yMm }: PlaceMm, { widthMm, heightMm }: { widthMm: number; heightMm: number }, { layers }: Pick<Design, 'layers'>): number {
  const [a, b] = [widthMm / 2, heightMm / 2];
  let over = 0;
  for (const { curves } of layers) {
    const { points } = flatten(curves, CHORD_MM);
    for (let k = 0; k < points.length; k += 2) {
      const [dx, dy] = [points[k] + xMm - a, points[k + 1] + yMm - b];
      const out = Math.hypot(dx / a, dy / b);
      // Along the way to the middle: on a circle exactly, on an oval a little more than the nearest.
      if (out > 1) over = Math.max(over, Math.hypot(dx, dy) * (1 - 1 / out));
    }
  }
  return over > CHORD_MM ? over : 0;
}
