import { AppError } from '../../src/core/errors/appError.ts';
import type { Lens } from '../../src/core/clean/squaring/camera.ts';
import { squarePicture, type PointPx, type Squared, type SquaringMarks } from '../../src/core/clean/squaring/squarePicture.ts';
import { finish } from '../../src/core/task/task.ts';
import { FORCE_OPTION, lengthOption, type Parsed } from '../arguments.ts';
import { eachInput } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readPicture } from '../files.ts';
import { Timings } from '../timings.ts';
import type { Command } from './command.ts';

export const square: Command = {
  usage: 'limner square IN... --out OUT.png|DIR [--marks auto|X,Y;X,Y;X,Y;X,Y] [--length MM [--height MM]] [--lens K1,K2] [--keep-light] [--allow-missing] [--timings]',
  about: 'Makes a photo taken at an angle flat and true to scale, by the mark sheet or by four corners.',
  options: {
    out: { takes: 'a PNG file, or a folder for several', about: 'the PNG file to write, or a folder; it states its resolution' },
    marks: { takes: 'auto or four points X,Y;X,Y;X,Y;X,Y in px', about: 'the mark sheet by itself (default), or four corners clockwise from the upper left one: of a rectangle with --length, else about where the corner marks are' },
    length: { takes: 'a length', about: 'true length of the rectangle’s first side, corner to corner' },
    height: { takes: 'a length', about: 'true length of its second side, where it is known' },
    lens: { takes: 'two numbers K1,K2', about: 'how the lens bends, as another photo of the camera told' },
    'keep-light': { about: 'leave shadow and uneven light in' },
    'allow-missing': { about: 'go on when a few marks other than the corners are covered' },
    ...FORCE_OPTION,
    timings: { about: 'print decode_ms, square_ms and write_ms' },
  },
  async run(parsed, console) {
    const options = { marks: readMarks(parsed), levelLight: !parsed.values.has('keep-light'), allowMissing: parsed.values.has('allow-missing'), ...readLens(parsed) };
    const timings = new Timings();
    const code = await eachInput(parsed, console, 'square', '.png', async (input, output, outputs, console) => {
      const { picture } = await timings.measure('decode', () => readPicture(input));
      const squared = await timings.measure('square', () => finish(squarePicture(picture, options)));
      await timings.measure('write', async () => outputs.write(output, await encodeFile(squared.picture, squared.resolution)));
      console.out(wordsOn(squared));
    });
    if (parsed.values.has('timings')) console.out(timings.lines());
    return code;
  },
};

function wordsOn({ resolution, paper, area, marksFound, marksOnSheet, meanMissMm, worstMissMm, view }: Squared): string {
  const scale = `scale ${resolution.toFixed(4)} px/mm (${(resolution * 25.4).toFixed(1)} dpi), ${area.widthMm.toFixed(1)} x ${area.heightMm.toFixed(1)} mm`;
  if (paper === undefined) return `${scale}\nresidual unknown: four corners always fit\n`;
  return `${scale}\nresidual ${meanMissMm.toFixed(3)} mm mean, ${worstMissMm.toFixed(3)} mm worst, ${marksFound} of ${marksOnSheet} marks (${paper})\nlens ${view.lens.k1.toFixed(5)},${view.lens.k2.toFixed(5)}\n`;
}

function readMarks(parsed: Parsed): SquaringMarks {
  const text = parsed.values.get('marks') ?? 'auto';
  const widthMm = lengthOption(parsed, 'length');
  const heightMm = lengthOption(parsed, 'height');
  if (text === 'auto') {
    if (widthMm !== undefined || heightMm !== undefined) throw new AppError('badValue', { name: '--length', value: 'no corners', takes: 'four corners in --marks beside it' });
    return { by: 'sheet' };
  }
  const corners = text.split(';').map((part) => readNumbers('--marks', part, 2, 'auto or four points X,Y;X,Y;X,Y;X,Y') as unknown as PointPx);
  if (corners.length !== 4) throw new AppError('badValue', { name: '--marks', value: text, takes: 'auto or four points X,Y;X,Y;X,Y;X,Y' });
  if (widthMm === undefined) return { by: 'sheet', corners };
  return { by: 'corners', corners, widthMm, ...(heightMm === undefined ? {} : { heightMm }) };
}

function readLens(parsed: Parsed): { lens?: Lens } {
  const text = parsed.values.get('lens');
  if (text === undefined) return {};
  const [k1, k2] = readNumbers('--lens', text, 2, 'two numbers K1,K2 from -1 to 1');
  if (Math.max(Math.abs(k1), Math.abs(k2)) > 1) throw new AppError('badValue', { name: '--lens', value: text, takes: 'two numbers K1,K2 from -1 to 1' });
  return { lens: { k1, k2 } };
}

function readNumbers(name: string, text: string, count: number, takes: string): number[] {
  const numbers = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)));
  if (numbers.length !== count || !numbers.every(Number.isFinite)) throw new AppError('badValue', { name, value: text, takes });
  return numbers;
}
