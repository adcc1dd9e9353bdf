import { dirname } from 'node:path';
import { jobTicketPdf } from '../../src/engine/jobTicket.ts';
import { choiceOption, FORCE_OPTION, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { Outputs } from '../outputs.ts';
import { shapeTools } from '../shapeTools.ts';
import type { Command } from './command.ts';
import { dateOption, readOneJob } from './run.ts';

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
    const how = { page: choiceOption(parsed, 'page', ['a4', 'letter'] as const) ?? 'a4', unit: choiceOption(parsed, 'unit', ['mm', 'in'] as const) ?? 'mm', date: dateOption(parsed) };
    const { job, input, others } = await readOneJob(parsed.inputs);
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const { arts, cut } = await cutInput(job, input, { pictures: others });
    await outputs.write(out, await jobTicketPdf({ job, cut, arts, tools: shapeTools, encode: (picture) => encodeFile(picture) }, how));
    return 0;
  },
};
