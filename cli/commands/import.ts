import { basename } from 'node:path';
import { figuresOf } from '../../src/core/check/figures.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { choiceOption, FORCE_OPTION, oneInput, required } from '../arguments.ts';
import { Outputs } from '../outputs.ts';
import { readDrawing } from '../readDrawing.ts';
import type { Command } from './command.ts';

export const importDrawing: Command = {
  usage: 'limner import FILE.svg|FILE.dxf|FILE.hpgl --out OUT.svg [--strokes outline|line|drop] [--report OUT.json]',
  about: 'Reads the outlines of a drawing at true size and writes them as films.',
  options: {
    out: { takes: 'the SVG file to write', about: 'the page of the drawing with a group for each film: its fills in an SVG, its layers in a DXF' },
    strokes: { takes: 'outline, line or drop', about: 'for SVG: outlines around strokes, the lines themselves, or neither (default: lines up to 0.3 mm as lines, broader ones as outlines)' },
    report: { takes: 'a JSON file to write', about: 'size, films with their figures and open ends, what was left out and how often' },
    ...FORCE_OPTION,
  },
  async run(parsed, console) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG file to write');
    const report = parsed.values.get('report');
    const strokes = choiceOption(parsed, 'strokes', ['outline', 'line', 'drop'] as const);
    const outputs = await Outputs.of([input], parsed.values.has('force'));
    for (const file of report === undefined ? [out] : [out, report]) await outputs.check(file);
    const { widthMm, heightMm, layers, leftOut } = await readDrawing(input, { strokes });
    const films = layers.map(({ name, colour, curves }) => ({ film: { id: name, name, colour }, curves }));
    await outputs.write(out, writeOutlineSvg(films, widthMm, heightMm, basename(input)));
    for (const { what, count } of leftOut) console.err(`${basename(input)}: ${what}: ${count}\n`);
    const told = layers.map(({ name, colour, curves, openEnds }) => ({ name, colour, openEnds, ...figuresOf(curves) }));
    if (report !== undefined) await outputs.write(report, `${JSON.stringify({ widthMm, heightMm, films: told, leftOut }, null, 2)}\n`);
    return 0;
  },
};
