import { eachOutline, LONG_OUTLINE_CHARS, withOutlines } from '../core/job/jobOutlines.ts';

/** Of outlines that the worker knows; beyond it those that were named longest ago are forgotten. */
const KNOWN_CHARS = 24_000_000;

/** A job as it crosses to the worker. An outline that it has is named by a number (`known`) in place of its path; a new one says by which it will be (`knownAs`). */
export interface Crossing {
  readonly job: unknown;
  /** Outlines that will not be named again. */
  readonly forget: readonly number[];
}

/** Whether an argument of a call is about a job. */
const isOfJob = (value: unknown): value is { readonly job: unknown } => typeof value === 'object' && value !== null && 'job' in value;

/** On the page: which long outlines the worker has, so that each crosses once however often a job is asked about. */
export class SentOutlines {
  /** By their text, those named longest ago first. */
  private readonly numbers = new Map<string, number>();
  private last = 0;
  private chars = 0;

  /** An argument of a call as it crosses next; they are to arrive in that order. */
  leaving(argument: unknown): unknown {
    return isOfJob(argument) ? { ...argument, ...this.crossing(argument.job) } : argument;
  }

  private crossing(job: unknown): Crossing {
    const named = new Set<string>();
    const fresh = new Set<string>();
    eachOutline(job, ({ path }) => {
      if (typeof path !== 'string' || path.length < LONG_OUTLINE_CHARS) return;
      const number = this.numbers.get(path);
      if (number === undefined) {
        fresh.add(path);
        this.chars += path.length;
      }
      this.numbers.delete(path);
      this.numbers.set(path, number ?? ++this.last);
      named.add(path);
    });
    if (named.size === 0) return { job, forget: [] };
    const lean = withOutlines(job, (outline) => {
      const { path, ...rest } = outline;
      if (typeof path !== 'string' || !named.has(path)) return outline;
      const number = this.numbers.get(path);
      return fresh.delete(path) ? { ...outline, knownAs: number } : { ...rest, known: number };
    });
    return { job: lean, forget: this.overflow(named) };
  }

  private overflow(named: ReadonlySet<string>): number[] {
    const forget: number[] = [];
    for (const [path, number] of this.numbers) {
      if (this.chars <= KNOWN_CHARS || named.has(path)) break;
      this.numbers.delete(path);
      this.chars -= path.length;
      forget.push(number);
    }
    return forget;
  }
}

/** In the worker: the outlines that have crossed. */
export class KnownOutlines {
  private readonly paths = new Map<number, string>();

  /** The argument as it was before it crossed. @throws RangeError for an outline that never came. */
  arrived(argument: unknown): unknown {
    if (!isOfJob(argument)) return argument;
    const { job, forget, ...rest } = argument as Crossing;
    return { ...rest, job: this.whole({ job, forget }) };
  }

  private whole({ job, forget }: Crossing): unknown {
    const whole = withOutlines(job, (outline) => {
      const { knownAs, known, ...rest } = outline;
      if (typeof knownAs === 'number') this.paths.set(knownAs, outline['path'] as string);
      else if (typeof known !== 'number') return outline;
      const path = typeof known === 'number' ? this.paths.get(known) : outline['path'];
      if (path === undefined) throw new RangeError('an outline was named that has not crossed');
      return { ...rest, path };
    });
    for (const number of forget) this.paths.delete(number);
    return whole;
  }
}
