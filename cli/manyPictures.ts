import { availableParallelism } from 'node:os';
import { AppError, asAppError, plainFromError } from '../src/core/errors/appError.ts';
import type { Console, TaskPool } from './commands/command.ts';
import type { PoolAnswer, PoolTask } from './poolTask.ts';

/** A part of the work that can be done anywhere: as a task of another thread, or here. */
export interface PictureWork {
  /** What the picture is called while it is worked on. */
  readonly name: string;
  readonly task: PoolTask;
  readonly here: () => Promise<PoolAnswer>;
}

/**
 * Does work for each picture, on all cores where there are several of both, and hands on each answer in the order of the pictures. When the person stops, what is under way is
 * finished and nothing else is begun.
 * @param threads whether other threads may be asked; all is done in this one otherwise. @returns how many were done.
 */
export async function manyPictures(works: readonly PictureWork[], console: Console, threads: boolean, onAnswer: (answer: PoolAnswer, index: number) => void): Promise<number> {
  const size = Math.min(works.length, availableParallelism());
  const pool: TaskPool | undefined = threads && size > 1 ? console.pool?.(size) : undefined;
  const answers = new Array<PoolAnswer | undefined>(works.length);
  let begun = 0;
  let done = 0;
  let told = 0;
  const next = async (): Promise<void> => {
    while (begun < works.length && console.interrupted?.aborted !== true) {
      const index = begun++;
      if (console.live && pool === undefined) console.err(`\r${index + 1}/${works.length} ${works[index].name}\u001b[K`);
      answers[index] = await answerOf(works[index], pool);
      done++;
      for (; told < works.length && answers[told] !== undefined; told++) onAnswer(answers[told] as PoolAnswer, told);
      if (console.live && pool !== undefined) console.err(`\r${done}/${works.length} ${works[index].name}\u001b[K`);
    }
  };
  try {
    await Promise.all(Array.from({ length: pool === undefined ? 1 : size }, next));
  } finally {
    await pool?.close();
    if (console.live) console.err('\r\u001b[K');
  }
  return done;
}

async function answerOf({ task, here }: PictureWork, pool: TaskPool | undefined): Promise<PoolAnswer> {
  try {
    return pool === undefined ? await here() : ((await pool.run(task)) as PoolAnswer);
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    return { error: plainFromError(asAppError(error, 'unexpected')) };
  }
}
