import { colourNames } from '../colour/colourName.ts';
import { rgbFromHex } from '../colour/hex.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import type { Job } from '../job/job.ts';
import { MAX_FILMS, type Film } from '../film/film.ts';
import { MAX_HELD_CHARS, type HeldOutline } from '../outline/outlineSettings.ts';
import { MAX_KNOWN, type FlatSeparation, type HeldTone, type MeetingPair, type Separation, type Spot } from '../separate/separation.ts';
import type { ToneFact } from '../separate/toneFact.ts';
import { AROUND_FILM } from '../film/filmRoles.ts';

/** What the engine found last: the palette and the films, lowest first. */
export interface FoundFilms {
  readonly tones: readonly ToneFact[];
  readonly films: readonly Film[];
}

/** A place in the picture as turned and squared. */
export interface Place {
  readonly xPx: number;
  readonly yPx: number;
}

export const MAX_TONES = 32;
/** Areas that can be pointed at; the oldest are forgotten beyond. */
const MAX_SPOTS = 500;

/**
 * Changes of the palette. Each holds what was found as it is and then changes one thing, so that the rest does not move under one's hands. All give a new job; one whose
 * separation is not by flat colours comes back as it is.
 */

/** How many tones there are with the background: where it is clear it is none of them, but counts as one. */
export const countOfTones = (tones: readonly ToneFact[] = []): number => tones.length + (tones.some(({ film }) => film === null) ? 0 : 1);

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

/** Two tones in place of one: the first keeps its film, the second gets one of its own. */
export function splitTone(job: Job, found: FoundFilms, tone: number, [first, second]: readonly [string, string]): Job {
  if (found.tones.length >= MAX_TONES) return job;
  const id = freeId(job, found);
  return withNewFilm(edited(job, found, (palette) => [...replaced(palette, tone, { colour: first }), { colour: second, film: id }]), id, second);
}

/** Gives several areas, each by a point in it, one film of their own, in the colour and after the name of the one that they have now. */
export function partAreas(job: Job, found: FoundFilms, places: readonly Place[], like: Film): Job {
  if (places.length === 0) return job;
  const id = freeId(job, found);
  const held = withSpots(edited(job, found, (palette) => palette), (spots) => [...spots, ...places.map(({ xPx, yPx }) => ({ xPx, yPx, film: id }))]);
  return held === job ? job : withFilmLike(held, id, like);
}

/** A tone so small that it may be none, and the tone that would take it. */
export interface SmallTone {
  readonly tone: number;
  readonly into: number;
  /** Of the art, 0 to 1. */
  readonly share: number;
  /** How far the two are apart, OKLab × 100. */
  readonly difference: number;
}

/** Tones with less of the art than this are offered for merging. */
const SMALL_SHARE = 0.01;

/** Small tones that have a film of their own, smallest first, each with the nearest tone of another film. */
export function smallTones({ tones }: FoundFilms): SmallTone[] {
  const rgb = (hex: string): Rgb => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 };
  return tones
    .flatMap(({ colour, share, film }, tone) => {
      if (film === null || share >= SMALL_SHARE || tones.some((other, k) => k !== tone && other.film === film && other.share > share)) return [];
      const others = tones.flatMap((other, into) => (into === tone || other.film === film ? [] : [{ tone, into, share, difference: colourDifference(rgb(colour), rgb(other.colour)) }]));
      return others.sort((a, b) => a.difference - b.difference).slice(0, 1);
    })
    .sort((a, b) => a.share - b.share);
}

/** Gives the area at a point another film, or none. */
export const pointAt = (job: Job, found: FoundFilms, at: Place, film: string | null): Job => withSpots(edited(job, found, (palette) => palette), (spots) => [...spots, { ...at, film }]);

/** Makes the area at a point a cut of its own, in the colour and after the name of the film that it has now. */
export function pointApart(job: Job, found: FoundFilms, at: Place, like: Film): Job {
  return partAreas(job, found, [at], like);
}

/** The film that fills an area of background until it is given another. */
const FILL: Omit<Film, 'id'> = { name: 'Fill', colour: '#f2b632' };

/** Fills an area of background with a film of its own, below all others: where films are stacked, as far as the middle of the lines around it. */
export function fillArea(job: Job, found: FoundFilms, at: Place): Job {
  const held = partAreas(job, found, [at], { id: '', ...FILL });
  if (held === job || held.separation.way !== 'flat') return job;
  const films = [...held.assembly.films];
  const fill = films.pop() as Film;
  const names = new Set(films.map(({ name }) => name));
  let name = FILL.name;
  for (let k = 2; names.has(name); k++) name = `${FILL.name} ${k}`;
  const pairs = held.separation.meet === 'stacked' ? films.filter(({ id }) => found.films.some((film) => film.id === id && id !== AROUND_FILM.id)).map(({ id }): MeetingPair => ({ films: [fill.id, id], meet: 'middle' })) : [];
  const all = [...(held.separation.pairs ?? []), ...pairs];
  return { ...held, separation: all.length === 0 ? held.separation : { ...held.separation, pairs: all }, assembly: { ...held.assembly, films: [{ ...fill, name }, ...films] } };
}

