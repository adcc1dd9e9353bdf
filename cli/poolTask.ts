import type { PlainError } from '../src/core/errors/appError.ts';
import type { NestedSheet } from '../src/core/nest/nest.ts';
import type { NestTask } from './nestTask.ts';
import type { PictureReport, RunTask } from './runOne.ts';

/** What a thread can be asked for: a command on one picture, a job on one, or a nesting. */
export type PoolTask = NestTask | { readonly kind: 'command'; readonly words: readonly string[] } | ({ readonly kind: 'run' } & RunTask);

export interface CommandAnswer {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}
export type PoolAnswer = { readonly command: CommandAnswer } | { readonly report: PictureReport } | { readonly nested: NestedSheet[] } | { readonly error: PlainError };
