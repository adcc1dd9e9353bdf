import type { OptionSpec, Parsed } from '../arguments.ts';

/** Threads that take tasks; see `PoolTask`. */
export interface TaskPool {
  run(task: unknown): Promise<unknown>;
  close(): Promise<void>;
}

/** Where a command speaks to, and what it may work with. */
export interface Console {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** Whether `err` is a terminal, so that progress may be shown on one line. */
  readonly live: boolean;
  /** Aborted when the person wants to stop: the picture under way is finished, and what was done is told. */
  readonly interrupted?: AbortSignal;
  /** Starts threads, at most so many; all is done in this one when absent. */
  readonly pool?: (size: number) => TaskPool;
}

export interface Command {
  readonly usage: string;
  readonly about: string;
  readonly options: Readonly<Record<string, OptionSpec>>;
  readonly notes?: string;
  /** Does the work; throws AppError. Gives the exit code: 0 all done, 1 something failed, 130 stopped by the person. */
  readonly run: (parsed: Parsed, console: Console) => Promise<number>;
}

/** Exit code of a command that the person stopped: 128 and the number of the signal, as shells count. */
export const STOPPED = 130;
