import { basename } from 'node:path';
import { combineCurves } from '../../src/core/combine/combineCurves.ts';
import type { CombineKind } from '../../src/core/combine/polygonLibrary.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import { CurvesBuilder, isOpenRing, ringCount, type Curves } from '../../src/core/outline/curves.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import type { ImportedDrawing } from '../../src/formats/drawing.ts';
import { FORCE_OPTION, required } from '../arguments.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { Outputs } from '../outputs.ts';
import { readDrawing } from '../readDrawing.ts';
import type { Command } from './command.ts';

const KINDS: Readonly<Record<string, CombineKind>> = { join: 'join', 'cut-out': 'cutOut', common: 'common' };

export const combine: Command = {
  usage: 'limner combine join|cut-out|common A.svg B.svg --out OUT.svg',
  about: 'Joins two drawings, cuts the second out of the first, or takes what is in both.',
  options: { out: { takes: 'the SVG file to write', about: 'on the page of the first drawing' }, ...FORCE_OPTION },
  notes: 'What is not cut keeps its nodes. Both drawings are placed by the upper left corners of their pages.',
  async run(parsed) {
    const [word, ...files] = parsed.inputs;
    const kind = Object.hasOwn(KINDS, word ?? '') ? KINDS[word] : undefined;
    if (kind === undefined) throw new AppError('badValue', { name: 'The way', value: word ?? 'nothing', takes: 'join, cut-out or common' });
    if (files.length !== 2) throw new AppError('badValue', { name: 'The drawings', value: String(files.length), takes: 'two files' });
    const out = required(parsed, 'out', 'the SVG file to write');
    const outputs = await Outputs.of(files, parsed.values.has('force'));
    await outputs.check(out);
    const library = await loadPolygons();
    const [a, b] = [await readDrawing(files[0]), await readDrawing(files[1])];
    const whole = ({ layers }: ImportedDrawing): Curves => layers.map(({ curves }) => closedOf(curves)).reduce((sum, curves) => combineCurves(library, 'join', sum, curves));
    const curves = combineCurves(library, kind, whole(a), whole(b));
    if (ringCount(curves) === 0) throw new AppError('nothingToCut');
    const { name, colour } = a.layers[0];
    await outputs.write(out, writeOutlineSvg([{ film: { id: name, name, colour }, curves }], a.widthMm, a.heightMm, `${basename(files[0])}, ${word}, ${basename(files[1])}`));
    return 0;
  },
};

function closedOf(curves: Curves): Curves {
  const builder = new CurvesBuilder();
  const place = new Map<number, number>([[-1, -1]]);
  for (let ring = 0; ring < ringCount(curves); ring++) {
    if (isOpenRing(curves, ring)) continue;
    place.set(ring, place.size - 1);
    builder.copy(curves, ring, place.get(curves.parent[ring]) ?? -1);
  }
  return builder.build();
}
