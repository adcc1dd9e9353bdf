import type { Task } from '../src/core/task/task.ts';
import type { Console } from './commands/command.ts';

/** How often a line of progress is written anew, ms. */
const EVERY_MS = 150;

/** Runs a task to its end; on a terminal it says how far it is, and wipes that away. */
export function finishTelling<Result>(task: Task<Result>, console: Console, words: string): Result {
  let told = performance.now();
  let isShown = false;
  try {
    for (;;) {
      const turn = task.next();
      if (turn.done === true) return turn.value;
      if (!console.live || performance.now() - told < EVERY_MS) continue;
      told = performance.now();
      isShown = true;
      console.err(`\r${words} ${Math.round(100 * turn.value)} %\u001b[K`);
    }
  } finally {
    if (isShown) console.err('\r\u001b[K');
  }
}
