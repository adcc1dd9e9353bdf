import type { Film } from '../film/film.ts';
import type { Job } from './job.ts';
import { plainObjects, type DesignObject, type TracedObject } from './objects.ts';
import type { PictureInfo } from './picture.ts';

/** The object of a new job, and of one from before there were several. */
export const FIRST_OBJECT_ID = 'art';

/** What the ids of the films begin with that an object's tones are given by themselves, so that those of several objects do not meet. Shades, a back and its detail are shared. */
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

/** The job with a traced object changed, and its rack. A film that another object lies on stays on the rack. */
export function withPart(job: Job, { films, ...part }: TracedPart): Job {
  const needed = filmsNamed(job.objects.filter((object) => object.kind === 'group' || object.id !== part.id));
  const lost = job.films.filter(({ id }) => needed.has(id) && films.every((film) => film.id !== id));
  return { ...job, films: lost.length === 0 ? films : [...films, ...lost], objects: withObject(job.objects, part) };
}

function withObject(objects: readonly DesignObject[], next: TracedObject): DesignObject[] {
  return objects.map((object) => (object.kind === 'group' ? { ...object, objects: withObject(object.objects, next) } : object.id === next.id ? next : object));
}

/** The films that objects name: those they lie on, and those that their tones were given. */
export function filmsNamed(objects: readonly DesignObject[]): Set<string> {
  const named = new Set<string>();
  for (const object of plainObjects(objects)) {
    if (object.kind === 'figure') named.add(object.film);
    else if (object.kind === 'imported') for (const { film } of object.paths) named.add(film);
    else if (object.separation.way === 'flat') for (const { film } of [...(object.separation.palette ?? []), ...(object.separation.known ?? []), ...(object.separation.spots ?? [])]) if (film !== null) named.add(film);
  }
  return named;
}

/** The picture that an object is made of; undefined while it has none. */
export const pictureOf = (job: Pick<Job, 'pictures'>, { picture }: Pick<TracedObject, 'picture'>): PictureInfo | undefined => job.pictures.find(({ id }) => id === picture);

/** The job with another picture for one of its objects. A picture that no object is made of any more is left out. */
export function withPicture(job: Job, objectId: string, picture: PictureInfo): Job {
  const objects = plainObjects(job.objects).reduce((all, object) => (object.kind === 'traced' && object.id === objectId ? withObject(all, { ...object, picture: picture.id }) : all), job.objects);
  const used = new Set(plainObjects(objects).map((object) => (object.kind === 'traced' ? object.picture : undefined)));
  return { ...job, objects, pictures: [...job.pictures.filter(({ id }) => id !== picture.id && used.has(id)), picture] };
}

/** The job with its pictures known by other ids; those that are not named keep theirs. Two that become one are one. */
export function withPictureIds(job: Job, ids: ReadonlyMap<string, string>): Job {
  const renamed = (id: string): string => ids.get(id) ?? id;
  const rename = (object: DesignObject): DesignObject =>
    object.kind === 'group' ? { ...object, objects: object.objects.map(rename) } : object.kind === 'traced' && object.picture !== undefined ? { ...object, picture: renamed(object.picture) } : object;
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
