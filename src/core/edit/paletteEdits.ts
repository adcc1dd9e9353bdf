import { colourNames } from '../colour/colourName.ts';
import { rgbFromHex } from '../colour/hex.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import { ownFilms, type TracedPart } from '../job/tracedPart.ts';
import { MAX_FILMS, type Film } from '../film/film.ts';
import { MAX_HELD_CHARS, type HeldOutline } from '../outline/outlineSettings.ts';
import { MAX_KNOWN, type FlatSeparation, type HeldTone, type MeetingPair, type Separation, type Spot } from '../separate/separation.ts';
import type { ToneFact } from '../separate/toneFact.ts';
import { AROUND_FILM } from '../film/filmRoles.ts';
import { say } from '../words/say.ts';

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
 * Changes of the palette. Each holds what was found as it is and then changes one thing, so that the rest does not move under one's hands. All give a new part;
 * one whose separation is not by flat colours comes back as it is.
 */

/** How many tones there are with the background: where it is clear it is none of them, but counts as one. */
export const countOfTones = (tones: readonly ToneFact[] = []): number => tones.length + (tones.some(({ film }) => film === null) ? 0 : 1);

/** Gives a tone the film of another, or makes it background like it. */
export function mergeTone(part: TracedPart, found: FoundFilms, tone: number, into: number): TracedPart {
  return tone === into ? part : edited(part, found, (palette) => replaced(palette, tone, { film: palette[into].film }));
}

/** Makes a tone background: no film is cut of it. */
export const clearTone = (part: TracedPart, found: FoundFilms, tone: number): TracedPart =>
  edited(part, found, (palette) => replaced(palette, tone, { film: null }));

/** Gives a tone a film of its own, in its own colour. */
export function partTone(part: TracedPart, found: FoundFilms, tone: number): TracedPart {
  const id = freeId(part, found);
  const { colour } = found.tones[tone];
  return withNewFilm(
    edited(part, found, (palette) => replaced(palette, tone, { film: id })),
    id,
    colour,
  );
}

/** Takes a tone out of the palette: its areas go to the tones next to them. The last two stay. */
export const dropTone = (part: TracedPart, found: FoundFilms, tone: number): TracedPart =>
  found.tones.length <= 2 ? part : edited(part, found, (palette) => palette.filter((_, k) => k !== tone));

/** Sets what colour a tone has in the picture. */
export const setTone = (part: TracedPart, found: FoundFilms, tone: number, colour: string): TracedPart =>
  edited(part, found, (palette) => replaced(palette, tone, { colour }));

/** Adds a tone by its colour in the picture, with a film of its own. */
export function addTone(part: TracedPart, found: FoundFilms, colour: string): TracedPart {
  if (found.tones.length >= MAX_TONES) return part;
  const id = freeId(part, found);
  return withNewFilm(
    edited(part, found, (palette) => [...palette, { colour, film: id }]),
    id,
    colour,
  );
}

/** Two tones in place of one: the first keeps its film, the second gets one of its own. */
export function splitTone(part: TracedPart, found: FoundFilms, tone: number, [first, second]: readonly [string, string]): TracedPart {
  if (found.tones.length >= MAX_TONES) return part;
  const id = freeId(part, found);
  return withNewFilm(
    edited(part, found, (palette) => [...replaced(palette, tone, { colour: first }), { colour: second, film: id }]),
    id,
    second,
  );
}

/** Gives several areas, each by a point in it, one film of their own, in the colour and after the name of the one that they have now. */
export function partAreas(part: TracedPart, found: FoundFilms, places: readonly Place[], like: Film): TracedPart {
  if (places.length === 0) return part;
  const id = freeId(part, found);
  const held = withSpots(
    edited(part, found, (palette) => palette),
    (spots) => [...spots, ...places.map(({ xPx, yPx }) => ({ xPx, yPx, film: id }))],
  );
  return held === part ? part : withFilmLike(held, id, like);
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
      const others = tones.flatMap((other, into) =>
        into === tone || other.film === film ? [] : [{ tone, into, share, difference: colourDifference(rgb(colour), rgb(other.colour)) }],
      );
      return others.sort((a, b) => a.difference - b.difference).slice(0, 1);
    })
    .sort((a, b) => a.share - b.share);
}

/** Gives the area at a point another film, or none. */
export const pointAt = (part: TracedPart, found: FoundFilms, at: Place, film: string | null): TracedPart =>
  withSpots(
    edited(part, found, (palette) => palette),
    (spots) => [...spots, { ...at, film }],
  );

/** Makes the area at a point a cut of its own, in the colour and after the name of the film that it has now. */
export function pointApart(part: TracedPart, found: FoundFilms, at: Place, like: Film): TracedPart {
  return partAreas(part, found, [at], like);
}

/** The film that fills an area of background until it is given another. */
const FILL: Omit<Film, 'id'> = { name: say('Fill'), colour: '#f2b632' };