function withFilmLike(job: Job, id: string, like: Film): Job {
  const names = new Set(job.assembly.films.map(({ name }) => name));
  let name = `${like.name}, apart`;
  for (let k = 2; names.has(name); k++) name = `${like.name}, apart ${k}`;
  return { ...job, assembly: { ...job.assembly, films: [...job.assembly.films, { id, name, colour: like.colour }] } };
}

/** Takes back everything that was pointed at. */
export const forgetSpots = (job: Job): Job => withSpots(job, () => []);

function withSpots(job: Job, change: (spots: readonly Spot[]) => Spot[]): Job {
  if (job.separation.way !== 'flat') return job;
  const { spots, ...rest } = job.separation;
  const changed = change(spots ?? []).slice(-MAX_SPOTS);
  return { ...job, separation: changed.length === 0 ? rest : { ...rest, spots: changed } };
}

/** Whether a tone stays when the others are found anew. */
export const isKept = (job: Job, { tones }: FoundFilms, tone: number): boolean => job.separation.way === 'flat' && (job.separation.kept ?? []).some(({ colour }) => colour === tones[tone].colour);

/** Keeps a tone, with its film, whatever number of tones is found anew, or no longer. */
export function keepTone(job: Job, found: FoundFilms, tone: number, on: boolean): Job {
  if (job.separation.way !== 'flat') return job;
  const { kept = [], ...rest } = job.separation;
  const { colour, film } = found.tones[tone];
  const others = kept.filter((each) => each.colour !== colour);
  const next = on ? [...others, { colour, film }] : others;
  const rack = on ? found.films.filter(({ id }) => id === film && job.assembly.films.every((each) => each.id !== id)) : [];
  return { ...job, separation: next.length === 0 ? rest : { ...rest, kept: next }, assembly: { ...job.assembly, films: [...job.assembly.films, ...rack] } };
}

/**
 * Lets the palette be found anew, but for the tones that are kept. What is found takes the film of the tone that it was before, by its colour: names, colours, tones cut from one film, pairs of
 * films and areas pointed at go along. A tone that is not found again keeps its film for when it is. Outlines held by hand are let go: their edges may be others then.
 */
export function findTonesAnew(job: Job, found: FoundFilms, count: number | 'auto' = 'auto'): Job {
  if (job.separation.way !== 'flat') return job;
  const { palette: _held, ...rest } = knowing(job, found).separation as FlatSeparation;
  return letGo({ ...job, separation: { ...rest, count }, assembly: { ...job.assembly, films: rackOf(job, found) } });
}

/** The job with the tones that were found known by their films, so that what is said of a film stays with it whatever an earlier step changes. */
export function knowing(job: Job, { tones }: Pick<FoundFilms, 'tones'>): Job {
  if (job.separation.way !== 'flat' || tones.length === 0) return job;
  const now = tones.map(({ colour, film }): HeldTone => ({ colour, film }));
  const before = (job.separation.known ?? []).filter(({ colour, film }) => now.every((tone) => tone.colour !== colour && (tone.film !== film || film === null)));
  return { ...job, separation: { ...job.separation, known: [...now, ...before].slice(0, MAX_KNOWN) } };
}

/** Another way of separating, as it was left, or else as it starts. The way that is left is kept, with the films on the rack. */
export function withWay(job: Job, found: FoundFilms, fresh: Separation): Job {
  const { otherWays = [], ...rest } = job;
  if (fresh.way === job.separation.way) return job;
  const separation = otherWays.find(({ way }) => way === fresh.way) ?? fresh;
  const left = [...otherWays.filter(({ way }) => way !== fresh.way && way !== job.separation.way), knowing(job, found).separation];
  return letGo({ ...rest, separation, otherWays: left, assembly: { ...job.assembly, films: rackOf(job, found).slice(0, MAX_FILMS) } });
}

/** The job without outlines held by hand: all, or that of one film. */
export function letGo(job: Job, film?: string): Job {
  const { held, ...rest } = job.outline;
  const kept = film === undefined ? [] : (held ?? []).filter((each) => each.film !== film);
  return { ...job, outline: kept.length === 0 ? rest : { ...rest, held: kept } };
}

