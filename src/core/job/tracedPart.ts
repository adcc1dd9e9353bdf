import type { Film } from '../film/film.ts';
import { BACK_FILM, DETAIL_FILM, ONE_FILM_ID, shadeId } from '../film/filmRoles.ts';
import type { Job } from './job.ts';
import { plainObjects, type DesignObject, type TracedObject } from './objects.ts';
import type { PictureInfo } from './picture.ts';

/** The object of a new job, and of one from before there were several. */
export const FIRST_OBJECT_ID = 'art';

/**
 * What the ids of the films begin with that an object's tones are given by themselves, so that those of several objects do not meet. Shades, a back and its
 * detail are shared.
 */
export const ownFilms = (id: string = FIRST_OBJECT_ID): string => (id === FIRST_OBJECT_ID ? '' : `${id}-`);

/** A traced object together with the rack of its job: all that cleaning, separating and outlining it depends on. */
export interface TracedPart extends TracedObject {
  films: Film[];
}

/** One of the job's traced objects, the lowest unless another is named. @throws RangeError when there is none such. */
export function tracedPart(job: Pick<Job, 'objects' | 'films'>, id?: string): TracedPart {
  const found = plainObjects(job.objects).find((object): object is TracedObject => object.kind === 'traced' && (id === undefined || object.id === id));
  if (found === undefined) throw new RangeError(`the job has no traced object ${id ?? ''}`);
  return { ...found, films: job.films };
}

/** The job with a traced object changed, and its rack. A film that another object lies on stays on the rack, above the one that it was above. */
export function withPart(job: Job, { films, ...part }: TracedPart): Job {
  const needed = new Set([...filmsNamed(withoutPart(job.objects, part.id)), ...filmsOfOperations(part)]);
  const rack = [...films];
  for (const [k, film] of job.films.entries()) {
    if (!needed.has(film.id) || rack.some(({ id }) => id === film.id)) continue;
    const below = job.films.slice(0, k).findLast(({ id }) => rack.some((each) => each.id === id));
    rack.splice(below === undefined ? 0 : rack.findIndex(({ id }) => id === below.id) + 1, 0, film);
  }
  return { ...job, films: rack.length === films.length ? films : rack, objects: withObject(job.objects, part) };
}

function withObject(objects: readonly DesignObject[], next: TracedObject): DesignObject[] {
  return objects.map((object) => (object.kind === 'group' ? { ...object, objects: withObject(object.objects, next) } : object.id === next.id ? next : object));
}

/** The films of the rack that objects lie on: those that they name, and those of their way of separating. */
export const filmsNamed = (objects: readonly DesignObject[]): Set<string> => new Set(objects.flatMap((object) => [...filmsOfObject(object), ...filmsOfOperations(object)]));

/** The films that operations on an object lay down. */
const filmsOfOperations = (object: Pick<TracedObject, 'operations'> | DesignObject): string[] =>
  ('operations' in object ? (object.operations ?? []) : []).flatMap((operation) => ('film' in operation ? [operation.film] : []));

function withoutPart(objects: readonly DesignObject[], id: string): DesignObject[] {
  return objects.flatMap((object): DesignObject[] => (object.id === id ? [] : object.kind === 'group' ? [{ ...object, objects: withoutPart(object.objects, id) }] : [object]));
}

function filmsOfObject(object: DesignObject): string[] {
  if (object.kind === 'group') return [...(object.combine === undefined ? [] : [object.combine.film]), ...filmsNamed(object.objects)];
  if (object.kind === 'holes') return [];
  if (object.kind === 'figure' || object.kind === 'lettering' || object.kind === 'base') return [object.film];
  if (object.kind === 'imported') return object.paths.map(({ film }) => film);
  const { separation } = object;
  switch (separation.way) {
    case 'oneTone':
      return [separation.film ?? ONE_FILM_ID];
    case 'backDetail':
      return [BACK_FILM.id, DETAIL_FILM.id];
    case 'tones':
      return Array.from({ length: separation.count }, (_, k) => shadeId(k));
    case 'flat':
      return [separation.palette, separation.kept, separation.known, separation.spots].flatMap((list) => (list ?? []).flatMap(({ film }) => film ?? []));
  }
}

/** The picture that an object is made of; undefined while it has none. */
export const pictureOf = (job: Pick<Job, 'pictures'>, { picture }: Pick<TracedObject, 'picture'>): PictureInfo | undefined =>
  job.pictures.find(({ id }) => id === picture);

/** The job with another picture for one of its objects. A picture that no object is made of any more is left out. */
export function withPicture(job: Job, objectId: string, picture: PictureInfo): Job {
  const objects = plainObjects(job.objects).reduce(
    (all, object) => (object.kind === 'traced' && object.id === objectId ? withObject(all, { ...object, picture: picture.id }) : all),
    job.objects,
  );
  const used = new Set(plainObjects(objects).map((object) => (object.kind === 'traced' ? object.picture : undefined)));
  return { ...job, objects, pictures: [...job.pictures.filter(({ id }) => id !== picture.id && used.has(id)), picture] };
}

/** The job with its pictures known by other ids; those that are not named keep theirs. Two that become one are one. */
export function withPictureIds(job: Job, ids: ReadonlyMap<string, string>): Job {
  const renamed = (id: string): string => ids.get(id) ?? id;
  const rename = (object: DesignObject): DesignObject =>
    object.kind === 'group'
      ? { ...object, objects: object.objects.map(rename) }
      : object.kind === 'traced' && object.picture !== undefined
        ? { ...object, picture: renamed(object.picture) }
        : object;
  const pictures = new Map(job.pictures.map((picture) => [renamed(picture.id), { ...picture, id: renamed(picture.id) }]));
  return { ...job, pictures: [...pictures.values()], objects: job.objects.map(rename) };
}

/** The job with these pictures and no others: parts that were made of another one wait for a new one. */
export function withPicturesOnly(job: Job, pictures: PictureInfo[]): Job {
  const strip = (object: DesignObject): DesignObject => {
    if (object.kind === 'group') return { ...object, objects: object.objects.map(strip) };
    if (object.kind !== 'traced' || pictures.some(({ id }) => id === object.picture)) return object;
    const { picture: _gone, ...rest } = object;
    return rest;
  };
  return { ...job, pictures, objects: job.objects.map(strip) };
}
