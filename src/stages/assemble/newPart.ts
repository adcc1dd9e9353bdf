import type { AddedObject } from '../../core/edit/objectEdits.ts';
import { FIGURE_FORMS, type FigureForm } from '../../core/figure/figure.ts';
import { say } from '../../core/words/say.ts';

/** What can be added that is made here, and not brought in. */
export type PartKind = 'lettering' | FigureForm | 'base' | 'holes';

/** Share of the design's width that a new part has, and its height. */
const NEW_WIDTH = 0.6;
const NEW_HEIGHT = 0.14;
/** Forms that are set broad and low; all others are as high as they are broad. */
const LOW: readonly PartKind[] = ['rectangle', 'bar', 'wave', 'ribbon'];

export interface Room {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where the zero of the objects' common mm lies in the design. */
  readonly originMm: { readonly x: number; readonly y: number };
  readonly blankHeightMm: number;
}

/** A part as it is when it comes: below the design where that is still on the blank, else in its middle. */
export function newPart(kind: PartKind, id: string, film: string, { widthMm: width, heightMm: height, originMm, blankHeightMm }: Room): AddedObject {
  if (kind === 'base') return { kind, id, film, base: { form: 'edge', marginMm: 3, cornerMm: 3, corners: 'round' } };
  if (kind === 'holes') return { kind, id, holes: { where: 'pair', diameterMm: 6, fromTopMm: 10, fromSideMm: 10 } };
  const lowMm = Math.max(5, Math.round(width * NEW_HEIGHT));
  const broadMm = Math.max(10, Math.round(width * NEW_WIDTH));
  const isLow = kind === 'lettering' || LOW.includes(kind);
  const sideMm = Math.max(10, Math.round(Math.min(width, height) * 0.4));
  const isRoom = height + 0.6 * lowMm + (isLow ? lowMm : sideMm) <= blankHeightMm;
  const middle = { x: width / 2 - originMm.x, y: (isRoom ? height + (isLow ? lowMm : sideMm / 2 + lowMm / 2) : height / 2) - originMm.y };
  const at = (x: number, y: number) => ({ a: 1, b: 0, c: 0, d: 1, e: x, f: y });
  if (kind === 'lettering') return { kind, id, film, placement: at(middle.x, middle.y), lettering: { text: say('Name'), font: 'Oswald', heightMm: lowMm } };
  const [widthMm, heightMm] = isLow ? [broadMm, lowMm] : [sideMm, sideMm];
  return { kind: 'figure', id, film, placement: at(middle.x - widthMm / 2, middle.y - heightMm / 2), shape: FIGURE_FORMS[kind].first(widthMm, heightMm) };
}
