import type { Job } from '../job/job.ts';
import { tracedPart, withPart } from '../job/tracedPart.ts';
import { withProcess } from './withProcess.ts';
import { BLANKS, type BlankChoice } from '../process/blanks.ts';
import { say } from '../words/say.ts';

/**
 * The job on another blank, in the size and by the process that are usual there. A size or process that was set in the job, other than the usual one of the
 * blank before, stays; so does that of a blank of one's own.
 */
export function onBlank(job: Job, { blank, process, widthMm }: BlankChoice): Job {
  // Also a job that was begun in English, once another language is spoken.
  const before = BLANKS.find(({ blank: { name } }) => name === job.blank.name || name === say(job.blank.name));
  const part = tracedPart(job);
  const { size } = part;
  const isUsualSize = before !== undefined && size.by === 'width' && size.sizeMm === before.widthMm;
  const isUsualProcess = before !== undefined && job.process === before.process;
  const sized = { ...(isUsualSize ? withPart(job, { ...part, size: { ...size, sizeMm: widthMm } }) : job), blank };
  return isUsualProcess ? withProcess(sized, process) : sized;
}
