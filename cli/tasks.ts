import { parentPort } from 'node:worker_threads';
import { asAppError, plainFromError } from '../src/core/errors/appError.ts';
import { main } from './main.ts';
import { nestNow } from './nestTask.ts';
import type { PoolAnswer, PoolTask } from './poolTask.ts';
import { runOne } from './runOne.ts';

/** Does a task in the thread that calls it. */
async function doTask(task: PoolTask): Promise<PoolAnswer> {
  try {
    if (task.kind === 'nest') return { nested: nestNow(task) };
    if (task.kind === 'run') return { report: await runOne(task) };
    let out = '';
    let err = '';
    const code = await main(task.words, { out: (text) => (out += text), err: (text) => (err += text), live: false });
    return { command: { code, out, err } };
  } catch (error) {
    return { error: plainFromError(asAppError(error, 'unexpected')) };
  }
}

/** Answers the tasks that a pool sends to this thread, until it ends the thread. */
export function answerTasks(): void {
  parentPort?.on('message', (task: PoolTask) => void doTask(task).then((answer) => parentPort?.postMessage(answer)));
}
