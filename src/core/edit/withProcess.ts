import type { Job } from '../job/job.ts';
import { usualLayout } from '../layout/layout.ts';
import { PROCESSES, type Process } from '../process/processes.ts';

/** The job by another process; from cutting to printing, or back, with the sheets or pages that are usual then. */
export const withProcess = (job: Job, process: Process): Job => ({ ...job, process, ...(PROCESSES[process].isPrinted === PROCESSES[job.process].isPrinted ? {} : { layout: usualLayout(process) }) });
