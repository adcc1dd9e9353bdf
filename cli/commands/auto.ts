import { AppError } from '../../src/core/errors/appError.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { processSchema } from '../../src/core/process/processes.ts';
import { choiceOption, FORCE_OPTION, lengthOption, required } from '../arguments.ts';
import { Outputs } from '../outputs.ts';
import { runMany, SPREAD_OPTIONS, WANTED_OPTIONS, wantedFiles } from '../runMany.ts';
import type { RunTask } from '../runOne.ts';
import { uniqueNames } from '../uniqueNames.ts';
import type { Command } from './command.ts';

export const auto: Command = {
  usage: 'limner auto IN... --out DIR [--process htv|decal|stencil|waterslide|panel] [--width 250mm] [--job] [--dxf] [--film-png] [--report short|full] [--shard 2/8] [--resume] [--force]',
  about: 'Does the whole road without a job: each picture as the first look proposes, to its sheets.',
  options: {
    out: { takes: 'a folder', about: 'folder for the files and report.json' },
    process: { takes: processSchema.options.join(', '), about: 'what it is made by, which decides mirroring and the usual blank (default htv)' },
    width: { takes: 'a length', about: 'finished width (default: what is usual on the blank, smaller where the art is tall)' },
    job: { about: 'write NAME.limner too: the job with its picture, to go on with' },
    ...WANTED_OPTIONS,
    ...SPREAD_OPTIONS,
    ...FORCE_OPTION,
  },
  notes: 'For each picture what “limner run” writes. A picture that is shaded has no flat tones: it is done as the first of the ways that “limner look” names.',
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The pictures', value: 'nothing', takes: 'at least one picture file' });
    const process = choiceOption(parsed, 'process', processSchema.options);
    const widthMm = lengthOption(parsed, 'width');
    const wanted = wantedFiles(parsed);
    const force = parsed.values.has('force');
    const outputs = await Outputs.of(parsed.inputs, force);
    await outputs.prepare(out);
    const names = uniqueNames(parsed.inputs);
    const tasks = parsed.inputs.map((path, k): RunTask => ({ job: newJob(names[k], process), proposed: { widthMm }, keepJob: parsed.values.has('job'), input: { path }, out, name: names[k], wanted, reads: parsed.inputs, force }));
    return runMany(tasks, console, outputs, 'as proposed', parsed);
  },
};
