import type { Film } from '../film/film.ts';
import type { Job } from '../job/job.ts';
import { plainObjects, type DesignObject, type FigureObject, type GroupObject, type LetteringObject } from '../job/objects.ts';

/** What a design is made of beside its traced art: what can be taken off it again. */
export type AddedObject = Exclude<DesignObject, { kind: 'traced' }>;

/** The job with an object on top of all others, on a film that goes on its rack when it is not there yet. */
export const withNewObject = (job: Job, object: AddedObject, film: Film): Job => ({ ...withFilm(job, film), objects: [...job.objects, object] });

/** The job with a film on its rack: the one that is there already, by its id. */
export const withFilm = (job: Job, film: Film): Job => (job.films.some(({ id }) => id === film.id) ? job : { ...job, films: [...job.films, { ...film }] });

/** The job with one object changed, wherever it lies. */
export function withObjectChanged<Kind extends Exclude<DesignObject, GroupObject>>(job: Job, id: string, change: (object: Kind) => Kind): Job {
  const changed = (object: DesignObject): DesignObject => (object.kind === 'group' ? { ...object, objects: object.objects.map(changed) } : object.id === id ? change(object as Kind) : object);
  return { ...job, objects: job.objects.map(changed) };
}

/** The job without an object. Traced art stays: it is what the job is made of. */
export function withoutObject(job: Job, id: string): Job {
  if (plainObjects(job.objects).some((object) => object.id === id && object.kind === 'traced')) return job;
  const left = (objects: readonly DesignObject[]): DesignObject[] =>
    objects.flatMap((object): DesignObject[] => {
      if (object.id === id) return [];
      if (object.kind !== 'group') return [object];
      const inner = left(object.objects);
      return inner.length === 0 ? [] : [{ ...object, objects: inner }];
    });
  return { ...job, objects: left(job.objects) };
}

/** The job with an object higher or lower by whole places; it stops at the ends. */
export function withObjectMoved(job: Job, id: string, by: number): Job {
  const from = job.objects.findIndex((object) => object.id === id);
  const to = Math.max(0, Math.min(job.objects.length - 1, from + by));
  if (from < 0 || from === to) return job;
  const objects = [...job.objects];
  objects.splice(to, 0, ...objects.splice(from, 1));
  return { ...job, objects };
}

/** The job with an object shifted, mm of the design. */
export const withObjectShifted = (job: Job, id: string, xMm: number, yMm: number): Job =>
  withObjectChanged(job, id, (object) => {
    const { a, b, c, d, e, f } = object.placement ?? { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
    return { ...object, placement: { a, b, c, d, e: e + xMm, f: f + yMm } };
  });

/** An object of the same kind beside another, under its own id. */
export function withDuplicate(job: Job, id: string, newId: string, byMm: number): Job {
  const object = job.objects.find((each) => each.id === id);
  if (object === undefined || object.kind === 'traced' || object.kind === 'group') return job;
  const twin: DesignObject = { ...object, id: newId };
  return withObjectShifted({ ...job, objects: [...job.objects, twin] }, newId, byMm, byMm);
}

/** What a part is called in a list: by its name, or by what it is. */
export function nameOfObject(object: DesignObject, pictureName?: string): string {
  if (object.name !== undefined) return object.name;
  switch (object.kind) {
    case 'traced':
      return pictureName ?? 'Traced art';
    case 'lettering':
      return `“${object.lettering.text.replace(/\s+/g, ' ').slice(0, 40)}”`;
    case 'figure':
      return object.shape.form === 'round' ? 'Round' : 'Rectangle';
    case 'imported':
      return object.fileName;
    case 'group':
      return 'Group';
  }
}

/** What may be set of an object that is added: figures and lettering alike. */
export type FilmedObject = FigureObject | LetteringObject;
