import { z } from 'zod';
import { filmDifference } from '../colour/filmDifference.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { filmSchema, type Film, type FlatSeparation, type Job } from './job.ts';
import type { FoundFilms } from './paletteEdits.ts';

/** The films that lie on the shelf of the workshop. */
export const stockSchema = z.array(filmSchema).max(400);

/** What a shelf holds before anyone wrote down their own. */
export const USUAL_STOCK: readonly Film[] = [
  ['Foam white', '#fbf8f3'], ['Sail cream', '#efe3c8'], ['Lamp yellow', '#f2b632'], ['Buoy orange', '#e5702a'], ['Pennant red', '#b3262e'], ['Rosehip', '#d9788f'], ['Plum', '#5b2a4e'],
  ['Sky blue', '#7fb2d9'], ['Regatta blue', '#24509a'], ['Harbour navy', '#22375f'], ['Reed green', '#3f7d4f'], ['Bottle green', '#1d4034'], ['Rope brown', '#7a5836'], ['Heron grey', '#8d9298'], ['Tar black', '#1c1b22'],
].map(([name, colour]) => ({ id: `stock-${name.toLowerCase().replace(' ', '-')}`, name, colour }));

export interface StockMatch {
  readonly film: Film;
  /** CIEDE2000 from the colour that it stands for. */
  readonly difference: number;
}

const rgb = (hex: string): Rgb => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 };

/** How far a film's colour is from that of a tone, CIEDE2000. */
export const differenceOf = (a: string, b: string): number => filmDifference(rgb(a), rgb(b));

/** The films on the shelf by their difference from a colour, nearest first. */
export const nearestStock = (colour: string, stock: readonly Film[]): StockMatch[] => stock.map((film) => ({ film, difference: differenceOf(colour, film.colour) })).sort((a, b) => a.difference - b.difference);

/** Gives a film name and colour of one on the shelf; when another film of the job is that one already, the two become one. */
export function takeFromStock(job: Job, found: FoundFilms, id: string, from: Film): Job {
  const other = found.films.find((film) => film.id !== id && film.name === from.name && film.colour === from.colour);
  return withFilms(job, found, new Map([[id, other ?? { id, name: from.name, colour: from.colour }]]));
}

/** Gives every film what lies nearest to the colour of its largest tone on the shelf. Tones that find the same are cut from one film. */
export function matchStock(job: Job, found: FoundFilms, stock: readonly Film[]): Job {
  const taken = new Map<string, Film>();
  const matches = new Map<string, Film>();
  for (const film of found.films) {
    const tones = found.tones.filter((tone) => tone.film === film.id).sort((a, b) => b.share - a.share);
    const [nearest] = nearestStock(tones[0]?.colour ?? film.colour, stock);
    if (nearest === undefined) continue;
    const one = taken.get(nearest.film.id) ?? { id: film.id, name: nearest.film.name, colour: nearest.film.colour };
    taken.set(nearest.film.id, one);
    matches.set(film.id, one);
  }
  return withFilms(job, found, matches);
}

/** Puts films in the place of others; several may become one. */
function withFilms(job: Job, { tones, films }: FoundFilms, matches: ReadonlyMap<string, Film>): Job {
  const { separation } = job;
  const next = new Map(films.map((film) => [film.id, matches.get(film.id) ?? film]));
  const kept = [...new Map([...next.values()].map((film) => [film.id, film])).values()];
  if (separation.way !== 'flat') {
    // The films of other ways stand for lightness and stay apart; only names and colours are taken.
    return { ...job, assembly: { ...job.assembly, films: films.map((film) => ({ ...(matches.get(film.id) ?? film), id: film.id })) } };
  }
  const of = (id: string | null): string | null => (id === null ? null : (next.get(id)?.id ?? id));
  const held: FlatSeparation = {
    ...separation,
    palette: tones.map(({ colour, film }) => ({ colour, film: of(film) })),
    count: Math.max(2, tones.length),
    ...(separation.kept === undefined ? {} : { kept: separation.kept.map(({ colour, film }) => ({ colour, film: of(film) })) }),
    ...(separation.spots === undefined ? {} : { spots: separation.spots.map((spot) => ({ ...spot, film: of(spot.film) })) }),
  };
  return { ...job, separation: held, assembly: { ...job.assembly, films: kept } };
}
