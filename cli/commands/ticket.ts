import { dirname } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { jobTicketPdf } from '../../src/engine/jobTicket.ts';
import { choiceOption, FORCE_OPTION, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { Outputs } from '../outputs.ts';
import { shapeTools } from '../shapeTools.ts';
import type { Command } from './command.ts';
import { readTask } from './run.ts';

export const ticket: Command = {
  usage: 'limner ticket JOB.limner|JOB.json [PICTURE] --out OUT.pdf [--page a4|letter] [--unit mm|in] [--date 2026-11-28]',
  about: 'Writes the page that goes with a job: proof, sizes, films with what they take, settings, place, and what is done in which order.',
  options: {
    out: { takes: 'the PDF file to write', about: 'the ticket' },
    page: { takes: 'a4, letter', about: 'its size (default a4)' },
    unit: { takes: 'mm, in', about: 'of all lengths (default mm)' },
    date: { takes: 'a date', about: 'that is written on it (default today)' },
    ...FORCE_OPTION,
  },
  async run(parsed) {
    const out = required(parsed, 'out', 'the PDF file to write');
    const [jobPath, ...pictures] = parsed.inputs;
    if (jobPath === undefined) throw new AppError('badValue', { name: 'The job', value: 'nothing', takes: 'a .limner file, or a JSON file with its picture' });
    const how = { page: choiceOption(parsed, 'page', ['a4', 'letter'] as const) ?? 'a4', unit: choiceOption(parsed, 'unit', ['mm', 'in'] as const) ?? 'mm', date: parsed.values.get('date') ?? new Date().toISOString().slice(0, 10) };
    const { job, inputs, others } = await readTask(jobPath, pictures);
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const { arts, cut } = await cutInput(job, inputs[0], { pictures: others });
    await outputs.write(out, await jobTicketPdf({ job, cut, arts, tools: shapeTools, encode: (picture) => encodeFile(picture) }, how));
    return 0;
  },
};
