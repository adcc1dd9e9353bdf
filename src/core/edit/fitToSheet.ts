import type { Job } from '../job/job.ts';
import { withPart, type TracedPart } from '../job/tracedPart.ts';
import type { Sheet } from '../layout/laySheet.ts';

/** Room that is left at the edge, so that rounding does not push it over again, share of the size. */
const SLACK = 0.002;

/**
 * The job with its one part as large as fits the cut area with its box and marks.
 * @returns undefined where the design is more than one part, which are sized in Assemble, or there are several copies, of which fewer may be all that is wanted.
 */
export function fittedToSheet(job: Job, part: TracedPart, sheet: Pick<Sheet, 'cutArea' | 'used'>, design: { readonly widthMm: number; readonly heightMm: number }): Job | undefined {
  if (job.objects.length > 1 || job.layout.copies > 1) return undefined;
  const isTurned = job.layout.turned === true;
  const [wide, high] = isTurned ? [design.heightMm, design.widthMm] : [design.widthMm, design.heightMm];
  // What boxes, marks and gaps take up does not shrink with the design.
  const rooms = [(sheet.cutArea.widthMm - sheet.used.widthMm + wide) / wide, (sheet.cutArea.heightMm - sheet.used.heightMm + high) / high];
  const factor = Math.min(...rooms, 1) * (1 - SLACK);
  if (!(factor > 0)) return undefined;
  return withPart(job, { ...part, size: { ...part.size, sizeMm: Math.floor(part.size.sizeMm * factor * 100) / 100 } });
}
