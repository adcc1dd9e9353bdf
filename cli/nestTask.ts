import type { NestInput, NestedSheet } from '../src/core/nest/nest.ts';
import { nest } from '../src/core/nest/nest.ts';
import { finish } from '../src/core/task/task.ts';

/** A nesting for a thread: plain values, with the moments by the clock between which it runs. */
export interface NestTask extends Omit<NestInput, 'share'> {
  readonly kind: 'nest';
  readonly fromMs: number;
  readonly untilMs: number;
}

/** @throws AppError `doesNotFit`. */
export function nestNow({ fromMs, untilMs, ...input }: NestTask): NestedSheet[] {
  const share = (): number => (untilMs <= fromMs ? 1 : Math.max(0, Math.min(1, (Date.now() - fromMs) / (untilMs - fromMs))));
  return finish(nest({ ...input, share }));
}
