import { basename, extname } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import type { Job } from '../../src/core/job/job.ts';
import { readJob } from '../../src/core/job/readJob.ts';
import { pictureOf, tracedPart } from '../../src/core/job/tracedPart.ts';
import { ARCHIVE_ENDING, readArchive, type JobArchive } from '../../src/formats/archive/archive.ts';
import { filledJobs } from '../../src/formats/names/filledJobs.ts';
import { readNames, type NamesList } from '../../src/formats/names/readNames.ts';
import { FORCE_OPTION, required } from '../arguments.ts';
import { readBytes, readJson } from '../files.ts';
import { Outputs } from '../outputs.ts';
import { runMany, SPREAD_OPTIONS, WANTED_OPTIONS, wantedFiles } from '../runMany.ts';
import type { RunTask } from '../runOne.ts';
import { uniqueNames } from '../uniqueNames.ts';
import type { Command, Console } from './command.ts';

export const run: Command = {
  usage: 'limner run JOB.json|JOB.limner [IN...] --out DIR [--names FILE.csv] [--dxf] [--film-png] [--report short|full] [--shard 2/8] [--resume] [--force]',
  about: "Applies a job's recipe, separation and layout to one or many pictures.",
  options: {
    out: { takes: 'a folder', about: 'folder for the files and report.json' },
    names: { takes: 'a CSV file', about: 'a design for each of its lines: the columns fill the slots of the lettering, “{Name}” by the column Name (default: the list of the job, if it has one)' },
    ...WANTED_OPTIONS,
    ...SPREAD_OPTIONS,
    ...FORCE_OPTION,
  },
  notes: 'For each picture: NAME.svg (the sheet; with several films NAME-1-RED.svg and so on, lowest first), NAME.png (the cleaned art). The job format is in docs/job-format.md. Without pictures the one in JOB.limner is meant. Several are done on all cores. A picture that fails is reported; the others go on, and the exit code is 1. Stopped with Ctrl-C, it finishes the pictures under way and reports what was done; with --resume the same command goes on, also after a crash. --shard takes one part of the pictures: an existing runner spreads the parts over machines, and “limner report” puts their reports together.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    const [jobPath, ...pictures] = parsed.inputs;
    if (jobPath === undefined) throw new AppError('badValue', { name: 'The job', value: 'nothing', takes: 'a JSON file or a .limner file, then the pictures' });
    const wanted = wantedFiles(parsed);
    const force = parsed.values.has('force');
    const { job, inputs, others } = await readTask(jobPath, pictures);
    const outputs = await Outputs.of(parsed.inputs, force);
    await outputs.prepare(out);
    const names = uniqueNames(inputs.map((input) => ('path' in input ? input.path : input.name)));
    const listFile = parsed.values.get('names');
    const list = listFile === undefined ? (job.names === undefined ? undefined : readNames(new TextEncoder().encode(job.names), 'The list of the job')) : readNames(await readBytes(listFile), basename(listFile));
    const jobs = filled(job, list, listFile === undefined, console);
    const reads = listFile === undefined ? parsed.inputs : [...parsed.inputs, listFile];
    const tasks = inputs.flatMap((input, k) => jobs.map(({ job: own, suffix }): RunTask => ({ job: own, input, pictures: others, out, name: `${names[k]}${suffix}`, wanted, reads, force })));
    return runMany(tasks, console, outputs, job.name, parsed);
  },
};

/**
 * A job for each line of a list, with what its files' names end in: the list of a file, else the job's own.
 * @throws AppError `badValue` when the job has nothing to fill.
 */
function filled(job: Job, list: NamesList | undefined, isOwn: boolean, console: Console): { job: Job; suffix: string }[] {
  if (list === undefined) return [{ job, suffix: '' }];
  const { jobs, slots, lacking } = filledJobs(job, list);
  if (slots.length === lacking.length) {
    if (isOwn) return [{ job, suffix: '' }];
    throw new AppError('badValue', { name: '--names', value: list.columns.join(', '), takes: slots.length === 0 ? 'a job whose lettering has slots, such as {Name}' : `columns for the slots of the job: ${slots.join(', ')}` });
  }
  if (lacking.length > 0) console.err(`No column is called ${lacking.join(' or ')}: these slots stay as they are written.\n`);
  return jobs.map(({ job: own, suffix }) => ({ job: own, suffix: `-${suffix}` }));
}

/** The job, and what it is applied to. @throws AppError `badJob`, `badArchive`, `badValue` when there is no picture. */
export async function readTask(jobPath: string, pictures: readonly string[]): Promise<{ job: Job; inputs: RunTask['input'][]; others: JobArchive['pictures'] }> {
  const file = basename(jobPath);
  const paths = pictures.map((path) => ({ path }));
  const nothing = (takes: string): AppError => new AppError('badValue', { name: 'The pictures', value: 'nothing', takes });
  if (extname(jobPath).toLowerCase() !== ARCHIVE_ENDING) {
    const job = readJob(await readJson(jobPath), file);
    if (paths.length === 0) throw nothing('at least one picture file');
    return { job, inputs: paths, others: new Map() };
  }
  const { job, pictures: others } = await readArchive(await readBytes(jobPath), file);
  if (paths.length > 0) return { job, inputs: paths, others };
  const part = tracedPart(job);
  const bytes = part.picture === undefined ? undefined : others.get(part.picture);
  if (bytes === undefined) throw nothing('at least one picture file: the job holds none');
  return { job, inputs: [{ name: `${basename(jobPath, extname(jobPath))}${extname(pictureOf(job, part)?.fileName ?? '')}`, bytes }], others };
}

/** The one job that a command is about, with the picture that it is applied to. @throws AppError as `readTask`, and where none is named. */
export async function readOneJob([jobPath, ...pictures]: readonly string[]): Promise<{ jobPath: string; job: Job; input: RunTask['input']; others: JobArchive['pictures'] }> {
  if (jobPath === undefined) throw new AppError('badValue', { name: 'The job', value: 'nothing', takes: 'a .limner file, or a JSON file with its picture' });
  const { job, inputs, others } = await readTask(jobPath, pictures);
  return { jobPath, job, input: inputs[0], others };
}

/** The day that files say, as `2026-11-28`: as it was given, else today. */
export const dateOption = ({ values }: { readonly values: ReadonlyMap<string, string> }): string => values.get('date') ?? new Date().toISOString().slice(0, 10);
