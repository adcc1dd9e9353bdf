import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Film } from '../film/film.ts';
import { mirrorAbout } from '../geometry/affine.ts';
import { ringCount, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { within, type Task } from '../task/task.ts';
import type { Layout } from './layout.ts';
import type { Sheet } from './laySheet.ts';
import { nestedTogether, type NestKind } from './nestSheets.ts';
import type { SheetStock } from './sheetStock.ts';
import { say } from '../words/say.ts';

/** What one job cuts of one film. */
export interface JobFilm {
  /** Of the job among those that are laid together, from 1: its parts are known by it. */
  readonly job: number;
  readonly name: string;
  readonly film: Pick<Film, 'name' | 'colour'>;
  /** Id of what the film is made of: films of one name are one only if they are of one material. */
  readonly material: string;
  /** mm of the job's design. */
  readonly curves: Curves;
  readonly widthMm: number;
  readonly mirrored: boolean;
  readonly copies: number;
}

export interface TogetherSettings extends Pick<Layout, 'gapMm' | 'turns' | 'box'> {
  readonly sheet: SheetStock;
}

/** The sheets of one film, with the jobs that lie on them. */
export interface FilmTogether {
  readonly film: Pick<Film, 'name' | 'colour'>;
  readonly mirrored: boolean;
  readonly jobs: readonly number[];
  readonly sheets: readonly Sheet[];
}

/** What the parts of a job are called on a sheet, and whose a part is. */
const JOB_PART = 'job-';
const jobPartId = (job: number): string => `${JOB_PART}${job}`;
export const jobOfPart = (partId: string): number => Number(partId.slice(JOB_PART.length));

/**
 * Several jobs on the sheets of each film that they share: same name, colour, material and side that is cut. All of a film is nested by true outlines, each job's parts known by its number.
 * @param share of the time that is gone, as a whole. @throws AppError `doesNotFit` where a part is larger than the sheet.
 */
export function* layTogether(library: PolygonLibrary, films: readonly JobFilm[], settings: TogetherSettings, share: () => number): Task<FilmTogether[]> {
  const groups = new Map<string, JobFilm[]>();
  for (const each of films) {
    if (ringCount(each.curves) === 0) continue;
    const key = JSON.stringify([each.film.name, each.film.colour, each.material, each.mirrored]);
    groups.set(key, [...(groups.get(key) ?? []), each]);
  }
  const laid: FilmTogether[] = [];
  for (const [k, own] of [...groups.values()].entries()) {
    const [from, to] = [k / groups.size, (k + 1) / groups.size];
    const kinds = own.map(({ job, name, curves, widthMm, mirrored, copies }): NestKind => ({ id: jobPartId(job), label: say`Job ${job}: ${name}`, curves: mirrored ? transformCurves(curves, mirrorAbout(widthMm / 2)) : curves, copies }));
    const [{ film, mirrored }] = own;
    // Each film has its part of the time.
    const ownShare = (): number => Math.min(1, Math.max(0, (share() - from) / (to - from)));
    const sheets = yield* within(nestedTogether(library, kinds, `film-${k + 1}`, { ...settings, mirrored }, ownShare), from, to);
    laid.push({ film, mirrored, jobs: own.map(({ job }) => job), sheets });
  }
  return laid;
}
