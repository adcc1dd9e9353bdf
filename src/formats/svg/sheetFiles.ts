import type { CutPlan } from '../../core/layout/cutPlan.ts';
import { idFromName, writeSheetSvg, type CutAs } from './writeSvg.ts';

export interface SheetFile {
  /** Without ending: the film's place on the rack from 1 and its name, and the number of its sheet where it has several; nothing when there is only one sheet. */
  readonly suffix: string;
  readonly svg: string;
}

/** A cut file for each sheet, lowest film first. */
export const sheetFiles = (plans: readonly CutPlan[], title: string, cutAs: CutAs): SheetFile[] =>
  plans.map((plan) => ({ suffix: suffixOf(plan, plans), svg: writeSheetSvg(plan, title, cutAs) }));

/** What the names of a sheet's files end in; nothing when it is the only one. */
export function suffixOf({ film, number }: CutPlan, plans: readonly CutPlan[]): string {
  if (plans.length === 1) return '';
  const films = [...new Set(plans.map((plan) => plan.film.id))];
  return `${films.indexOf(film.id) + 1}-${idFromName(film.name)}${number === undefined ? '' : `-sheet-${number}`}`;
}
