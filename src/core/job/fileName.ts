import { PROCESSES } from '../process/processes.ts';
import type { Job } from './job.ts';
import { say } from '../words/say.ts';

/** What can stand in a pattern of file names, and what it says. */
export const NAME_SLOTS = {
  job: say('the job’s name'),
  blank: say('the blank'),
  process: say('the process'),
  width: say('finished width in mm'),
  date: say('the day, as 2026-11-28'),
} as const;
type NameSlot = keyof typeof NAME_SLOTS;

export const USUAL_NAME = '{job}';

/** Signs that some system does not take in the name of a file. */
const NOT_IN_NAMES = /[<>:"/\\|?*\u0000-\u001f]/g;
const MOST_CHARS = 100;

/**
 * What the names of a job's files begin with: its pattern with the slots filled, without signs that some system does not take.
 * @param widthMm of the finished design. @param date as `2026-11-28`.
 */
export function fileNameOf({ name, blank, process, handOff }: Pick<Job, 'name' | 'blank' | 'process' | 'handOff'>, widthMm: number, date: string): string {
  const words: Readonly<Record<NameSlot, string>> = { job: name, blank: blank.name, process: PROCESSES[process].name, width: `${Math.round(widthMm)} mm`, date };
  const filled = (handOff.nameAs ?? USUAL_NAME).replace(/\{(\w+)\}/g, (slot, which: string) => (which in words ? words[which as NameSlot] : slot));
  return plainName(filled);
}

/** Words as the name of a file that every system takes. */
export function plainName(words: string): string {
  const plain = words.replace(NOT_IN_NAMES, '-').replace(/\s+/g, ' ').replace(/[. ]+$/, '').trim().slice(0, MOST_CHARS);
  return plain === '' ? 'job' : plain;
}
