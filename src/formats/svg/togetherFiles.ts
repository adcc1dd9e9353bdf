import { cutPlanOf } from '../../core/layout/cutPlan.ts';
import type { FilmTogether } from '../../core/layout/together.ts';
import { idFromName, writeSheetSvg } from './writeSvg.ts';

/** A cut file for each sheet of a film that several jobs share, in their order. @param place of the film among all, from 1: what the names begin with. */
export function togetherFiles({ film, jobs, sheets }: FilmTogether, place: number): { readonly name: string; readonly svg: string }[] {
  return sheets.map((sheet, k) => ({
    name: `${place}-${idFromName(film.name)}${sheets.length === 1 ? '' : `-sheet-${k + 1}`}.svg`,
    svg: writeSheetSvg(cutPlanOf(sheet, { id: `film-${place}`, ...film }), `${film.name}, ${jobs.length === 1 ? 'job' : 'jobs'} ${jobs.join(', ')}`, 'lines'),
  }));
}
