import { basename, extname, join } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { withSettings } from '../../src/core/edit/objectEdits.ts';
import { fileNameOf } from '../../src/core/job/fileName.ts';
import { FILE_KINDS, type FileKind } from '../../src/core/job/handOff.ts';
import { jobFiles } from '../../src/engine/jobFiles.ts';
import { FORCE_OPTION, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { Outputs } from '../outputs.ts';
import { shapeTools } from '../shapeTools.ts';
import type { Command } from './command.ts';
import { dateOption, readOneJob } from './run.ts';

export const exportFiles: Command = {
  usage: `limner export JOB.limner|JOB.json [PICTURE] --as ${FILE_KINDS.join(',')} --out DIR [--name PATTERN] [--fine] [--relative] [--tell] [--compensate] [--date 2026-11-28]`,
  about: 'Writes the files of a job in the kinds that are asked for, all of the same sheets at true size.',
  options: {
    as: { takes: 'kinds, with commas between', about: `svg, a file for each sheet; dxf, curves as splines; dxf-r12, sides and arcs; pdf, a layer for each film, or the pages of a print; hpgl, plotter language for each sheet; png, the art, each film and the proof (default: as the job says)` },
    out: { takes: 'a folder', about: 'where the files are written' },
    name: { takes: 'words', about: 'what the names begin with: {job}, {blank}, {process}, {width} and {date} are filled in (default: the name of the job’s file)' },
    fine: { about: 'plotter language in steps of 0.001 mm, for machines that know scaling (default 0.025 mm)' },
    relative: { about: 'plotter language tells each place from the one before' },
    tell: { about: 'plotter language tells tool, speed and force of the film’s material' },
    compensate: { about: 'plotter language has passes, overcut and blade offset of the film’s material in its path' },
    date: { takes: 'a date', about: 'that is written on the proof and in names (default today)' },
    ...FORCE_OPTION,
  },
  async run(parsed, console) {
    const out = required(parsed, 'out', 'a folder');
    const { jobPath, job: asked, input, others } = await readOneJob(parsed.inputs);
    const kinds = kindsOf(parsed.values.get('as'), asked.handOff.files);
    const date = dateOption(parsed);
    const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
    await outputs.prepare(out);
    const nameAs = parsed.values.get('name');
    const said = (option: string): boolean | undefined => (parsed.values.has(option) ? true : undefined);
    const { plotter: own = {} } = asked.handOff;
    const plotter = withSettings(own, { fine: said('fine') ?? own.fine, relative: said('relative') ?? own.relative, tells: said('tell') ?? own.tells, compensated: said('compensate') ?? own.compensated });
    const { job, cut, arts, clean } = await cutInput({ ...asked, handOff: { ...asked.handOff, plotter, ...(nameAs === undefined ? {} : { nameAs }) } }, input, { pictures: others });
    const name = nameAs === undefined ? basename(jobPath, extname(jobPath)) : fileNameOf(job, cut.design.widthMm, date);
    let count = 0;
    for await (const file of jobFiles(kinds, { job, cut, arts, art: clean.art, name, date, tools: shapeTools, encode: encodeFile })) {
      await outputs.write(join(out, file.name), file.bytes);
      console.out(`${file.name}\n`);
      count++;
    }
    console.out(`${count === 1 ? '1 file' : `${count} files`}\n`);
    return 0;
  },
};

/** @throws AppError `badValue` for kinds that are none. */
function kindsOf(said: string | undefined, own: readonly FileKind[] = FILE_KINDS): readonly FileKind[] {
  if (said === undefined) return own;
  const words = said.split(',').map((word) => word.trim().toLowerCase()).filter((word) => word !== '');
  const kinds = FILE_KINDS.filter((kind) => words.includes(kind));
  const strange = words.find((word) => !(FILE_KINDS as readonly string[]).includes(word));
  if (strange !== undefined || kinds.length === 0) throw new AppError('badValue', { name: '--as', value: strange ?? said, takes: FILE_KINDS.join(', ') });
  return kinds;
}
