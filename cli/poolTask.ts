import type { PlainError } from '../src/core/errors/appError.ts';
import type { PictureReport, RunTask } from './runOne.ts';

/** What a thread can be asked for: a command on one picture, or a job on one. */
export type PoolTask = { readonly kind: 'command'; readonly words: readonly string[] } | ({ readonly kind: 'run' } & RunTask);

export interface CommandAnswer {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}
export type PoolAnswer = { readonly command: CommandAnswer } | { readonly report: PictureReport } | { readonly error: PlainError };
