import { dirname } from 'node:path';
import { letteringsOf } from '../../src/core/edit/fillSlots.ts';
import { sameAgain } from '../../src/core/edit/sameAgain.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import type { Finding } from '../../src/core/check/cutCheck.ts';
import type { Job } from '../../src/core/job/job.ts';
import { BLANKS, type BlankChoice } from '../../src/core/process/blanks.ts';
import { writeArchive } from '../../src/formats/archive/archive.ts';
import { FORCE_OPTION, lengthOption, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { Outputs } from '../outputs.ts';
import { FINDING_WORDS } from '../report.ts';
import type { Command } from './command.ts';
import { readOneJob } from './run.ts';

export const again: Command = {
  usage: 'limner again JOB.limner --out NEW.limner [--width 200mm] [--blank NAME] [--name NAME] [--text WORDS]',
  about: 'Makes a job once more for another size, blank, name or with other words, and checks it anew.',
  options: {
    out: { takes: 'a .limner file to write', about: 'the new job; what will not cut well in it is told' },
    width: { takes: 'a length', about: 'of the whole design (default: as it is, or as is usual on another blank)' },
    blank: { takes: `the name of a blank: ${BLANKS.map(({ blank }) => blank.name).join('; ')}`, about: 'what it goes on' },
    name: { takes: 'words', about: 'name of the new job' },
    text: { takes: 'words', about: 'what the lettering says; of several, lowest first, with | between; one of no words stays' },
    ...FORCE_OPTION,
  },
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a .limner file to write');
    const width = lengthOption(parsed, 'width', 1, 10_000);
    const blank = blankOption(parsed.values.get('blank'));
    const { job, input, others } = await readOneJob(parsed.inputs);
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const before = await cutInput(job, input, { pictures: others });
    const name = parsed.values.get('name');
    const next = sameAgain(job, { name, blank, texts: textsFor(job, parsed.values.get('text')), ...(width === undefined ? {} : { widthMm: Number(width) }) }, before.cut.design.widthMm);
    const after = await cutInput(next, input, { pictures: others });
    await outputs.write(out, await writeArchive({ job: next, pictures: others }));
    const { widthMm, heightMm } = after.cut.design;
    console.out(`${next.name}: ${widthMm.toFixed(1)} × ${heightMm.toFixed(1)} mm on ${next.blank.name}\n`);
    console.out(`${places(after.cut.findings)} (${places(before.cut.findings)} before)\n`);
    for (const { kind, size, xMm, yMm } of after.cut.findings) console.out(`  ${FINDING_WORDS[kind](size)} at ${xMm.toFixed(1)}, ${yMm.toFixed(1)} mm\n`);
    return 0;
  },
};

const places = ({ length }: readonly Finding[]): string => (length === 1 ? '1 place to look at' : `${length} places to look at`);

/** @throws AppError `badValue` for a blank that is not known. */
function blankOption(name: string | undefined): BlankChoice | undefined {
  if (name === undefined) return undefined;
  const found = BLANKS.find(({ blank }) => blank.name.toLowerCase() === name.trim().toLowerCase());
  if (found === undefined) throw new AppError('badValue', { name: '--blank', value: name, takes: BLANKS.map(({ blank }) => blank.name).join('; ') });
  return found;
}

/** @throws AppError `badValue` when there are more texts than letterings. */
function textsFor(job: Job, text: string | undefined): ReadonlyMap<string, string> | undefined {
  if (text === undefined) return undefined;
  const letterings = letteringsOf(job);
  const words = text.split('|');
  if (words.length > letterings.length) throw new AppError('badValue', { name: '--text', value: text, takes: letterings.length === 0 ? 'a job with lettering' : `at most ${letterings.length === 1 ? 'one text' : `${letterings.length} texts`}, one for each lettering` });
  return new Map(words.flatMap((word, k) => (word.trim() === '' ? [] : [[letterings[k].id, word.trim()] as const])));
}
