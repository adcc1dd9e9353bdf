import { BLANKS } from './blanks.ts';
import type { Process } from './processes.ts';
import { JOB_VERSION, type Job, type SheetStock } from './job.ts';

/** Sheets that a workshop lays in its machine. */
export const SHEETS: readonly SheetStock[] = [
  { name: 'Mat 305 × 305', widthMm: 305, heightMm: 305, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: 'Mat 305 × 610', widthMm: 305, heightMm: 610, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: 'Roll 500, 1 m', widthMm: 500, heightMm: 1000, marginMm: { left: 10, top: 5, right: 10, bottom: 5 }, origin: 'bottomLeft' },
  { name: 'A4 sheet', widthMm: 210, heightMm: 297, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
  { name: 'Letter sheet', widthMm: 215.9, heightMm: 279.4, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
];

/** A job as it starts: nothing cleaned, one film, the usual sheet. @param process its blank is the first that is usual for it. */
export function newJob(name: string, process: Process = BLANKS[0].process): Job {
  const choice = BLANKS.find((each) => each.process === process) ?? BLANKS[0];
  return {
    format: 'limner-job',
    version: JOB_VERSION,
    name,
    keywords: [],
    rights: { note: '', use: 'unknown' },
    blank: choice.blank,
    process,
    recipe: [],
    separation: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
    outline: { followPx: 0.3, cornerDeg: 24, leastPieceMm2: 0.3 },
    assembly: { by: 'width', sizeMm: choice.widthMm, turnDeg: 0, films: [{ id: 'film-1', name: 'Harbour navy', colour: '#22375f' }] },
    layout: { sheet: SHEETS[1], mirror: 'process', box: { on: true, marginMm: 6 }, copies: 1, gapMm: 4 },
    handOff: { cutAs: 'lines' },
  };
}
