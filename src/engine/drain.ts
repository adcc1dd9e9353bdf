import { AppError } from '../core/errors/appError.ts';
import type { Task } from '../core/task/task.ts';
import { breathe } from '../formats/inTurns.ts';

/** A task gives way after this long, so that a newer request or a cancel is heard. */
const SLICE_MS = 16;

/**
 * Runs a task in slices. Messages that wait already are heard before the first, so that of calls that come together only those that are still wanted are begun.
 * @throws AppError `cancelled` as soon as `isStale` says so before a slice.
 */
export async function drain<Result>(task: Task<Result>, isStale: () => boolean, onProgress?: (share: number) => void): Promise<Result> {
  await breathe();
  if (isStale()) throw new AppError('cancelled');
  let sliceEnd = performance.now() + SLICE_MS;
  for (;;) {
    const turn = task.next();
    if (turn.done === true) return turn.value;
    if (performance.now() < sliceEnd) continue;
    onProgress?.(turn.value);
    await breathe();
    if (isStale()) throw new AppError('cancelled');
    sliceEnd = performance.now() + SLICE_MS;
  }
}
