import type { Task } from '../core/task/task.ts';

/** Lets waiting messages in. A message channel turns around at once, where a timer would wait four milliseconds. */
export function breathe(): Promise<void> {
  return new Promise((resolve) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => {
      port1.close();
      resolve();
    };
    port2.postMessage(0);
  });
}

/** A page that is worked on stays smooth when what else is to be done stops after this long. */
const TURN_MS = 8;

/** Runs a task to its end beside what is going on. */
export async function inTurns<Result>(task: Task<Result>): Promise<Result> {
  for (let end = performance.now() + TURN_MS; ; ) {
    const turn = task.next();
    if (turn.done === true) return turn.value;
    if (performance.now() < end) continue;
    await breathe();
    end = performance.now() + TURN_MS;
  }
}
