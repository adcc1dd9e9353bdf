import type { Job } from '../job/job.ts';
import { plainObjects, type DesignObject } from '../job/objects.ts';
import { MAX_LETTERS } from '../lettering/lettering.ts';

/** A blank of a lettering: its name in braces. */
const BLANK = /\{([^{}\n]{1,60})\}/g;

/** What a blank is called, however it is written. */
export const blankName = (text: string): string => text.trim().toLowerCase();

/** The blanks in the letterings of a job, each once, as `Name` in “{Name}”. */
export function blanksOf(job: Pick<Job, 'objects'>): string[] {
  const texts = plainObjects(job.objects).flatMap((object) => (object.kind === 'lettering' ? [object.lettering.text] : []));
  return [...new Set(texts.flatMap((text) => [...text.matchAll(BLANK)].map(([, name]) => blankName(name))))];
}

/**
 * The job with its blanks filled. A lettering that says nothing then is left out; a blank that no value is for stays as it is written.
 * @param values by the names of the blanks, as `blankName` gives them.
 */
export function withBlanksFilled(job: Job, values: ReadonlyMap<string, string>): Job {
  const filled = (object: DesignObject): DesignObject[] => {
    if (object.kind === 'group') {
      const objects = object.objects.flatMap(filled);
      return objects.length === 0 ? [] : [{ ...object, objects }];
    }
    if (object.kind !== 'lettering') return [object];
    const text = object.lettering.text.replace(BLANK, (whole, name: string) => values.get(blankName(name)) ?? whole).slice(0, MAX_LETTERS);
    return text.trim() === '' ? [] : [{ ...object, lettering: { ...object.lettering, text } }];
  };
  return { ...job, objects: job.objects.flatMap(filled) };
}
