import { placeOnBlank, type PlaceMm } from '../assemble/placeOnBlank.ts';
import type { Blank } from '../process/blanks.ts';
import { blankShape } from './blankShape.ts';
import { decimals, say } from '../words/say.ts';

/** Capitals of the words under a proof, as a share of the blank's longer side. */
const CAPITAL_SHARE = 0.022;

export const capitalMmOf = (blank: Blank): number => {
  const { box } = blankShape(blank);
  return Math.max(box.right - box.left, box.bottom - box.top) * CAPITAL_SHARE;
};

/** Where a design sits on its blank, as the press is set by: below the collar where that is known, and off the middle. */
export function proofMeasures(blank: Blank, place: PlaceMm | undefined, design: { readonly widthMm: number; readonly heightMm: number }): { readonly belowMm: number; readonly from: 'collar' | 'area'; readonly offMiddleMm: number } {
  const at = placeOnBlank(place, blank, design);
  const collar = blank.form === 'shirt' ? blank.belowCollarMm : undefined;
  return { belowMm: at.yMm + (collar ?? 0), from: collar === undefined ? 'area' : 'collar', offMiddleMm: at.xMm + design.widthMm / 2 - blank.widthMm / 2 };
}

/** What stands under a proof: the job; its blank, size and place; the date. */
export function proofWords({ name, blank, place }: { readonly name: string; readonly blank: Blank; readonly place?: PlaceMm | undefined }, design: { readonly widthMm: number; readonly heightMm: number }, date: string): string[] {
  const { belowMm, from, offMiddleMm } = proofMeasures(blank, place, design);
  const off = Math.abs(offMiddleMm) < 0.5 ? '' : say`, ${decimals(Math.abs(offMiddleMm), 0)} mm ${offMiddleMm < 0 ? say('left') : say('right')} of the middle`;
  return [name, say`${blank.name} · ${decimals(design.widthMm, 0)} × ${decimals(design.heightMm, 0)} mm, ${decimals(belowMm, 0)} mm below the ${from === 'collar' ? say('collar') : say('top of its area')}${off} · ${date}`];
}
