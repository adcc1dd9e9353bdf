import { basename, extname, join } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import type { Job } from '../../src/core/job/job.ts';
import { readJob } from '../../src/core/job/readJob.ts';
import { ARCHIVE_ENDING, readArchive } from '../../src/formats/archive/archive.ts';
import { choiceOption, FORCE_OPTION, required } from '../arguments.ts';
import { readBytes, readJson } from '../files.ts';
import { manyPictures, type PictureWork } from '../manyPictures.ts';
import { Outputs } from '../outputs.ts';
import { runOne, type PictureReport, type RunTask } from '../runOne.ts';
import { uniqueNames } from '../uniqueNames.ts';
import { STOPPED, type Command } from './command.ts';

export const run: Command = {
  usage: 'limner run JOB.json|JOB.limner [IN...] --out DIR [--dxf] [--film-png] [--report short|full] [--force]',
  about: "Applies a job's recipe, separation and layout to one or many pictures.",
  options: {
    out: { takes: 'a folder', about: 'folder for the files and report.json' },
    dxf: { about: 'write NAME.dxf too: a layer for each film, curves as splines' },
    'film-png': { about: 'write a PNG of each film too, in its colour, clear elsewhere: NAME-1-RED-film.png' },
    report: { takes: 'short or full', about: 'full: also how the films differ from the art and how many lie on one spot, which takes as long as the cut (default short)' },
    ...FORCE_OPTION,
  },
  notes: 'For each picture: NAME.svg (the sheet; with several films NAME-1-RED.svg and so on, lowest first), NAME.png (the cleaned art). The job format is in docs/job-format.md. Without pictures the one in JOB.limner is meant. Several are done on all cores. A picture that fails is reported; the others go on, and the exit code is 1. Stopped with Ctrl-C, it finishes the pictures under way and reports what was done.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    const [jobPath, ...pictures] = parsed.inputs;
    if (jobPath === undefined) throw new AppError('badValue', { name: 'The job', value: 'nothing', takes: 'a JSON file or a .limner file, then the pictures' });
    const wanted = { dxf: parsed.values.has('dxf'), filmPng: parsed.values.has('film-png'), report: choiceOption(parsed, 'report', ['short', 'full'] as const) ?? 'short' };
    const force = parsed.values.has('force');
    const { job, inputs } = await readTask(jobPath, pictures);
    const outputs = await Outputs.of(parsed.inputs, force);
    await outputs.prepare(out);
    const names = uniqueNames(inputs.map((input) => ('path' in input ? input.path : input.name)));
    const works = inputs.map((input, k): PictureWork => {
      const task: RunTask = { job, input, out, name: names[k], wanted, reads: parsed.inputs, force };
      return { name: names[k], task: { kind: 'run', ...task }, here: async () => ({ report: await runOne(task) }) };
    });
    const reports: PictureReport[] = [];
    await manyPictures(works, console, true, (answer, k) => {
      const input = inputs[k];
      if ('report' in answer) reports.push(answer.report);
      else if ('error' in answer) reports.push({ input: 'path' in input ? basename(input.path) : input.name, ok: false, error: answer.error, files: [], warnings: [], skipped: [], ms: {} });
    });
    for (const { input, error, skipped } of reports) {
      for (const words of skipped) console.err(`${input}: ${words}\n`);
      if (error === undefined) continue;
      const { what, todo } = explain(error);
      console.err(`${input}: ${what} ${todo}\n`);
    }
    const stopped = console.interrupted?.aborted === true;
    await outputs.write(join(out, 'report.json'), `${JSON.stringify({ job: job.name, ...(stopped ? { stopped: true, notDone: inputs.length - reports.length } : {}), pictures: reports }, null, 2)}\n`);
    console.out(`${reports.filter((report) => report.ok).length} of ${inputs.length} pictures done${stopped ? ', stopped' : ''}\n`);
    if (stopped) return STOPPED;
    return reports.every((report) => report.ok) ? 0 : 1;
  },
};

/** The job, and what it is applied to. @throws AppError `badJob`, `badArchive`, `badValue` when there is no picture. */
async function readTask(jobPath: string, pictures: readonly string[]): Promise<{ job: Job; inputs: RunTask['input'][] }> {
  const file = basename(jobPath);
  const paths = pictures.map((path) => ({ path }));
  const nothing = (takes: string): AppError => new AppError('badValue', { name: 'The pictures', value: 'nothing', takes });
  if (extname(jobPath).toLowerCase() !== ARCHIVE_ENDING) {
    const job = readJob(await readJson(jobPath), file);
    if (paths.length === 0) throw nothing('at least one picture file');
    return { job, inputs: paths };
  }
  const { job, picture } = readArchive(await readBytes(jobPath), file);
  if (paths.length > 0) return { job, inputs: paths };
  if (picture === undefined) throw nothing('at least one picture file: the job holds none');
  return { job, inputs: [{ name: `${basename(jobPath, extname(jobPath))}${extname(job.picture?.fileName ?? '')}`, bytes: picture }] };
}
