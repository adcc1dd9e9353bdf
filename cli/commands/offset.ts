import { basename } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { offsetCurves } from '../../src/core/combine/offsetCurves.ts';
import { ringCount } from '../../src/core/outline/curves.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { FORCE_OPTION, lengthOption, oneInput, required } from '../arguments.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { Outputs } from '../outputs.ts';
import { readDrawing } from '../readDrawing.ts';
import type { Command } from './command.ts';

const MOST_MM = 500;

export const offset: Command = {
  usage: 'limner offset IN.svg --by 2mm --out OUT.svg',
  about: 'Moves the outlines of a drawing outwards, or inwards by a length below 0.',
  options: { by: { takes: 'a length', about: 'how far, such as 2mm, 1/8in or --by=-1mm' }, out: { takes: 'the SVG file to write', about: 'on the page of the drawing' }, ...FORCE_OPTION },
  async run(parsed) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG file to write');
    required(parsed, 'by', 'a length, such as 2mm');
    const byMm = lengthOption(parsed, 'by', -MOST_MM, MOST_MM) ?? 0;
    if (byMm === 0) throw new AppError('badValue', { name: '--by', value: '0', takes: 'a length that is not 0, such as 2mm or -1mm' });
    const outputs = await Outputs.of([input], parsed.values.has('force'));
    await outputs.check(out);
    const library = await loadPolygons();
    const { widthMm, heightMm, layers } = await readDrawing(input);
    const films = layers.map(({ name, colour, curves }) => ({ film: { id: name, name, colour }, curves: offsetCurves(library, curves, byMm) }));
    if (films.every(({ curves }) => ringCount(curves) === 0)) throw new AppError('nothingToCut');
    await outputs.write(out, writeOutlineSvg(films, widthMm, heightMm, basename(input)));
    return 0;
  },
};
