import type { Film } from '../../core/film/film.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import { idFromName, writeSheetSvg, type CutAs } from './writeSvg.ts';

export interface SheetFile {
  /** Without ending: the film's place on the rack from 1 and its name; nothing when there is only one film. */
  readonly suffix: string;
  readonly svg: string;
}

/** A cut file for each sheet, lowest film first. */
export function sheetFiles(films: readonly Film[], sheets: readonly Sheet[], title: string, cutAs: CutAs): SheetFile[] {
  return sheets.map((sheet, k) => ({ suffix: films.length === 1 ? '' : `${k + 1}-${idFromName(films[k].name)}`, svg: writeSheetSvg(sheet, films[k], title, cutAs) }));
}
