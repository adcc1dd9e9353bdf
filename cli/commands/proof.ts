import { dirname } from 'node:path';
import { capitalMmOf, proofWords } from '../../src/core/proof/proofWords.ts';
import { proofOnBlank } from '../../src/core/run/proofOnBlank.ts';
import { pxPerMm } from '../../src/core/units/length.ts';
import { proofLabel } from '../../src/engine/proofLabel.ts';
import { FORCE_OPTION, numberOption, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { Outputs } from '../outputs.ts';
import { shapeTools } from '../shapeTools.ts';
import type { Command } from './command.ts';
import { dateOption, readOneJob } from './run.ts';

const SIDE_PX = 1600;

export const proof: Command = {
  usage: 'limner proof JOB.limner|JOB.json [PICTURE] --out OUT.png [--px 1600] [--turn 0] [--date 2026-11-28] [--no-words]',
  about: 'Draws the finished blank at true scale in the colours of its films, with name, size and date.',
  options: {
    out: { takes: 'the PNG file to write', about: 'states its resolution, so that it prints at true size' },
    px: { takes: 'px, 200 to 6000', about: `long side (default ${SIDE_PX})` },
    turn: { takes: 'degrees', about: 'how far a mug or glass is turned (default 0)' },
    date: { takes: 'a date', about: 'that is written below (default today)' },
    'no-words': { about: 'without name, size and date' },
    ...FORCE_OPTION,
  },
  async run(parsed) {
    const out = required(parsed, 'out', 'the PNG file to write');
    const sidePx = numberOption(parsed, 'px', 200, 6000, true) ?? SIDE_PX;
    const turnRad = ((numberOption(parsed, 'turn', -360, 360) ?? 0) * Math.PI) / 180;
    const { job, input, others } = await readOneJob(parsed.inputs);
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const { arts, cut } = await cutInput(job, input, { pictures: others });
    const words = proofWords(job, cut.design, dateOption(parsed));
    const label = parsed.values.has('no-words') ? undefined : await proofLabel(words, capitalMmOf(job.blank), shapeTools);
    const made = proofOnBlank(job, cut, arts, { sidePx, turnRad, ...(label === undefined ? {} : { label }) });
    await outputs.write(out, await encodeFile(made.picture, pxPerMm(made.pxPerMm)));
    return 0;
  },
};
