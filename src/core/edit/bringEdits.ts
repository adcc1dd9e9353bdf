import type { Film } from '../film/film.ts';
import { ONE_FILM_ID, oneFilmOf } from '../film/filmRoles.ts';
import { nearestStock } from '../film/stock.ts';
import type { Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { ImportedObject, TracedObject } from '../job/objects.ts';
import type { PictureInfo } from '../job/picture.ts';
import { filmsNamed, ownFilms, tracedPart } from '../job/tracedPart.ts';
import type { Curves } from '../outline/curves.ts';
import { pathData } from '../outline/pathData.ts';
import type { Separation } from '../separate/separation.ts';
import { withFilm, withObjectChanged, withSettings } from './objectEdits.ts';

/** What a drawing brings in one colour, mm of its page. */
export interface DrawnLayer {
  readonly name: string;
  /** `#rrggbb`. */
  readonly colour: string;
  readonly curves: Curves;
}

/** Films nearer than this are taken for the same on the rack, and on the shelf, CIEDE2000. */
const SAME_ON_RACK = 2;
const SAME_ON_SHELF = 6;

/** The job with a drawing on top of all: a film for each of its layers, that of the rack or the shelf that is near enough to its colour, else one of its own. */
export function withDrawing(job: Job, id: string, fileName: string, layers: readonly DrawnLayer[], stock: readonly Film[], placement: Affine): Job {
  let racked = job;
  const paths = layers.map(({ name, colour, curves }, k) => {
    const film = filmFor(colour, name, `${id}-${k + 1}`, racked.films, stock);
    racked = withFilm(racked, film);
    return { film: film.id, path: pathData(curves) };
  });
  const { a, b, c, d, e, f } = placement;
  const object: ImportedObject = { kind: 'imported', id, fileName: fileName.slice(0, 255), paths, placement: { a, b, c, d, e, f } };
  return { ...racked, objects: [...racked.objects, object] };
}

function filmFor(colour: string, name: string, id: string, rack: readonly Film[], stock: readonly Film[]): Film {
  const [onRack] = nearestStock(colour, rack);
  if (onRack !== undefined && onRack.difference <= SAME_ON_RACK) return onRack.film;
  const [onShelf] = nearestStock(colour, stock);
  return onShelf !== undefined && onShelf.difference <= SAME_ON_SHELF ? onShelf.film : { id, name: name.slice(0, 120), colour };
}

/**
 * The job with what another job is made of beside its own: its traced art, its picture and the films that it lies on. A film of the same colour as one of the
 * rack is that one; one that only has the same id as another gets an id of its own.
 * @param other with a traced object whose id this job has not.
 */
export function withTracedOf(job: Job, other: Job, picture: PictureInfo, placement: Affine): Job {
  const { films, ...traced } = tracedPart(other);
  const needed = filmsNamed([traced]);
  const renamed = new Map<string, string>();
  // Of films of one colour those that something lies on come first: others only wait for their way of separating.
  const used = filmsNamed(job.objects);
  const rack = [...job.films.filter(({ id }) => used.has(id)), ...job.films.filter(({ id }) => !used.has(id))];
  let racked = job;
  for (const film of films) {
    if (!needed.has(film.id) && films.length !== needed.size) continue;
    const id = idOnRack(film, rack, traced);
    renamed.set(film.id, id);
    racked = withFilm(racked, { ...film, id });
  }
  const { a, b, c, d, e, f } = placement;
  const object: TracedObject = { ...traced, separation: onFilms(traced.separation, films, (id) => renamed.get(id) ?? id), picture: picture.id, placement: { a, b, c, d, e, f } };
  return { ...racked, pictures: [...racked.pictures.filter(({ id }) => id !== picture.id), picture], objects: [...racked.objects, object] };
}

/** The job with its traced art of one colour on another film, which goes on the rack when it is not there yet. */
export const withOneFilm = (job: Job, id: string, film: Film): Job =>
  withObjectChanged<TracedObject>(withFilm(job, film), id, (object) => (object.separation.way === 'oneTone' ? { ...object, separation: withSettings(object.separation, { film: notFirst(film.id) }) } : object));

/** Under which id a film of a traced object goes on a rack. Shades, and a back and its detail, are the same film throughout a job. */
function idOnRack({ id, colour }: Film, rack: readonly Film[], { id: object, separation: { way } }: TracedObject): string {
  if (way !== 'flat' && way !== 'oneTone') return id;
  const [near] = nearestStock(colour, rack);
  if (near !== undefined && near.difference <= SAME_ON_RACK) return near.film.id;
  return rack.some((film) => film.id === id) ? `${ownFilms(object)}${id}` : id;
}

/** A way of separating with each film of a rack that it lies on under another id. */
function onFilms(separation: Separation, rack: readonly Film[], to: (id: string) => string): Separation {
  if (separation.way === 'oneTone') return withSettings(separation, { film: notFirst(to(oneFilmOf(rack, separation.film).id)) });
  if (separation.way !== 'flat') return separation;
  const renamed = <Named extends { readonly film: string | null }>(list: readonly Named[]): Named[] => list.map((each) => (each.film === null ? each : { ...each, film: to(each.film) }));
  const { palette, kept, known, spots, pairs } = separation;
  return {
    ...separation,
    ...(palette === undefined ? {} : { palette: renamed(palette) }),
    ...(kept === undefined ? {} : { kept: renamed(kept) }),
    ...(known === undefined ? {} : { known: renamed(known) }),
    ...(spots === undefined ? {} : { spots: renamed(spots) }),
    ...(pairs === undefined ? {} : { pairs: pairs.map((pair) => ({ ...pair, films: [to(pair.films[0]), to(pair.films[1])] })) }),
  };
}

/** The film with which a job starts need not be named. */
const notFirst = (id: string): string | undefined => (id === ONE_FILM_ID ? undefined : id);
