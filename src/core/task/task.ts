/**
 * A long computation that reports how far it is. It yields its progress from 0 to 1 and returns its result; whoever drives it may stop
 * between two yields, which is how cancelling works everywhere.
 */
export type Task<Result> = Generator<number, Result, void>;

/** Runs a task to its end in one go. */
export function finish<Result>(task: Task<Result>): Result {
  for (;;) {
    const turn = task.next();
    if (turn.done === true) return turn.value;
  }
}

/** Passes a part's progress on as the range `from` to `to` of the whole. */
export function* within<Result>(task: Task<Result>, from: number, to: number): Task<Result> {
  for (;;) {
    const turn = task.next();
    if (turn.done === true) return turn.value;
    yield from + (to - from) * turn.value;
  }
}
