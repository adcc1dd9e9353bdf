import { AppError } from '../../src/core/errors/appError.ts';
import { liftAt } from '../../src/core/clean/liftAt.ts';
import { MAX_TOLERANCE } from '../../src/core/clean/steps/areaLift.ts';
import { artFromPicture, pictureFromArt } from '../../src/core/raster/art.ts';
import { finish } from '../../src/core/task/task.ts';
import { pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { autoOrNumber, required } from '../arguments.ts';
import { eachInput } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readPicture, writeBytes } from '../files.ts';
import { Timings } from '../timings.ts';
import type { Command } from './command.ts';

export const lift: Command = {
  usage: 'limner lift IN... --out OUT.png|DIR --at X,Y [--tolerance auto|NUMBER] [--everywhere] [--enclosed] [--timings]',
  about: 'Lifts the ground off: from a point, or that colour everywhere.',
  options: {
    out: { takes: 'the PNG file to write', about: 'the PNG file to write' },
    at: { takes: 'X,Y in pixels', about: 'where to start, pixels from the upper left of the upright picture' },
    tolerance: { takes: `auto or 0 to ${MAX_TOLERANCE}`, about: 'largest perceptual difference from the colour there (default auto)' },
    everywhere: { about: 'that colour wherever it is' },
    enclosed: { about: 'also closed-off areas of the colour, such as counters of letters' },
    hard: { about: 'no partly clear pixels along the edge' },
    timings: { about: 'print decode_ms, lift_ms and write_ms' },
  },
  async run(parsed, console) {
    const at = readPoint(required(parsed, 'at', 'two numbers X,Y in pixels'));
    const tolerance = autoOrNumber(parsed, 'tolerance', 0, MAX_TOLERANCE);
    const options = { tolerance, everywhere: parsed.values.has('everywhere'), enclosed: parsed.values.has('enclosed'), soft: !parsed.values.has('hard') };
    const timings = new Timings();
    const code = await eachInput(parsed, console, '.png', async (input, output) => {
      const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input));
      const [x, y] = at.map(Math.floor);
      if (x < 0 || y < 0 || x >= picture.width || y >= picture.height) {
        throw new AppError('badValue', { name: '--at', value: at.join(','), takes: `a point inside the picture, 0,0 to ${picture.width - 1},${picture.height - 1}` });
      }
      const outcome = await timings.measure('lift', () => finish(liftAt(artFromPicture(picture), x, y, options)));
      await timings.measure('write', async () => writeBytes(output, await encodeFile(pictureFromArt(outcome.art), statedDpi === undefined ? undefined : pxPerMmFromDpi(statedDpi))));
      console.out(`tolerance ${outcome.tolerance}, ${outcome.areaPx2} px lifted${outcome.enclosed > 0 ? `, ${outcome.enclosed} enclosed areas` : ''}\n`);
    });
    if (parsed.values.has('timings')) console.out(timings.lines());
    return code;
  },
};

function readPoint(text: string): [number, number] {
  const match = /^\s*(\d+(?:\.\d+)?)\s*,\s*(\d+(?:\.\d+)?)\s*$/.exec(text);
  if (match === null) throw new AppError('badValue', { name: '--at', value: text, takes: 'two numbers X,Y in pixels such as 12,40' });
  return [Number(match[1]), Number(match[2])];
}
