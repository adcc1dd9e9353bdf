import { basename } from 'node:path';
import { AppError, isAppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import type { FirstLook } from '../../src/core/propose/firstLook.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { processSchema } from '../../src/core/process/processes.ts';
import { propose, startedWith } from '../../src/core/propose/propose.ts';
import { USUAL_STOCK } from '../../src/core/film/stock.ts';
import { finish } from '../../src/core/task/task.ts';
import { choiceOption, DRAW_OPTION, drawnSide, FORCE_OPTION, oneInput } from '../arguments.ts';
import { readPicture } from '../files.ts';
import { Outputs } from '../outputs.ts';
import type { Command } from './command.ts';

interface Seen extends FirstLook {
  readonly input: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly statedDpi?: number;
  /** Whether the first proposal is right without asking. */
  readonly isSure: boolean;
  readonly proposals: readonly { readonly title: string; readonly words: string }[];
}

const KINDS = { line: 'line drawing', flat: 'flat colour', shaded: 'shaded', photo: 'photo' } as const;

export const look: Command = {
  usage: 'limner look IN... [--job OUT.json] [--process htv|decal|stencil|waterslide|panel] [--json]',
  about: 'Says what kind of picture it is and how to start with it.',
  options: {
    ...DRAW_OPTION,
    job: { takes: 'a JSON file to write', about: 'the job that the first proposal starts, of one picture: recipe, films, size' },
    process: { takes: processSchema.options.join(', '), about: 'what it is to be made by (default htv)' },
    json: { about: 'print one JSON list instead of text' },
    ...FORCE_OPTION,
  },
  async run(parsed, console) {
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The input', value: 'nothing', takes: 'at least one picture file' });
    const process = choiceOption(parsed, 'process', processSchema.options);
    const jobFile = parsed.values.get('job');
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    if (jobFile !== undefined) {
      oneInput(parsed);
      await outputs.check(jobFile);
    }
    const seen: Seen[] = [];
    let failed = 0;
    for (const input of parsed.inputs) {
      try {
        const { picture, statedDpi } = await readPicture(input, drawnSide(parsed));
        const name = basename(input).replace(/\.[^.]*$/, '').slice(0, 120);
        const job = newJob(name === '' ? 'New job' : name, process);
        const { look: first, isSure, proposals } = finish(propose(job, picture, USUAL_STOCK));
        const found: Seen = { input: basename(input), widthPx: picture.width, heightPx: picture.height, ...first, isSure, proposals: proposals.map(({ title, words }) => ({ title, words })) };
        if (jobFile !== undefined) await outputs.write(jobFile, `${JSON.stringify(proposals.length === 0 ? job : startedWith(job, proposals[0]), null, 2)}\n`);
        seen.push(statedDpi === undefined ? found : { ...found, statedDpi });
      } catch (error) {
        if (!isAppError(error)) throw error;
        failed++;
        const { what, todo } = explain(error);
        console.err(`${basename(input)}: ${what} ${todo}\n`);
      }
    }
    console.out(parsed.values.has('json') ? `${JSON.stringify(seen, null, 2)}\n` : seen.map(inWords).join(''));
    return failed === 0 ? 0 : 1;
  },
};

function inWords({ input, widthPx, heightPx, statedDpi, kind, sure, tones, noise, words, isSure, proposals }: Seen): string {
  const size = `${widthPx} x ${heightPx} px${statedDpi === undefined ? '' : `, ${statedDpi} dpi`}`;
  return `${input}: ${KINDS[kind]} (${Math.round(sure * 100)} % sure), ${size}, ${tones} tones, noise ${noise.toFixed(1)}\n  ${words}\n${proposals.map((proposal, k) => `  ${isSure && k === 0 ? 'Starts as' : isSure || k > 0 ? 'or' : 'Perhaps'}: ${proposal.title}. ${proposal.words}\n`).join('')}`;
}
