import type { OptionSpec, Parsed } from '../arguments.ts';

/** Where a command speaks to. */
export interface Console {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** Whether `err` is a terminal, so that progress may be shown on one line. */
  readonly live: boolean;
}

export interface Command {
  readonly usage: string;
  readonly about: string;
  readonly options: Readonly<Record<string, OptionSpec>>;
  readonly notes?: string;
  /** Does the work; throws AppError. Gives the exit code: 0 all done, 1 something failed. */
  readonly run: (parsed: Parsed, console: Console) => Promise<number>;
}
