import { colourNames } from '../colour/colourName.ts';
import { hexFromRgb, rgbFromHex } from '../colour/hex.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { AppError } from '../errors/appError.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { BACK } from '../separate/backDetail.ts';
import type { FlatTones } from '../separate/flatTones.ts';
import type { Film } from '../film/film.ts';
import { BACK_FILM, DETAIL_FILM, shadeId } from '../film/filmRoles.ts';
import type { ToneFact } from '../separate/toneFact.ts';
import type { HeldTone } from '../separate/separation.ts';
import type { FilmsSeparation } from './traceTones.ts';

/**
 * The tones with their share of the art and the film that each becomes: as held, or one for each but the background.
 * @param own what the ids of an object's own films begin with.
 */
export function toneFacts(separation: FilmsSeparation, { labels, tones, ground }: FlatTones, own = ''): ToneFact[] {
  const counts = countsOf(labels.data);
  const there = Math.max(1, labels.data.length - counts[CLEAR]);
  const held = separation.way === 'flat' ? separation.palette : undefined;
  const kept = keptOf(separation);
  const known = separation.way === 'flat' && held === undefined ? matched(tones, separation.known ?? []) : [];
  const taken = new Set([...kept, ...(separation.way === 'flat' ? (separation.known ?? []) : [])].map(({ film }) => film));
  const filmOf = (k: number): string | null => {
    if (held !== undefined) return held[k].film;
    if (separation.way === 'backDetail') return k === BACK ? BACK_FILM.id : DETAIL_FILM.id;
    const stays = kept.find(({ colour }) => colour === hexFromRgb(tones[k]));
    if (stays !== undefined) return stays.film;
    if (known[k] !== undefined) return known[k].film;
    if (k === ground) return null;
    let id = separation.way === 'tones' ? shadeId(k) : `${own}tone-${k + 1}`;
    while (taken.has(id)) id += '-b';
    return id;
  };
  return tones.map((tone, k) => ({ colour: held?.[k].colour ?? hexFromRgb(tone), share: counts[k] / there, film: filmOf(k) }));
}

/** How often each label is there. */
function countsOf(data: Uint8Array): Uint32Array {
  const counts = new Uint32Array(256);
  for (let i = 0; i < data.length; i++) counts[data[i]]++;
  return counts;
}

/** Colours further apart than this are another tone, OKLab × 100: what a crop or smoothing moves a tone's mean by is less. */
const SAME_TONE = 9;

/** For each tone found the one known before that it is, if any: the nearest two first, each known one once. */
function matched(tones: readonly Rgb[], known: readonly HeldTone[]): (HeldTone | undefined)[] {
  const pairs = tones.flatMap((tone, k) => known.map((each) => ({ k, each, off: colourDifference(tone, rgbFromHex(each.colour) as Rgb) })));
  const out = new Array<HeldTone | undefined>(tones.length).fill(undefined);
  const taken = new Set<HeldTone>();
  for (const { k, each } of pairs.filter(({ off }) => off <= SAME_TONE).sort((a, b) => a.off - b.off)) {
    if (out[k] !== undefined || taken.has(each)) continue;
    out[k] = each;
    taken.add(each);
  }
  return out;
}

const keptOf = (separation: FilmsSeparation): readonly HeldTone[] => (separation.way === 'flat' ? (separation.kept ?? []) : []);

/**
 * The films in effect and, where they are held, the order in which they lie over each other: that of the rack.
 * @throws AppError `nothingToCut` when there is none.
 */
export function filmsOf(separation: FilmsSeparation, rack: readonly Film[], facts: readonly ToneFact[]): { films: Film[]; order?: readonly number[] } {
  const pointed = separation.way === 'flat' ? (separation.spots ?? []) : [];
  const wanted = [...new Set([...facts, ...pointed].flatMap(({ film }) => film ?? []))];
  if (wanted.length === 0) throw new AppError('nothingToCut');
  const onRack = (id: string): Film | undefined => rack.find((film) => film.id === id);
  if (separation.way === 'backDetail') {
    const films = [BACK_FILM, DETAIL_FILM].map((film) => onRack(film.id) ?? film);
    return { films, order: films.map((_, k) => k) };
  }
  const named = nameTones(facts);
  if (separation.way === 'flat' && separation.palette !== undefined) {
    const films = [...rack.filter(({ id }) => wanted.includes(id)), ...wanted.filter((id) => onRack(id) === undefined).flatMap((id) => named.get(id) ?? [])];
    return { films, order: films.map((_, k) => k) };
  }
  // Names and colours that were given to tones of lightness, to tones that stay or were known before, and to areas pointed at are held on the rack.
  const stays = new Set([...keptOf(separation), ...(separation.way === 'flat' ? (separation.known ?? []) : []), ...pointed].map(({ film }) => film));
  const films = wanted.flatMap((id) => (separation.way === 'tones' || stays.has(id) ? onRack(id) : undefined) ?? named.get(id) ?? []);
  // Each darker tone lies on the lighter ones.
  if (separation.way === 'tones') return { films, order: films.map((_, k) => k).reverse() };
  // An order that was given to all of them stays.
  const places = films.map(({ id }) => (stays.has(id) ? rack.findIndex((film) => film.id === id) : -1));
  return places.includes(-1) ? { films } : { films, order: films.map((_, k) => k).sort((a, b) => places[a] - places[b]) };
}

/** A film for each tone, in the tone's own colour and named by it. */
function nameTones(facts: readonly ToneFact[]): Map<string, Film> {
  const films = facts.filter(({ film }) => film !== null);
  const names = colourNames(films.map(({ colour }) => rgbFromHex(colour) as Rgb));
  const named = new Map<string, Film>();
  for (const [k, { film, colour }] of films.entries()) if (film !== null && !named.has(film)) named.set(film, { id: film, name: names[k], colour });
  return named;
}
