import { appendFile, readFile, rename, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import type { Job } from '../src/core/job/job.ts';
import { canonicalJson, hashText } from '../src/core/task/hash.ts';
import { reasonOf } from './files.ts';
import type { Outputs } from './outputs.ts';
import type { PictureReport, RunTask } from './runOne.ts';

/** One part of the pictures of a run, counted from 1. */
export interface Shard {
  readonly part: number;
  readonly of: number;
}

/** What a picture's entry was made of: the same again need not be made anew. */
interface MadeOf {
  /** Job, options and names. */
  readonly settings: string;
  /** The picture file. */
  readonly bytes: number;
  readonly modified: string;
}

/** What became of one picture of a run. */
export interface RunEntry extends PictureReport {
  /** What its files' names begin with. */
  readonly name: string;
  readonly madeOf?: MadeOf;
}

/** The report of a run, or of a part of one. */
export interface RunReport {
  readonly job: string;
  readonly shard?: Shard;
  readonly stopped?: boolean;
  readonly notDone?: number;
  readonly pictures: readonly RunEntry[];
}

/** Reads `2/8`. @throws AppError `badValue`. */
export function shardFrom(text: string): Shard {
  const [part, of] = /^[0-9]{1,6}\/[0-9]{1,6}$/.test(text) ? text.split('/').map(Number) : [NaN, NaN];
  if (!(part >= 1 && part <= of)) throw new AppError('badValue', { name: '--shard', value: text, takes: 'a part and how many there are, such as 2/8' });
  return { part, of };
}

export const isOfShard = (shard: Shard | undefined, index: number): boolean => shard === undefined || index % shard.of === shard.part - 1;

const reportName = (shard: Shard | undefined): string => (shard === undefined ? 'report' : `report-${shard.part}-of-${shard.of}`);

const hashes = new WeakMap<Job, string>();

/** Of a job that thousands of tasks may share. */
function jobHash(job: Job): string {
  const known = hashes.get(job) ?? hashText(canonicalJson(job));
  hashes.set(job, known);
  return known;
}

/** What a task would be made of now; undefined where the picture is no file or is not there. */
export async function madeOf({ job, proposed, keepJob, input, wanted, name }: RunTask): Promise<MadeOf | undefined> {
  if (!('path' in input)) return undefined;
  const found = await stat(input.path).catch(() => undefined);
  if (found === undefined) return undefined;
  return { settings: hashText(canonicalJson([jobHash(job), proposed, keepJob, wanted, name])), bytes: found.size, modified: found.mtime.toISOString() };
}

/**
 * The report of a run while it grows: every entry is on disk as soon as its picture is done, so that a run that is broken off can go on where it was. What was found on disk before is dropped
 * unless the run is to go on.
 */
export class GrowingReport {
  private readonly entries = new Map<string, RunEntry>();
  private written: Promise<void> = Promise.resolve();

  private constructor(
    private readonly folder: string,
    private readonly shard: Shard | undefined,
  ) {}

  static async start(folder: string, shard: Shard | undefined, goesOn: boolean): Promise<GrowingReport> {
    const report = new GrowingReport(folder, shard);
    if (goesOn) for (const entry of await report.found()) report.entries.set(entry.name, entry);
    // What was found stays on disk: a run may be broken off more than once. Whole or not at all, and without a line that was torn.
    const found = [...report.entries.values()].map((entry) => `${JSON.stringify(entry)}\n`);
    await writeFile(`${report.growing}.part`, found.join(''));
    await rename(`${report.growing}.part`, report.growing);
    return report;
  }

  private get growing(): string {
    return join(this.folder, `${reportName(this.shard)}.growing.jsonl`);
  }

  /** The entries of a run before: those of its report, and those that were done since. */
  private async found(): Promise<RunEntry[]> {
    const whole = await readFile(join(this.folder, `${reportName(this.shard)}.json`), 'utf8').catch(() => undefined);
    const lines = await readFile(this.growing, 'utf8').catch(() => '');
    return [...(whole === undefined ? [] : entriesOf(whole)), ...entriesOfLines(lines)];
  }

  /** Whether a task was done before, of the same and well, and its files are still there. */
  async has(task: RunTask): Promise<boolean> {
    const entry = this.entries.get(task.name);
    const now = await madeOf(task);
    if (entry === undefined || !entry.ok || now === undefined || canonicalJson(entry.madeOf) !== canonicalJson(now)) return false;
    const there = await Promise.all(entry.files.map((file) => stat(join(this.folder, file)).then(() => true, () => false)));
    return there.every((is) => is);
  }

  /** Takes an entry up; it is on disk by the time that the report is ended. */
  add(entry: RunEntry): void {
    this.entries.set(entry.name, entry);
    this.written = this.written.then(() => appendFile(this.growing, `${JSON.stringify(entry)}\n`));
    // Told when the report is ended.
    this.written.catch(() => undefined);
  }

  /** Writes the report, in the order of the pictures' names that are given. */
  async end(outputs: Outputs, report: Omit<RunReport, 'pictures' | 'shard'>, names: readonly string[]): Promise<RunEntry[]> {
    await this.written.catch((error: unknown) => {
      throw new AppError('cannotWrite', { file: this.growing, message: reasonOf(error) }, error);
    });
    const pictures = names.flatMap((name) => this.entries.get(name) ?? []);
    const whole: RunReport = { ...report, ...(this.shard === undefined ? {} : { shard: this.shard }), pictures };
    await outputs.write(join(this.folder, `${reportName(this.shard)}.json`), `${JSON.stringify(whole, null, 2)}\n`);
    await rm(this.growing, { force: true });
    return pictures;
  }
}

/** The entries of a report from disk: those that say what they are of; none of what is no report. */
export function entriesOf(text: string): RunEntry[] {
  const report = parsed(text);
  const pictures: unknown = typeof report === 'object' && report !== null && 'pictures' in report ? report.pictures : [];
  return (Array.isArray(pictures) ? (pictures as unknown[]) : []).filter(isEntry);
}

/** The entries that a run wrote a line each. The last line of one that was killed may be torn. */
export const entriesOfLines = (text: string): RunEntry[] => text.split('\n').map(parsed).filter(isEntry);

function parsed(text: string): unknown {
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    if (error instanceof SyntaxError) return undefined;
    throw error;
  }
}

function isEntry(entry: unknown): entry is RunEntry {
  if (typeof entry !== 'object' || entry === null) return false;
  const { name, input, ok, files } = entry as Partial<Record<keyof RunEntry, unknown>>;
  return typeof name === 'string' && typeof input === 'string' && typeof ok === 'boolean' && Array.isArray(files) && files.every((file) => typeof file === 'string');
}
