import { AppError } from '../../src/core/errors/appError.ts';
import { translation } from '../../src/core/geometry/affine.ts';
import { letterCurves } from '../../src/core/lettering/letterCurves.ts';
import { letteringSchema, MAX_LETTERS, type Lettering } from '../../src/core/lettering/lettering.ts';
import { boundsOf, type Bounds } from '../../src/core/outline/curves.ts';
import { transformCurves } from '../../src/core/outline/transformCurves.ts';
import { fontsWith } from '../../src/engine/fontsWith.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { choiceOption, FORCE_OPTION, lengthOption, numberOption, required, type Parsed } from '../arguments.ts';
import { loadFont } from '../loadFont.ts';
import { loadPolygons } from '../loadPolygons.ts';
import { Outputs } from '../outputs.ts';
import type { Command } from './command.ts';

/** A circle leaves so much of itself free when the text says how large it is. */
const FREE = 0.12;

export const letter: Command = {
  usage: 'limner letter TEXT --font NAME|FILE --height 30mm --out OUT.svg [--spacing PERCENT] [--around-circle [--diameter 90mm] [--bottom]] [--join] [--thicken 0.4mm] [--width 200mm]',
  about: 'Sets a text as outlines.',
  options: {
    font: { takes: 'a name or a font file', about: 'one of “limner fonts”, or a TTF, OTF, WOFF or WOFF2 file' },
    height: { takes: 'a length', about: 'height of a capital' },
    out: { takes: 'the SVG file to write', about: 'a page as large as the lettering' },
    spacing: { takes: 'percent of the height, -50 to 500', about: 'more or less room between letters (default 0)' },
    'line-spacing': { takes: 'percent of the height, 50 to 1000', about: 'from line to line (default 160); lines are parted by \\n' },
    align: { takes: 'left, middle or right', about: 'how lines stand (default middle)' },
    'around-circle': { about: 'on a circle, as large as the text wants unless --diameter says' },
    diameter: { takes: 'a length', about: 'of the circle on which the letters stand' },
    bottom: { about: 'along the bottom of the circle instead of over its top' },
    join: { about: 'letters that touch as one outline, as script is cut' },
    thicken: { takes: 'a length', about: 'outlines moved outwards, inwards below 0 (--thicken=-0.2mm)' },
    width: { takes: 'a length', about: 'made so wide by narrowing or spreading the letters' },
    color: { takes: '#rrggbb', about: 'its fill (default #1c2b4a)' },
    ...FORCE_OPTION,
  },
  async run(parsed, console) {
    const [text, ...rest] = parsed.inputs;
    if (text === undefined || rest.length > 0) throw new AppError('badValue', { name: 'The text', value: text === undefined ? 'nothing' : `${rest.length + 1} texts`, takes: 'one text, in quotes when it has spaces' });
    const name = required(parsed, 'font', 'a name of “limner fonts”, or a font file');
    const out = required(parsed, 'out', 'the SVG file to write');
    const lettering = letteringOf(text.replaceAll('\\n', '\n'), name, parsed);
    const colour = parsed.values.get('color') ?? '#1c2b4a';
    if (!/^#[0-9a-f]{6}$/i.test(colour)) throw new AppError('badValue', { name: '--color', value: colour, takes: '#rrggbb' });
    const face = await loadFont(name, lettering.text);
    const outputs = await Outputs.of([], parsed.values.has('force'));
    const library = await loadPolygons();
    const set = (around?: Lettering['around']): ReturnType<typeof letterCurves> => letterCurves(library, face, around === undefined ? lettering : { ...lettering, around });
    const { curves, missing } = parsed.values.has('around-circle') ? set(circleOf(parsed, boundsOf(set().curves))) : set();
    const box = boundsOf(curves) as Bounds;
    const film = { id: face.name, name: text.split('\\n')[0].slice(0, 60).trim() || 'Lettering', colour: colour.toLowerCase() };
    await outputs.write(out, writeOutlineSvg([{ film, curves: transformCurves(curves, translation(-box.left, -box.top)) }], box.right - box.left, box.bottom - box.top, text));
    if (missing.length > 0) console.err(`${face.name} has no ${missing.map((each) => `“${each}”`).join(', ')}. ${await whichHave(missing)}\n`);
    return 0;
  },
};

function letteringOf(text: string, font: string, parsed: Parsed): Lettering {
  const heightMm = lengthOption(parsed, 'height', 0.5, 2000);
  if (heightMm === undefined) throw new AppError('badValue', { name: '--height', value: 'nothing', takes: 'the height of a capital, such as 30mm' });
  const percent = (name: string, least: number, most: number): number | undefined => {
    const value = numberOption(parsed, name, least, most);
    return value === undefined ? undefined : value / 100;
  };
  const thicken = lengthOption(parsed, 'thicken', -20, 20);
  const given = {
    text,
    font,
    heightMm: Number(heightMm),
    spacing: percent('spacing', -50, 500),
    lineSpacing: percent('line-spacing', 50, 1000),
    align: choiceOption(parsed, 'align', ['left', 'middle', 'right'] as const),
    join: parsed.values.has('join') || undefined,
    thickenMm: thicken === undefined ? undefined : Number(thicken),
    widthMm: lengthOption(parsed, 'width'),
  };
  const read = letteringSchema.safeParse(Object.fromEntries(Object.entries(given).filter(([, value]) => value !== undefined)));
  if (read.success) return read.data;
  const { path } = read.error.issues[0];
  const takes = path[0] === 'text' ? `1 to ${MAX_LETTERS} letters` : 'a size that can be cut';
  throw new AppError('badValue', { name: path[0] === 'text' ? 'The text' : `--${String(path[0]).replace('Mm', '')}`, value: path[0] === 'text' ? `${text.length} letters` : 'out of bounds', takes });
}

function circleOf(parsed: Parsed, box: Bounds | undefined): NonNullable<Lettering['around']> {
  const length = box === undefined ? 100 : box.right - box.left;
  return { diameterMm: Number(lengthOption(parsed, 'diameter') ?? Math.max(1, length / (Math.PI * (1 - FREE)))), side: parsed.values.has('bottom') ? 'bottom' : 'top' };
}

/** Which fonts have characters that one lacks. */
async function whichHave(missing: readonly string[]): Promise<string> {
  const having = await fontsWith(missing.join(''), loadFont);
  return having.length === 0 ? 'No shipped font has it: give a font file.' : `${having.join(', ')} ${having.length === 1 ? 'has' : 'have'}.`;
}
