import type { Job } from '../job/job.ts';
import type { BlankChoice } from '../process/blanks.ts';
import { withWords } from './fillSlots.ts';
import { onBlank } from './onBlank.ts';
import { withAllScaled } from './placeEdits.ts';

/** What is other when a job is made once more. */
export interface Again {
  readonly name?: string | undefined;
  readonly blank?: BlankChoice | undefined;
  /** Of the whole design, mm; what is usual on another blank, or as it was, when absent. */
  readonly widthMm?: number | undefined;
  /** Other words, by the ids of the letterings. One of no words is left out. */
  readonly texts?: ReadonlyMap<string, string> | undefined;
}

/** A copy of a job is an order of its own: for the same customer, at its beginning. */
export function withoutOrder({ order, ...job }: Job): Job {
  return order?.customer === undefined ? job : { ...job, order: { customer: order.customer } };
}

/**
 * The job as a new order, with another name, blank, size or other words. Where it lay on the blank is forgotten when blank or size is another; so is work that lay on the sheet.
 * @param designWidthMm of the job as it is.
 */
export function sameAgain(job: Job, { name, blank, widthMm, texts }: Again, designWidthMm: number): Job {
  const worded: Job = texts === undefined ? job : withWords(job, ({ id, lettering }) => texts.get(id) ?? lettering.text);
  const placed = blank === undefined ? worded : onBlank(worded, blank);
  const sized = widthMm === undefined || !(designWidthMm > 0) ? placed : { ...placed, objects: withAllScaled(worded, widthMm / designWidthMm).objects };
  const { place, ...unplaced } = sized;
  const { work: _, ...layout } = sized.layout;
  const next: Job = { ...withoutOrder(blank === undefined && widthMm === undefined && place !== undefined ? { ...unplaced, place } : unplaced), layout };
  return name === undefined || name.trim() === '' ? next : { ...next, name: name.trim().slice(0, 120) };
}
