import { basename, join } from 'node:path';
import { explain } from '../src/core/errors/explain.ts';
import { choiceOption, type OptionSpec, type Parsed } from './arguments.ts';
import { STOPPED, type Console } from './commands/command.ts';
import { manyPictures, type PictureWork } from './manyPictures.ts';
import type { Outputs } from './outputs.ts';
import { runOne, type PictureReport, type RunTask } from './runOne.ts';

/** What is written for each picture beside its sheets and its cleaned art. */
export const WANTED_OPTIONS = {
  dxf: { about: 'write NAME.dxf too: a layer for each film, curves as splines' },
  'film-png': { about: 'write a PNG of each film too, in its colour, clear elsewhere: NAME-1-RED-film.png' },
  report: { takes: 'short or full', about: 'full: also how the films differ from the art and how many lie on one spot, which takes as long as the cut (default short)' },
} as const satisfies Record<string, OptionSpec>;

export const wantedFiles = (parsed: Parsed): RunTask['wanted'] => ({ dxf: parsed.values.has('dxf'), filmPng: parsed.values.has('film-png'), report: choiceOption(parsed, 'report', ['short', 'full'] as const) ?? 'short' });

/**
 * Runs tasks that write to one folder, on all cores, and leaves a report of all of them there. What fails is said; the others go on.
 * @param name what the report says was run. @returns the exit code.
 */
export async function runMany(tasks: readonly RunTask[], console: Console, outputs: Outputs, name: string): Promise<number> {
  const works = tasks.map((task): PictureWork => ({ name: task.name, task: { kind: 'run', ...task }, here: async () => ({ report: await runOne(task) }) }));
  const reports: PictureReport[] = [];
  await manyPictures(works, console, true, (answer, k) => {
    const { input } = tasks[k];
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
  await outputs.write(join(tasks[0].out, 'report.json'), `${JSON.stringify({ job: name, ...(stopped ? { stopped: true, notDone: tasks.length - reports.length } : {}), pictures: reports }, null, 2)}\n`);
  console.out(`${reports.filter((report) => report.ok).length} of ${tasks.length} pictures done${stopped ? ', stopped' : ''}\n`);
  if (stopped) return STOPPED;
  return reports.every((report) => report.ok) ? 0 : 1;
}
