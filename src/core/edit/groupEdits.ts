import { followedBy, IDENTITY } from '../geometry/affine.ts';
import type { Film } from '../film/film.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject, GroupCombine, GroupObject } from '../job/objects.ts';
import type { FlatSeparation } from '../separate/separation.ts';
import type { ToneFact } from '../separate/toneFact.ts';
import { withFilm } from './objectEdits.ts';
import { knowing } from './paletteEdits.ts';

const canBeGrouped = (object: DesignObject): boolean => object.kind !== 'base' && object.kind !== 'holes';

/**
 * The job with some of its outermost objects as one group, which lies where the highest of them lay. Bases and holes are of everything and stay out.
 * @param combine how what lies in it becomes one outline, and on which film.
 */
export function withGroup(job: Job, ids: ReadonlySet<string>, groupId: string, combine?: { readonly how: GroupCombine['how']; readonly film: Film }): Job {
  const inside = job.objects.filter((object) => ids.has(object.id) && canBeGrouped(object));
  if (inside.length < (combine === undefined ? 2 : 1)) return job;
  const group: GroupObject = { kind: 'group', id: groupId, objects: inside, ...(combine === undefined ? {} : { combine: { how: combine.how, film: combine.film.id } }) };
  const highest = job.objects.findLastIndex((object) => inside.includes(object));
  const objects = job.objects.flatMap((object, k): DesignObject[] => (k === highest ? [group] : inside.includes(object) ? [] : [object]));
  return combine === undefined ? { ...job, objects } : withFilm({ ...job, objects }, combine.film);
}

/** The job with what lies in a group lying by itself again, where it is seen. What was done to the group as a whole is gone. */
export function withoutGroup(job: Job, groupId: string): Job {
  const objects = job.objects.flatMap((object): DesignObject[] => {
    if (object.id !== groupId || object.kind !== 'group') return [object];
    return object.objects.map((inner) => {
      if (inner.kind === 'base' || inner.kind === 'holes' || object.placement === undefined) return inner;
      const { a, b, c, d, e, f } = followedBy(inner.placement ?? IDENTITY, object.placement);
      return { ...inner, placement: { a, b, c, d, e, f } };
    });
  });
  return { ...job, objects };
}

/**
 * The job with a double of an object on top of it, all that lies in it under ids of its own. A double of traced art lies on the same films: what its tones are
 * must be known for that. The job itself where that is not, and for bases and holes, which are there once.
 * @param tonesOf what is found in traced art by now, by its id.
 */
export function withDuplicate(job: Job, id: string, newId: string, byMm: number, tonesOf: (id: string) => readonly ToneFact[] | undefined = () => undefined): Job {
  const object = job.objects.find((each) => each.id === id);
  if (object === undefined || object.kind === 'base' || object.kind === 'holes') return job;
  const known = onKnownFilms(object, job.films, tonesOf);
  if (known === undefined) return job;
  const { a, b, c, d, e, f } = object.placement ?? IDENTITY;
  const twin: DesignObject = { ...renamed(known, newId), placement: { a, b, c, d, e: e + byMm, f: f + byMm } };
  return { ...job, objects: [...job.objects, twin] };
}

/** An object whose traced art knows its films by its tones, so that it keeps them under another id; undefined where they are not known. */
function onKnownFilms<Kind extends DesignObject>(object: Kind, films: Job['films'], tonesOf: (id: string) => readonly ToneFact[] | undefined): Kind | undefined {
  if (object.kind === 'group') {
    const objects = object.objects.map((inner) => onKnownFilms(inner, films, tonesOf));
    return objects.every((inner) => inner !== undefined) ? { ...object, objects } : undefined;
  }
  if (object.kind !== 'traced' || object.separation.way !== 'flat') return object;
  const { films: _rack, ...known } = knowing({ ...object, films }, { tones: tonesOf(object.id) ?? [] });
  const { palette, known: names } = known.separation as FlatSeparation;
  return palette === undefined && names === undefined ? undefined : ({ ...object, ...known } as Kind);
}

function renamed<Kind extends DesignObject>(object: Kind, id: string): Kind {
  return object.kind === 'group' ? { ...object, id, objects: object.objects.map((inner, k) => renamed(inner, `${id.slice(0, 34)}-${k}`)) } : { ...object, id };
}