/** Fills an area of background with a film of its own, below all others: where films are stacked, as far as the middle of the lines around it. */
export function fillArea(part: TracedPart, found: FoundFilms, at: Place): TracedPart {
  const held = partAreas(part, found, [at], { id: '', ...FILL });
  if (held === part || held.separation.way !== 'flat') return part;
  const films = [...held.films];
  const fill = films.pop() as Film;
  const names = new Set(films.map(({ name }) => name));
  let name = FILL.name;
  for (let k = 2; names.has(name); k++) name = `${FILL.name} ${k}`;
  const pairs =
    held.separation.meet === 'stacked'
      ? films
          .filter(({ id }) => found.films.some((film) => film.id === id && id !== AROUND_FILM.id))
          .map(({ id }): MeetingPair => ({ films: [fill.id, id], meet: 'middle' }))
      : [];
  const all = [...(held.separation.pairs ?? []), ...pairs];
  return { ...held, separation: all.length === 0 ? held.separation : { ...held.separation, pairs: all }, films: [{ ...fill, name }, ...films] };
}

function withFilmLike(part: TracedPart, id: string, like: Film): TracedPart {
  const names = new Set(part.films.map(({ name }) => name));
  let name = say`${like.name}, apart`;
  for (let k = 2; names.has(name); k++) name = say`${like.name}, apart ${k}`;
  return { ...part, films: [...part.films, { id, name, colour: like.colour }] };
}

/** Takes back everything that was pointed at. */
export const forgetSpots = (part: TracedPart): TracedPart => withSpots(part, () => []);

function withSpots(part: TracedPart, change: (spots: readonly Spot[]) => Spot[]): TracedPart {
  if (part.separation.way !== 'flat') return part;
  const { spots, ...rest } = part.separation;
  const changed = change(spots ?? []).slice(-MAX_SPOTS);
  return { ...part, separation: changed.length === 0 ? rest : { ...rest, spots: changed } };
}

/** Whether a tone stays when the others are found anew. */
export const isKept = (part: TracedPart, { tones }: FoundFilms, tone: number): boolean =>
  part.separation.way === 'flat' && (part.separation.kept ?? []).some(({ colour }) => colour === tones[tone].colour);

/** Keeps a tone, with its film, whatever number of tones is found anew, or no longer. */
export function keepTone(part: TracedPart, found: FoundFilms, tone: number, on: boolean): TracedPart {
  if (part.separation.way !== 'flat') return part;
  const { kept = [], ...rest } = part.separation;
  const { colour, film } = found.tones[tone];
  const others = kept.filter((each) => each.colour !== colour);
  const next = on ? [...others, { colour, film }] : others;
  const rack = on ? found.films.filter(({ id }) => id === film && part.films.every((each) => each.id !== id)) : [];
  return { ...part, separation: next.length === 0 ? rest : { ...rest, kept: next }, films: [...part.films, ...rack] };
}

/**
 * Lets the palette be found anew, but for the tones that are kept. What is found takes the film of the tone that it was before, by its colour: names, colours,
 * tones cut from one film, pairs of films and areas pointed at go along. A tone that is not found again keeps its film for when it is. Outlines held by hand
 * are let go: their edges may be others then.
 */
export function findTonesAnew(part: TracedPart, found: FoundFilms, count: number | 'auto' = 'auto'): TracedPart {
  if (part.separation.way !== 'flat') return part;
  const { palette: _held, ...rest } = knowing(part, found).separation as FlatSeparation;
  return letGo({ ...part, separation: { ...rest, count }, films: rackOf(part, found) });
}

/** The part with the tones that were found known by their films, so that what is said of a film stays with it whatever an earlier step changes. */
export function knowing(part: TracedPart, { tones }: Pick<FoundFilms, 'tones'>): TracedPart {
  if (part.separation.way !== 'flat' || tones.length === 0) return part;
  const now = tones.map(({ colour, film }): HeldTone => ({ colour, film }));
  const before = (part.separation.known ?? []).filter(({ colour, film }) =>
    now.every((tone) => tone.colour !== colour && (tone.film !== film || film === null)),
  );
  return { ...part, separation: { ...part.separation, known: [...now, ...before].slice(0, MAX_KNOWN) } };
}

/** Another way of separating, as it was left, or else as it starts. The way that is left is kept, with the films on the rack. */
export function withWay(part: TracedPart, found: FoundFilms, fresh: Separation): TracedPart {
  const { otherWays = [], ...rest } = part;
  if (fresh.way === part.separation.way) return part;
  const separation = otherWays.find(({ way }) => way === fresh.way) ?? fresh;
  const left = [...otherWays.filter(({ way }) => way !== fresh.way && way !== part.separation.way), knowing(part, found).separation];
  return letGo({ ...rest, separation, otherWays: left, films: rackOf(part, found).slice(0, MAX_FILMS) });
}

/** The part without outlines held by hand: all, or that of one film. */
export function letGo(part: TracedPart, film?: string): TracedPart {
  const { held, ...rest } = part.outline;
  const kept = film === undefined ? [] : (held ?? []).filter((each) => each.film !== film);
  return { ...part, outline: kept.length === 0 ? rest : { ...rest, held: kept } };
}

