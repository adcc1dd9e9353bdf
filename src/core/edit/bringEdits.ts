import type { Film } from '../film/film.ts';
import { nearestStock } from '../film/stock.ts';
import type { Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { ImportedObject, TracedObject } from '../job/objects.ts';
import type { PictureInfo } from '../job/picture.ts';
import { filmsNamed, tracedPart } from '../job/tracedPart.ts';
import type { Curves } from '../outline/curves.ts';
import { pathData } from '../outline/pathData.ts';
import { withFilm } from './objectEdits.ts';

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

/** The job with what another job is made of beside its own: its traced art, its picture and the films that it lies on. @param other with a traced object whose id this job has not. */
export function withTracedOf(job: Job, other: Job, picture: PictureInfo, placement: Affine): Job {
  const { films, ...traced } = tracedPart(other);
  const { a, b, c, d, e, f } = placement;
  const object: TracedObject = { ...traced, picture: picture.id, placement: { a, b, c, d, e, f } };
  const needed = filmsNamed([object]);
  const racked = films.reduce((left, film) => (needed.has(film.id) || films.length === needed.size ? withFilm(left, film) : left), job);
  return { ...racked, pictures: [...racked.pictures.filter(({ id }) => id !== picture.id), picture], objects: [...racked.objects, object] };
}
