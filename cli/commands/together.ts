import { join } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { jobOfPart, layTogether, type FilmTogether, type JobFilm } from '../../src/core/layout/together.ts';
import { TURNS } from '../../src/core/nest/turns.ts';
import { PROCESSES } from '../../src/core/process/processes.ts';
import { jobFilms } from '../../src/core/run/jobFilms.ts';
import { finish } from '../../src/core/task/task.ts';
import { shareOfTime } from '../../src/engine/shareOfTime.ts';
import { togetherFiles } from '../../src/formats/svg/togetherFiles.ts';
import { choiceOption, FORCE_OPTION, lengthOption, numberOption, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { Outputs } from '../outputs.ts';
import { rounded } from '../rounded.ts';
import type { Command } from './command.ts';
import { sheetOption } from './nest.ts';
import { readTask } from './run.ts';

export const together: Command = {
  usage: 'limner together JOB.limner... --sheet 500mmx2000mm [--gap 4mm] [--box 6mm] [--turns free|quarter|none] [--copies N] [--seconds 5] --out DIR',
  about: 'Lays several jobs on the sheets of the films that they share, nested by their outlines, each with its number.',
  options: {
    out: { takes: 'a folder', about: 'folder for a cut file of each sheet, and report.json' },
    sheet: { takes: 'width x height', about: 'size of a sheet or roll, such as 500mmx2000mm' },
    gap: { takes: 'a length', about: 'least distance between parts (default 4mm)' },
    box: { takes: 'a length', about: 'a weeding box around all, so far away (none when absent)' },
    turns: { takes: TURNS.join(', '), about: 'how parts may be turned (default free)' },
    copies: { takes: 'a whole number', about: 'of each job (default as the job says)' },
    seconds: { takes: 's', about: 'how long to look for a better arrangement (default 5)' },
    ...FORCE_OPTION,
  },
  notes: 'Films are one when their name, colour and material are the same and they are cut from the same side. report.json tells which job lies on which sheet, by its number.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    const { widthMm, heightMm } = sheetOption(parsed);
    const gapMm = lengthOption(parsed, 'gap', 0, 500) ?? 4;
    const boxMm = lengthOption(parsed, 'box', 0, 200);
    const turns = choiceOption(parsed, 'turns', TURNS) ?? 'free';
    const copies = numberOption(parsed, 'copies', 1, 2000, true);
    const seconds = numberOption(parsed, 'seconds', 0, 3600) ?? 5;
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The jobs', value: 'nothing', takes: 'at least one .limner file' });
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.prepare(out);
    const films: JobFilm[] = [];
    const names: string[] = [];
    for (const [k, path] of parsed.inputs.entries()) {
      const { job, inputs, others } = await readTask(path, []);
      if (PROCESSES[job.process].isPrinted) throw new AppError('badValue', { name: path, value: PROCESSES[job.process].name, takes: 'jobs that are cut of film' });
      const { cut } = await cutInput(job, inputs[0], { pictures: others });
      films.push(...jobFilms(job, k + 1, cut.laid.design, cut.rack, copies));
      names.push(job.name);
    }
    const sheet = { name: 'Sheet', widthMm, heightMm, marginMm: { left: 0, top: 0, right: 0, bottom: 0 }, origin: 'topLeft' as const };
    const settings = { sheet, gapMm, turns, box: { on: boxMm !== undefined, marginMm: boxMm ?? 0 } };
    const laid = finish(layTogether(await loadPolygons(), films, settings, shareOfTime(seconds)));
    const written = await writeFilms(laid, out, outputs);
    const report = { sheet: { widthMm, heightMm }, gapMm, turns, jobs: names.map((name, k) => ({ number: k + 1, name })), films: written };
    await outputs.write(join(out, 'report.json'), `${JSON.stringify(report, null, 2)}\n`);
    const sheets = laid.reduce((sum, each) => sum + each.sheets.length, 0);
    console.out(`${names.length} jobs on ${sheets === 1 ? '1 sheet' : `${sheets} sheets`} of ${laid.length === 1 ? '1 film' : `${laid.length} films`}\n`);
    return 0;
  },
};

async function writeFilms(laid: readonly FilmTogether[], out: string, outputs: Outputs): Promise<unknown[]> {
  const films: unknown[] = [];
  for (const [k, each] of laid.entries()) {
    const files = togetherFiles(each, k + 1);
    for (const { name, svg } of files) await outputs.write(join(out, name), svg);
    const sheets = each.sheets.map(({ used, placements }, at) => ({ file: files[at].name, usedMm: { width: rounded(used.widthMm), height: rounded(used.heightMm) }, parts: placements.map(({ partId }) => jobOfPart(partId)) }));
    films.push({ film: each.film.name, mirrored: each.mirrored, jobs: each.jobs, sheets });
  }
  return films;
}