/** Holds outlines by hand, in place of those of the same films. @throws AppError `heldTooLarge` when they are more than a job can keep. */
export function holdOutlines(job: Job, outlines: readonly HeldOutline[]): Job {
  const kept = (job.outline.held ?? []).filter(({ film }) => outlines.every((each) => each.film !== film));
  const held = [...kept, ...outlines];
  const chars = held.reduce((sum, { path }) => sum + path.length, 0);
  if (chars > MAX_HELD_CHARS || held.length > MAX_FILMS) throw new AppError('heldTooLarge', { megabytes: Math.round(chars / 1e6), limitMegabytes: MAX_HELD_CHARS / 1e6, films: MAX_FILMS });
  return { ...job, outline: { ...job.outline, held } };
}

/** Another name or colour of a film. */
export function changeFilm(job: Job, found: FoundFilms, id: string, change: Partial<Omit<Film, 'id'>>): Job {
  const held = job.separation.way === 'flat' ? edited(job, found, (palette) => palette) : job;
  return { ...held, assembly: { ...held.assembly, films: rackOf(held, found).map((film) => (film.id === id ? { ...film, ...change } : film)) } };
}

/** Another place on the rack, counted from the lowest. The border stays below all. */
export function moveFilm(job: Job, found: FoundFilms, id: string, to: number): Job {
  const held = edited(job, found, (palette) => palette);
  const films = rackOf(held, found);
  const from = films.findIndex((film) => film.id === id);
  if (held === job || from < 0 || id === AROUND_FILM.id) return job;
  films.splice(Math.max(0, Math.min(found.films.length - 1, to)), 0, ...films.splice(from, 1));
  return { ...held, assembly: { ...held.assembly, films } };
}

/** The films that are cut, in their order, and those of which nothing is cut now. */
const rackOf = (job: Job, { films }: FoundFilms): Film[] => {
  const more = (has: readonly Film[], others: readonly Film[]): Film[] => [...has, ...others.filter(({ id }) => has.every((film) => film.id !== id))];
  return job.separation.way === 'oneTone' ? more(job.assembly.films, films) : more(films, job.assembly.films);
};

function edited(job: Job, { tones, films }: FoundFilms, change: (palette: readonly HeldTone[]) => HeldTone[] | readonly HeldTone[]): Job {
  if (job.separation.way !== 'flat') return job;
  const before = tones.map(({ colour, film }): HeldTone => ({ colour, film }));
  const palette = [...change(before)];
  const { kept: _kept, ...rest } = job.separation;
  const stays = keptAfter(job.separation.kept ?? [], before, palette);
  const separation: FlatSeparation = { ...rest, count: Math.max(2, palette.length), palette, ...(stays.length === 0 ? {} : { kept: stays }) };
  const wanted = new Set([...palette, ...(separation.spots ?? [])].map(({ film }) => film));
  // A film of which nothing is cut now keeps its name and its place until no tone has it.
  const idle = separation.palette === undefined ? [] : job.assembly.films.filter(({ id }) => films.every((film) => film.id !== id));
  const border = job.assembly.films.filter(({ id }) => id === AROUND_FILM.id);
  // Films of the other ways wait for their return.
  const other = job.assembly.films.filter(({ id }) => !wanted.has(id) && !isToneFilm(id) && films.every((film) => film.id !== id));
  const kept = [...films, ...idle].filter(({ id }) => wanted.has(id) && id !== AROUND_FILM.id).concat(border, other.filter(({ id }) => id !== AROUND_FILM.id));
  return { ...job, separation, assembly: { ...job.assembly, films: kept.length === 0 ? job.assembly.films : kept } };
}

/** Whether a film belongs to a tone of flat colours. */
const isToneFilm = (id: string): boolean => id.startsWith('tone-');

/** The tones that stay, as they are after a change of the palette; one that was taken out of it stays no longer. */
function keptAfter(kept: readonly HeldTone[], before: readonly HeldTone[], palette: readonly HeldTone[]): HeldTone[] {
  return before.flatMap((tone, k) => {
    if (kept.every(({ colour }) => colour !== tone.colour)) return [];
    if (palette.includes(tone)) return [tone];
    return palette.length >= before.length ? [palette[k]] : [];
  });
}

const replaced = (palette: readonly HeldTone[], at: number, change: Partial<HeldTone>): HeldTone[] => palette.map((tone, k) => (k === at ? { ...tone, ...change } : tone));

function freeId(job: Job, { tones, films }: FoundFilms): string {
  const taken = new Set([...tones.map(({ film }) => film), ...[...films, ...job.assembly.films].map(({ id }) => id), ...(job.outline.held ?? []).map(({ film }) => film)]);
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
