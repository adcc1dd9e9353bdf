import type { Film } from '../film/film.ts';
import { nearestStock } from '../film/stock.ts';
import type { TracedPart } from '../job/tracedPart.ts';
import type { FlatSeparation } from '../separate/separation.ts';
import type { FoundFilms } from './paletteEdits.ts';

/** Gives a film name and colour of one on the shelf; when another film of the part is that one already, the two become one. */
export function takeFromStock(part: TracedPart, found: FoundFilms, id: string, from: Film): TracedPart {
  const other = found.films.find((film) => film.id !== id && film.name === from.name && film.colour === from.colour);
  return withFilms(part, found, new Map([[id, other ?? { id, name: from.name, colour: from.colour }]]));
}

/** Gives every film what lies nearest to the colour of its largest tone on the shelf. Tones that find the same are cut from one film. */
export function matchStock(part: TracedPart, found: FoundFilms, stock: readonly Film[]): TracedPart {
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
  return withFilms(part, found, matches);
}

/** Puts films in the place of others; several may become one. */
function withFilms(part: TracedPart, { tones, films }: FoundFilms, matches: ReadonlyMap<string, Film>): TracedPart {
  const { separation } = part;
  const next = new Map(films.map((film) => [film.id, matches.get(film.id) ?? film]));
  const kept = [...new Map([...next.values()].map((film) => [film.id, film])).values()];
  if (separation.way !== 'flat') {
    // The films of other ways stand for lightness and stay apart; only names and colours are taken.
    return { ...part, films: films.map((film) => ({ ...(matches.get(film.id) ?? film), id: film.id })) };
  }
  const of = (id: string | null): string | null => (id === null ? null : (next.get(id)?.id ?? id));
  const held: FlatSeparation = {
    ...separation,
    palette: tones.map(({ colour, film }) => ({ colour, film: of(film) })),
    count: Math.max(2, tones.length),
    ...(separation.kept === undefined ? {} : { kept: separation.kept.map(({ colour, film }) => ({ colour, film: of(film) })) }),
    ...(separation.spots === undefined ? {} : { spots: separation.spots.map((spot) => ({ ...spot, film: of(spot.film) })) }),
  };
  return { ...part, separation: held, films: kept };
}
