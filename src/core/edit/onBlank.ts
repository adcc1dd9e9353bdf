import type { Job } from '../job/job.ts';
import { BLANKS, type BlankChoice } from '../process/blanks.ts';

/**
 * The job on another blank, in the size and by the process that are usual there. A size or process that was set in the job, other than the usual one of the blank before, stays; so
 * does that of a blank of one's own.
 */
export function onBlank(job: Job, { blank, process, widthMm }: BlankChoice): Job {
  const before = BLANKS.find((choice) => choice.blank.name === job.blank.name);
  const { assembly } = job;
  const isUsualSize = before !== undefined && assembly.by === 'width' && assembly.sizeMm === before.widthMm;
  const isUsualProcess = before !== undefined && job.process === before.process;
  return { ...job, blank, ...(isUsualProcess ? { process } : {}), ...(isUsualSize ? { assembly: { ...assembly, sizeMm: widthMm } } : {}) };
}
