import { colourNames } from '../colour/colourName.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Film, FlatSeparation, HeldTone, Job, Spot } from './job.ts';
import type { ToneFact } from './filmsOf.ts';

/** What the engine found last: the palette and the films, lowest first. */
export interface FoundFilms {
  readonly tones: readonly ToneFact[];
  readonly films: readonly Film[];
}

export const MAX_TONES = 32;
/** Areas that can be pointed at; the oldest are forgotten beyond. */
const MAX_SPOTS = 500;

/**
 * Changes of the palette. Each holds what was found as it is and then changes one thing, so that the rest does not move under one's hands. All give a new job; one whose
 * separation is not by flat colours comes back as it is.
 */

/** Gives a tone the film of another, or makes it background like it. */
export function mergeTone(job: Job, found: FoundFilms, tone: number, into: number): Job {
  return tone === into ? job : edited(job, found, (palette) => replaced(palette, tone, { film: palette[into].film }));
}

/** Makes a tone background: no film is cut of it. */
export const clearTone = (job: Job, found: FoundFilms, tone: number): Job => edited(job, found, (palette) => replaced(palette, tone, { film: null }));

/** Gives a tone a film of its own, in its own colour. */
export function partTone(job: Job, found: FoundFilms, tone: number): Job {
  const id = freeId(job, found);
  const { colour } = found.tones[tone];
  return withNewFilm(edited(job, found, (palette) => replaced(palette, tone, { film: id })), id, colour);
}

/** Takes a tone out of the palette: its areas go to the tones next to them. The last two stay. */
export const dropTone = (job: Job, found: FoundFilms, tone: number): Job => (found.tones.length <= 2 ? job : edited(job, found, (palette) => palette.filter((_, k) => k !== tone)));

/** Sets what colour a tone has in the picture. */
export const setTone = (job: Job, found: FoundFilms, tone: number, colour: string): Job => edited(job, found, (palette) => replaced(palette, tone, { colour }));

/** Adds a tone by its colour in the picture, with a film of its own. */
export function addTone(job: Job, found: FoundFilms, colour: string): Job {
  if (found.tones.length >= MAX_TONES) return job;
  const id = freeId(job, found);
  return withNewFilm(edited(job, found, (palette) => [...palette, { colour, film: id }]), id, colour);
}

/** Gives the area at a point another film, or none. */
export const pointAt = (job: Job, found: FoundFilms, at: { readonly xPx: number; readonly yPx: number }, film: string | null): Job => withSpots(edited(job, found, (palette) => palette), (spots) => [...spots, { ...at, film }]);

/** Makes the area at a point a cut of its own, in the colour and after the name of the film that it has now. */
export function pointApart(job: Job, found: FoundFilms, at: { readonly xPx: number; readonly yPx: number }, like: Film): Job {
  const id = freeId(job, found);
  const held = pointAt(job, found, at, id);
  if (held === job) return job;
  const names = new Set(held.assembly.films.map(({ name }) => name));
  let name = `${like.name}, apart`;
  for (let k = 2; names.has(name); k++) name = `${like.name}, apart ${k}`;
  return { ...held, assembly: { ...held.assembly, films: [...held.assembly.films, { id, name, colour: like.colour }] } };
}

/** Takes back everything that was pointed at. */
export const forgetSpots = (job: Job): Job => withSpots(job, () => []);

function withSpots(job: Job, change: (spots: readonly Spot[]) => Spot[]): Job {
  if (job.separation.way !== 'flat') return job;
  const { spots, ...rest } = job.separation;
  const changed = change(spots ?? []).slice(-MAX_SPOTS);
  return { ...job, separation: changed.length === 0 ? rest : { ...rest, spots: changed } };
}

/** Lets the palette be found anew; what was pointed at goes with it. */
export function findTonesAnew(job: Job): Job {
  if (job.separation.way !== 'flat') return job;
  const { palette: _held, spots: _spots, ...rest } = job.separation;
  return { ...job, separation: rest };
}

/** Another name or colour of a film. */
export function changeFilm(job: Job, found: FoundFilms, id: string, change: Partial<Omit<Film, 'id'>>): Job {
  const films = job.separation.way === 'oneTone' ? job.assembly.films : found.films;
  const held = job.separation.way === 'flat' ? edited(job, found, (palette) => palette) : job;
  return { ...held, assembly: { ...held.assembly, films: films.map((film) => (film.id === id ? { ...film, ...change } : film)) } };
}

/** Another place on the rack, counted from the lowest. */
export function moveFilm(job: Job, found: FoundFilms, id: string, to: number): Job {
  const held = edited(job, found, (palette) => palette);
  const films = [...found.films];
  const from = films.findIndex((film) => film.id === id);
  if (held === job || from < 0) return job;
  films.splice(Math.max(0, Math.min(films.length - 1, to)), 0, ...films.splice(from, 1));
  return { ...held, assembly: { ...held.assembly, films } };
}

function edited(job: Job, { tones, films }: FoundFilms, change: (palette: readonly HeldTone[]) => HeldTone[] | readonly HeldTone[]): Job {
  if (job.separation.way !== 'flat') return job;
  const palette = [...change(tones.map(({ colour, film }) => ({ colour, film })))];
  const separation: FlatSeparation = { ...job.separation, count: Math.max(2, palette.length), palette };
  const wanted = new Set([...palette, ...(separation.spots ?? [])].map(({ film }) => film));
  const kept = films.filter(({ id }) => wanted.has(id));
  return { ...job, separation, assembly: { ...job.assembly, films: kept.length === 0 ? job.assembly.films : kept } };
}

const replaced = (palette: readonly HeldTone[], at: number, change: Partial<HeldTone>): HeldTone[] => palette.map((tone, k) => (k === at ? { ...tone, ...change } : tone));

function freeId(job: Job, { tones, films }: FoundFilms): string {
  const taken = new Set([...tones.map(({ film }) => film), ...films.map(({ id }) => id), ...job.assembly.films.map(({ id }) => id)]);
  let k = tones.length + 1;
  while (taken.has(`tone-${k}`)) k++;
  return `tone-${k}`;
}

function withNewFilm(job: Job, id: string, colour: string): Job {
  const films = job.assembly.films.filter((film) => film.id !== id);
  const names = new Set(films.map(({ name }) => name));
  const [plain] = colourNames([rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 }]);
  let name = plain;
  for (let k = 2; names.has(name); k++) name = `${plain} ${k}`;
  return { ...job, assembly: { ...job.assembly, films: [...films, { id, name, colour }] } };
}
