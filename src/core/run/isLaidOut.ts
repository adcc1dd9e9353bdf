import { AppError } from '../errors/appError.ts';
import { fits, misfit } from '../layout/laySheet.ts';
import { overOf } from '../print/printPages.ts';
import type { CutResult } from './runJob.ts';

type LaidOut = Pick<CutResult, 'sheets' | 'print'>;

/** Whether all of a job lies on its sheets, or on its pages where it is printed. */
export const isLaidOut = ({ sheets, print }: LaidOut): boolean => (print === undefined ? sheets.every(fits) : print.pages.length > 0);

/** What is wrong when it does not: `doesNotFit` with how much is missing each way. */
export function misfitOf({ sheets, print }: LaidOut): AppError | undefined {
  if (print === undefined) return sheets.map(misfit).find((error) => error !== undefined);
  return print.pages.length > 0 ? undefined : new AppError('doesNotFit', overOf(print));
}
