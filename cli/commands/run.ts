import { basename, extname } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import type { Job } from '../../src/core/job/job.ts';
import { readJob } from '../../src/core/job/readJob.ts';
import { pictureOf, tracedPart } from '../../src/core/job/tracedPart.ts';
import { ARCHIVE_ENDING, readArchive, type JobArchive } from '../../src/formats/archive/archive.ts';
import { FORCE_OPTION, required } from '../arguments.ts';
import { readBytes, readJson } from '../files.ts';
import { Outputs } from '../outputs.ts';
import { runMany, SPREAD_OPTIONS, WANTED_OPTIONS, wantedFiles } from '../runMany.ts';
import type { RunTask } from '../runOne.ts';
import { uniqueNames } from '../uniqueNames.ts';
import type { Command } from './command.ts';

export const run: Command = {
  usage: 'limner run JOB.json|JOB.limner [IN...] --out DIR [--dxf] [--film-png] [--report short|full] [--shard 2/8] [--resume] [--force]',
  about: "Applies a job's recipe, separation and layout to one or many pictures.",
  options: {
    out: { takes: 'a folder', about: 'folder for the files and report.json' },
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
    const tasks = inputs.map((input, k): RunTask => ({ job, input, pictures: others, out, name: names[k], wanted, reads: parsed.inputs, force }));
    return runMany(tasks, console, outputs, job.name, parsed);
  },
};

/** The job, and what it is applied to. @throws AppError `badJob`, `badArchive`, `badValue` when there is no picture. */
async function readTask(jobPath: string, pictures: readonly string[]): Promise<{ job: Job; inputs: RunTask['input'][]; others: JobArchive['pictures'] }> {
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
