import type { CutPlan } from '../../core/layout/cutPlan.ts';
import { idFromName, writeSheetSvg, type CutAs } from './writeSvg.ts';

export interface SheetFile {
  /** Without ending: the film's place on the rack from 1 and its name; nothing when there is only one film. */
  readonly suffix: string;
  readonly svg: string;
}

/** A cut file for each sheet, lowest film first. */
export const sheetFiles = (plans: readonly CutPlan[], title: string, cutAs: CutAs): SheetFile[] =>
  plans.map((plan, k) => ({ suffix: plans.length === 1 ? '' : `${k + 1}-${idFromName(plan.film.name)}`, svg: writeSheetSvg(plan, title, cutAs) }));
