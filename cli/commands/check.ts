import { basename } from 'node:path';
import { cutCheck, type Finding } from '../../src/core/check/cutCheck.ts';
import { cutTwice } from '../../src/core/check/cutTwice.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import { PROCESSES } from '../../src/core/process/processes.ts';
import { mm } from '../../src/core/units/length.ts';
import { choiceOption, lengthOption, numberOption, oneInput } from '../arguments.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { readDrawing } from '../readDrawing.ts';
import { FINDING_WORDS } from '../report.ts';
import { rounded } from '../rounded.ts';
import type { Command } from './command.ts';

const FILMS = ['htv', 'decal', 'stencil'] as const;

export const check: Command = {
  usage: 'limner check FILE.svg --film htv|decal|stencil [--json] [--strip 0.8mm] [--gap 0.4mm] [--piece MM2]',
  about: 'Looks in a drawing for what will not cut or weed well at its size.',
  options: {
    film: { takes: FILMS.join(', '), about: 'what it is cut of, which says how narrow and how small is too much; of a stencil the drawing is what falls out' },
    json: { about: 'print one JSON list instead of text: kind, filmId, xMm, yMm, and widthMm, areaMm2 or angleDeg' },
    strip: { takes: 'a length', about: 'narrowest strip of film that holds, in place of the film’s own' },
    gap: { takes: 'a length', about: 'narrowest gap that comes out, in place of the film’s own' },
    piece: { takes: 'mm²', about: 'smallest piece and hole, in place of the film’s own' },
  },
  notes: 'Places are in mm from the upper left of the page.',
  async run(parsed, console) {
    const input = oneInput(parsed);
    const film = choiceOption(parsed, 'film', FILMS);
    if (film === undefined) throw new AppError('badValue', { name: '--film', value: 'nothing', takes: FILMS.join(', ') });
    const rules = PROCESSES[film];
    const limits = {
      ...rules,
      leastStripMm: Number(lengthOption(parsed, 'strip', 0, 50) ?? mm(rules.leastStripMm)),
      leastGapMm: Number(lengthOption(parsed, 'gap', 0, 50) ?? mm(rules.leastGapMm)),
      leastPieceMm2: numberOption(parsed, 'piece', 0, 10_000) ?? rules.leastPieceMm2,
    };
    const { layers, leftOut } = await readDrawing(input);
    const design = { layers: layers.map(({ name, curves }) => ({ filmId: name, curves })) };
    const findings = [...cutCheck(design, limits), ...cutTwice(await loadPolygons(), design.layers)];
    if (parsed.values.has('json')) console.out(`${JSON.stringify(findings.map(told), null, 1)}\n`);
    else if (findings.length === 0) console.out('nothing found\n');
    else for (const { kind, size, xMm, yMm, filmId } of findings) console.out(`${filmId ?? ''}: ${FINDING_WORDS[kind](size)} at ${xMm.toFixed(2)}, ${yMm.toFixed(2)} mm\n`);
    for (const { what, count } of leftOut) console.err(`${basename(input)}: ${what}: ${count}\n`);
    return 0;
  },
};

/** What the size of a finding is. */
const MEASURES: { readonly [Kind in Finding['kind']]: 'widthMm' | 'areaMm2' | 'angleDeg' | 'nodes' | 'signs' | 'dpi' | 'difference' } = {
  smallPiece: 'areaMm2',
  smallHole: 'areaMm2',
  island: 'areaMm2',
  thin: 'widthMm',
  narrowGap: 'widthMm',
  sharp: 'angleDeg',
  jagged: 'widthMm',
  openOutline: 'widthMm',
  cutTwice: 'areaMm2',
  crowded: 'nodes',
  backwards: 'signs',
  coarsePicture: 'dpi',
  likeBlank: 'difference',
  holdsNone: 'areaMm2',
};

const told = ({ kind, filmId, xMm, yMm, size }: Finding): Record<string, unknown> => ({ kind, filmId, xMm: rounded(xMm), yMm: rounded(yMm), [MEASURES[kind]]: rounded(size) });
