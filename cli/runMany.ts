import { basename } from 'node:path';
import { explain } from '../src/core/errors/explain.ts';
import { choiceOption, type OptionSpec, type Parsed } from './arguments.ts';
import { STOPPED, type Console } from './commands/command.ts';
import { manyPictures, type PictureWork } from './manyPictures.ts';
import type { Outputs } from './outputs.ts';
import { runOne, type PictureReport, type RunTask } from './runOne.ts';
import { GrowingReport, isOfShard, madeOf, shardFrom, type RunEntry } from './runReport.ts';

/** What is written for each picture beside its sheets and its cleaned art. */
export const WANTED_OPTIONS = {
  dxf: { about: 'write NAME.dxf too: a layer for each film, curves as splines' },
  'film-png': { about: 'write a PNG of each film too, in its colour, clear elsewhere: NAME-1-RED-film.png' },
  report: { takes: 'short or full', about: 'full: also how the films differ from the art and how many lie on one spot, which takes as long as the cut (default short)' },
} as const satisfies Record<string, OptionSpec>;

/** How a run of many pictures is spread and taken up again. */
export const SPREAD_OPTIONS = {
  shard: { takes: 'a part and how many there are, such as 2/8', about: 'do only this part of the pictures, on this machine; its report is report-2-of-8.json' },
  resume: { about: 'go on where a run was broken off: pictures whose files are there, of the same job and the same picture, are passed over' },
} as const satisfies Record<string, OptionSpec>;

export const wantedFiles = (parsed: Parsed): RunTask['wanted'] => ({ dxf: parsed.values.has('dxf'), filmPng: parsed.values.has('film-png'), report: choiceOption(parsed, 'report', ['short', 'full'] as const) ?? 'short' });

/**
 * Runs tasks that write to one folder, on all cores, and leaves a report of all of them there. What fails is said; the others go on.
 * @param name what the report says was run. @param parsed whether only a part is meant, and whether a run goes on. @returns the exit code.
 */
export async function runMany(all: readonly RunTask[], console: Console, outputs: Outputs, name: string, parsed: Parsed): Promise<number> {
  const shardText = parsed.values.get('shard');
  const shard = shardText === undefined ? undefined : shardFrom(shardText);
  const mine = all.filter((_, k) => isOfShard(shard, k));
  const report = await GrowingReport.start(all[0].out, shard, parsed.values.has('resume'));
  const had = await Promise.all(mine.map((task) => report.has(task)));
  const tasks = mine.filter((_, k) => !had[k]);
  // Read before they are worked on: a picture that changes meanwhile is done again.
  const sources = await Promise.all(tasks.map(madeOf));
  const works = tasks.map((task): PictureWork => ({ name: task.name, task: { kind: 'run', ...task }, here: async () => ({ report: await runOne(task) }) }));
  let done = 0;
  await manyPictures(works, console, true, (answer, k) => {
    const { input } = tasks[k];
    done++;
    const own: PictureReport | undefined =
      'report' in answer ? answer.report : 'error' in answer ? { input: 'path' in input ? basename(input.path) : input.name, ok: false, error: answer.error, files: [], warnings: [], skipped: [], ms: {} } : undefined;
    if (own !== undefined) report.add({ ...own, name: tasks[k].name, ...(sources[k] === undefined ? {} : { madeOf: sources[k] }) });
  });
  const stopped = console.interrupted?.aborted === true;
  const pictures = await report.end(outputs, { job: name, ...(stopped ? { stopped: true, notDone: tasks.length - done } : {}) }, mine.map((task) => task.name));
  const fresh = new Set(tasks.map((task) => task.name));
  tellFaults(pictures.filter((entry) => fresh.has(entry.name)), console);
  const passed = mine.length - tasks.length;
  console.out(`${pictures.filter(({ ok }) => ok).length} of ${mine.length} pictures done${passed === 0 ? '' : `, ${passed} of them before`}${stopped ? ', stopped' : ''}\n`);
  if (stopped) return STOPPED;
  return pictures.every(({ ok }) => ok) ? 0 : 1;
}

function tellFaults(entries: readonly RunEntry[], console: Console): void {
  for (const { input, error, skipped } of entries) {
    for (const words of skipped) console.err(`${input}: ${words}\n`);
    if (error === undefined) continue;
    const { what, todo } = explain(error);
    console.err(`${input}: ${what} ${todo}\n`);
  }
}
