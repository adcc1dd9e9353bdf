import type { Job } from '../job/job.ts';
import { plainObjects, type DesignObject } from '../job/objects.ts';
import { MAX_LETTERS } from '../lettering/lettering.ts';

/** A slot of a lettering: its name in braces. */
const SLOT = /\{([^{}\n]{1,60})\}/g;

/** What a slot is called, however it is written. */
export const slotName = (text: string): string => text.trim().toLowerCase();

/** The slots in the letterings of a job, each once, as `Name` in “{Name}”. */
export function slotsOf(job: Pick<Job, 'objects'>): string[] {
  const texts = plainObjects(job.objects).flatMap((object) => (object.kind === 'lettering' ? [object.lettering.text] : []));
  return [...new Set(texts.flatMap((text) => [...text.matchAll(SLOT)].map(([, name]) => slotName(name))))];
}

/**
 * The job with its slots filled. A lettering that says nothing then is left out; a slot that no value is for stays as it is written.
 * @param values by the names of the slots, as `slotName` gives them.
 */
export function withSlotsFilled(job: Job, values: ReadonlyMap<string, string>): Job {
  const filled = (object: DesignObject): DesignObject[] => {
    if (object.kind === 'group') {
      const objects = object.objects.flatMap(filled);
      return objects.length === 0 ? [] : [{ ...object, objects }];
    }
    if (object.kind !== 'lettering') return [object];
    const text = object.lettering.text.replace(SLOT, (whole, name: string) => values.get(slotName(name)) ?? whole).slice(0, MAX_LETTERS);
    return text.trim() === '' ? [] : [{ ...object, lettering: { ...object.lettering, text } }];
  };
  return { ...job, objects: job.objects.flatMap(filled) };
}
