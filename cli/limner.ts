import { isMainThread } from 'node:worker_threads';
import { main } from './main.ts';
import { Pool } from './pool.ts';
import { answerTasks } from './tasks.ts';

/** The command's beginning: in its own thread as a program, in others as one that does a part of the work. */
if (isMainThread) {
  // Whoever reads what is said may stop reading: “| head” is no fault.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'EPIPE') throw error;
  });
  const interrupt = new AbortController();
  // The picture under way is finished and what was done is reported; asked a second time it ends at once.
  process.once('SIGINT', () => interrupt.abort());
  void main(process.argv.slice(2), {
    out: (text) => process.stdout.write(text),
    err: (text) => process.stderr.write(text),
    live: process.stderr.isTTY,
    interrupted: interrupt.signal,
    pool: (size) => new Pool(new URL(import.meta.url), size),
  }).then((code) => (process.exitCode = code));
} else {
  answerTasks();
}
