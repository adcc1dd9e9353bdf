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

/** After so many rows of a picture others may have their turn: a few milliseconds of simple work on twelve megapixels. */
const ROWS_PER_TURN = 128;

/** Works through the rows of a picture, in turns; its progress is the share of them that is done. */
export function* byRows(height: number, work: (y: number) => void): Task<void> {
  for (let y = 0; y < height; y++) {
    work(y);
    if (y % ROWS_PER_TURN === ROWS_PER_TURN - 1) yield y / height;
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