/** Holds outlines by hand, in place of those of the same films. @throws AppError `heldTooLarge` when they are more than a part can keep. */
export function holdOutlines(part: TracedPart, outlines: readonly HeldOutline[]): TracedPart {
  const kept = (part.outline.held ?? []).filter(({ film }) => outlines.every((each) => each.film !== film));
  const held = [...kept, ...outlines];
  const chars = held.reduce((sum, { path }) => sum + path.length, 0);
  if (chars > MAX_HELD_CHARS || held.length > MAX_FILMS)
    throw new AppError('heldTooLarge', { megabytes: Math.round(chars / 1e6), limitMegabytes: MAX_HELD_CHARS / 1e6, films: MAX_FILMS });
  return { ...part, outline: { ...part.outline, held } };
}

/** Another name or colour of a film. */
export function changeFilm(part: TracedPart, found: FoundFilms, id: string, change: Partial<Omit<Film, 'id'>>): TracedPart {
  const held = part.separation.way === 'flat' ? edited(part, found, (palette) => palette) : part;
  return { ...held, films: rackOf(held, found).map((film) => (film.id === id ? { ...film, ...change } : film)) };
}

/** Another place on the rack, counted from the lowest. The border stays below all. */
export function moveFilm(part: TracedPart, found: FoundFilms, id: string, to: number): TracedPart {
  const held = edited(part, found, (palette) => palette);
  const films = rackOf(held, found);
  const from = films.findIndex((film) => film.id === id);
  if (held === part || from < 0 || id === AROUND_FILM.id) return part;
  films.splice(Math.max(0, Math.min(found.films.length - 1, to)), 0, ...films.splice(from, 1));
  return { ...held, films };
}

/** The films that are cut, in their order, and those of which nothing is cut now. */
const rackOf = (part: TracedPart, { films }: FoundFilms): Film[] => {
  const more = (has: readonly Film[], others: readonly Film[]): Film[] => [...has, ...others.filter(({ id }) => has.every((film) => film.id !== id))];
  return part.separation.way === 'oneTone' ? more(part.films, films) : more(films, part.films);
};

function edited(part: TracedPart, { tones, films }: FoundFilms, change: (palette: readonly HeldTone[]) => HeldTone[] | readonly HeldTone[]): TracedPart {
  if (part.separation.way !== 'flat') return part;
  const before = tones.map(({ colour, film }): HeldTone => ({ colour, film }));
  const palette = [...change(before)];
  const { kept: _kept, ...rest } = part.separation;
  const stays = keptAfter(part.separation.kept ?? [], before, palette);
  const separation: FlatSeparation = { ...rest, count: Math.max(2, palette.length), palette, ...(stays.length === 0 ? {} : { kept: stays }) };
  const wanted = new Set([...palette, ...(separation.spots ?? [])].map(({ film }) => film));
  // A film of which nothing is cut now keeps its name and its place until no tone has it.
  const idle = separation.palette === undefined ? [] : part.films.filter(({ id }) => films.every((film) => film.id !== id));
  const border = part.films.filter(({ id }) => id === AROUND_FILM.id);
  // Films of the other ways wait for their return.
  const other = part.films.filter(({ id }) => !wanted.has(id) && !isToneFilm(part, id) && films.every((film) => film.id !== id));
  const kept = [...films, ...idle]
    .filter(({ id }) => wanted.has(id) && id !== AROUND_FILM.id)
    .concat(
      border,
      other.filter(({ id }) => id !== AROUND_FILM.id),
    );
  return { ...part, separation, films: kept.length === 0 ? part.films : kept };
}

/** Whether a film belongs to a tone of the part's flat colours. */
const isToneFilm = (part: TracedPart, id: string): boolean => id.startsWith(`${ownFilms(part.id)}tone-`);

/** The tones that stay, as they are after a change of the palette; one that was taken out of it stays no longer. */
function keptAfter(kept: readonly HeldTone[], before: readonly HeldTone[], palette: readonly HeldTone[]): HeldTone[] {
  return before.flatMap((tone, k) => {
    if (kept.every(({ colour }) => colour !== tone.colour)) return [];
    if (palette.includes(tone)) return [tone];
    return palette.length >= before.length ? [palette[k]] : [];
  });
}

const replaced = (palette: readonly HeldTone[], at: number, change: Partial<HeldTone>): HeldTone[] =>
  palette.map((tone, k) => (k === at ? { ...tone, ...change } : tone));

function freeId(part: TracedPart, { tones, films }: FoundFilms): string {
  const taken = new Set([
    ...tones.map(({ film }) => film),
    ...[...films, ...part.films].map(({ id }) => id),
    ...(part.outline.held ?? []).map(({ film }) => film),
  ]);
  let k = tones.length + 1;
  const own = ownFilms(part.id);
  while (taken.has(`${own}tone-${k}`)) k++;
  return `${own}tone-${k}`;
}

function withNewFilm(part: TracedPart, id: string, colour: string): TracedPart {
  const films = part.films.filter((film) => film.id !== id);
  const names = new Set(films.map(({ name }) => name));
  const [plain] = colourNames([rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 }]);
  let name = plain;
  for (let k = 2; names.has(name); k++) name = `${plain} ${k}`;
  return { ...part, films: [...films, { id, name, colour }] };
}
