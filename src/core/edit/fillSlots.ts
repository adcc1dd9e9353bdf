import type { Job } from '../job/job.ts';
import { plainObjects, type DesignObject, type LetteringObject } from '../job/objects.ts';
import { MAX_LETTERS } from '../lettering/lettering.ts';

/** A slot of a lettering: its name in braces. */
const SLOT = /\{([^{}\n]{1,60})\}/g;

/** What a slot is called, however it is written. */
export const slotName = (text: string): string => text.trim().toLowerCase();

/** The letterings of a job, lowest first, whatever they lie in. */
export const letteringsOf = ({ objects }: Pick<Job, 'objects'>): LetteringObject[] => plainObjects(objects).filter((object) => object.kind === 'lettering');

/** The job with other words in its letterings. One that says nothing then is left out, and so is a group that nothing is left in. */
export function withWords(job: Job, wordsOf: (lettering: LetteringObject) => string): Job {
  const worded = (object: DesignObject): DesignObject[] => {
    if (object.kind === 'group') {
      const objects = object.objects.flatMap(worded);
      return objects.length === 0 ? [] : [{ ...object, objects }];
    }
    if (object.kind !== 'lettering') return [object];
    const text = wordsOf(object).slice(0, MAX_LETTERS);
    return text.trim() === '' ? [] : [{ ...object, lettering: { ...object.lettering, text } }];
  };
  return { ...job, objects: job.objects.flatMap(worded) };
}

/** The slots in the letterings of a job, each once, as `Name` in “{Name}”. */
export function slotsOf(job: Pick<Job, 'objects'>): string[] {
  const texts = letteringsOf(job).map(({ lettering }) => lettering.text);
  return [...new Set(texts.flatMap((text) => [...text.matchAll(SLOT)].map(([, name]) => slotName(name))))];
}

/**
 * The job with its slots filled. A lettering that says nothing then is left out; a slot that no value is for stays as it is written.
 * @param values by the names of the slots, as `slotName` gives them.
 */
export const withSlotsFilled = (job: Job, values: ReadonlyMap<string, string>): Job =>
  withWords(job, ({ lettering }) => lettering.text.replace(SLOT, (whole, name: string) => values.get(slotName(name)) ?? whole));
