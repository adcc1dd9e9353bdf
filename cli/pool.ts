import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import { AppError } from '../src/core/errors/appError.ts';

interface Waiting {
  readonly task: unknown;
  readonly resolve: (answer: unknown) => void;
  readonly reject: (error: Error) => void;
}

/** Threads that do tasks, each one at a time. A thread that dies takes only its own task with it, and another one is started. */
export class Pool {
  private readonly queue: Waiting[] = [];
  private readonly threads: Worker[] = [];
  private closed = false;

  /** @param entry the module that answers tasks, see `answerTasks`. */
  constructor(private readonly entry: URL, size = availableParallelism()) {
    for (let k = 0; k < size; k++) this.start();
  }

  run(task: unknown): Promise<unknown> {
    return new Promise((resolve, reject) => {
      this.queue.push({ task, resolve, reject });
      for (const thread of this.threads) thread.emit('idle');
    });
  }

  async close(): Promise<void> {
    this.closed = true;
    for (const { reject } of this.queue.splice(0)) reject(new AppError('cancelled'));
    await Promise.all(this.threads.map((thread) => thread.terminate()));
  }

  private start(): void {
    const thread = new Worker(this.entry, { argv: [], execArgv: process.execArgv });
    let current: Waiting | undefined;
    const next = (): void => {
      if (current !== undefined || this.closed) return;
      current = this.queue.shift();
      if (current !== undefined) thread.postMessage(current.task);
    };
    thread.on('idle', next);
    thread.on('message', (answer: unknown) => {
      const done = current;
      current = undefined;
      done?.resolve(answer);
      next();
    });
    const lost = (error: unknown): void => {
      const at = this.threads.indexOf(thread);
      if (at < 0) return;
      this.threads.splice(at, 1);
      current?.reject(new AppError('workerLost', {}, error));
      if (this.closed) return;
      this.start();
      this.threads.at(-1)?.emit('idle');
    };
    thread.on('error', lost);
    thread.on('exit', lost);
    this.threads.push(thread);
  }
}
