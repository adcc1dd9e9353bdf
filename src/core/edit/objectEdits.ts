import { FIGURE_FORMS } from '../figure/figure.ts';
import type { Film } from '../film/film.ts';
import type { Job } from '../job/job.ts';
import type { Lettering } from '../lettering/lettering.ts';
import type { DesignObject, FigureObject, LetteringObject } from '../job/objects.ts';
import { say } from '../words/say.ts';

/** What a design is made of beside its traced art: what can be taken off it again. */
export type AddedObject = Exclude<DesignObject, { kind: 'traced' }>;

/** The job with an object on top of all others, on a film that goes on its rack when it is not there yet. */
export const withNewObject = (job: Job, object: AddedObject, film?: Film): Job => {
  const racked = film === undefined ? job : withFilm(job, film);
  return { ...racked, objects: [...racked.objects, object] };
};

/** The job with a film on its rack: the one that is there already, by its id. @param at its place from the lowest; on top when absent. */
export function withFilm(job: Job, film: Film, at = job.films.length): Job {
  if (job.films.some(({ id }) => id === film.id)) return job;
  return { ...job, films: [...job.films.slice(0, at), { ...film }, ...job.films.slice(at)] };
}

/** The object of an id, wherever it lies, groups too. */
export function objectOf(objects: readonly DesignObject[], id: string): DesignObject | undefined {
  for (const object of objects) {
    const found = object.id === id ? object : object.kind === 'group' ? objectOf(object.objects, id) : undefined;
    if (found !== undefined) return found;
  }
  return undefined;
}

/** The job with one object changed, wherever it lies. */
export function withObjectChanged<Kind extends DesignObject>(job: Job, id: string, change: (object: Kind) => Kind): Job {
  const changed = (object: DesignObject): DesignObject =>
    object.id === id ? change(object as Kind) : object.kind === 'group' ? { ...object, objects: object.objects.map(changed) } : object;
  return { ...job, objects: job.objects.map(changed) };
}

/** Settings with some of them changed; those that are set to undefined go. */
export const withSettings = <Settings extends object>(settings: Settings, change: Partial<Settings>): Settings => Object.fromEntries(Object.entries({ ...settings, ...change }).filter(([, value]) => value !== undefined)) as Settings;

/** A lettering set otherwise; any other object as it is. */
export const withLettering = (object: FilmedObject, change: Partial<Lettering>): FilmedObject => (object.kind === 'lettering' ? { ...object, lettering: withSettings(object.lettering, change) } : object);

/** Whether an object is traced, or holds one that is. */
export const holdsTraced = (object: DesignObject): boolean => object.kind === 'traced' || (object.kind === 'group' && object.objects.some(holdsTraced));

/** Whether an object can be taken off: something traced must be left, which is what the job is made of. */
export function canLeave({ objects }: Pick<Job, 'objects'>, id: string): boolean {
  const object = objectOf(objects, id);
  return object !== undefined && without(objects, id).some(holdsTraced);
}

function without(objects: readonly DesignObject[], id: string): DesignObject[] {
  return objects.flatMap((object): DesignObject[] => {
    if (object.id === id) return [];
    if (object.kind !== 'group') return [object];
    const inner = without(object.objects, id);
    return inner.length === 0 ? [] : [{ ...object, objects: inner }];
  });
}

/** The job without an object. The last traced art stays. Pictures that nothing is made of any more go with it. */
export function withoutObject(job: Job, id: string): Job {
  if (!canLeave(job, id)) return job;
  const objects = without(job.objects, id);
  const used = new Set<string | undefined>();
  const note = (object: DesignObject): void => (object.kind === 'group' ? object.objects.forEach(note) : object.kind === 'traced' ? void used.add(object.picture) : undefined);
  objects.forEach(note);
  return { ...job, objects, pictures: job.pictures.filter((picture) => used.has(picture.id)) };
}

/** The job with an object of the outermost list higher or lower by whole places; it stops at the ends. */
export function withObjectMoved(job: Job, id: string, by: number): Job {
  const from = job.objects.findIndex((object) => object.id === id);
  const to = Math.max(0, Math.min(job.objects.length - 1, from + by));
  if (from < 0 || from === to) return job;
  const objects = [...job.objects];
  objects.splice(to, 0, ...objects.splice(from, 1));
  return { ...job, objects };
}

/** What a form of combining is called. */
export const COMBINED = { join: say('Joined'), common: say('Common part'), cutOut: say('Cut out') } as const;

/** What a part is called in a list: by its name, or by what it is. */
export function nameOfObject(object: DesignObject, pictureName?: string): string {
  if (object.name !== undefined) return object.name;
  switch (object.kind) {
    case 'traced':
      return pictureName ?? say('Traced art');
    case 'lettering':
      return say`“${object.lettering.text.replace(/\s+/g, ' ').slice(0, 40)}”`;
    case 'figure':
      return FIGURE_FORMS[object.shape.form].name;
    case 'imported':
      return object.fileName;
    case 'base':
      return object.base.form === 'edge' ? say('Border under all') : say('Board under all');
    case 'holes':
      return say('Holes through all');
    case 'group':
      return object.combine === undefined ? say('Group') : COMBINED[object.combine.how];
  }
}

/** What lies on one film that it names itself. */
export type FilmedObject = FigureObject | LetteringObject;
