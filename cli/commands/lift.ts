import { AppError } from '../../src/core/errors/appError.ts';
import { liftAt } from '../../src/core/clean/liftAt.ts';
import { MAX_GUARD_PX, MAX_TOLERANCE } from '../../src/core/clean/steps/areaLift.ts';
import { MAX_RIM_PX } from '../../src/core/clean/steps/subjectLift.ts';
import { liftSubject } from '../../src/core/clean/subject/liftSubject.ts';
import { artFromPicture, pictureFromArt, type Art } from '../../src/core/raster/art.ts';
import { pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { autoOrNumber, DRAW_OPTION, FORCE_OPTION, drawnSide, numberOption, required, type Parsed } from '../arguments.ts';
import { eachInput } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readPicture } from '../files.ts';
import { finishTelling } from '../progress.ts';
import { Timings } from '../timings.ts';
import type { Command, Console } from './command.ts';

export const lift: Command = {
  usage: 'limner lift IN... --out OUT.png|DIR (--subject [--hair PX] [--largest] | --at X,Y [--tolerance auto|NUMBER] [--everywhere] [--enclosed] [--guard PX]) [--timings]',
  about: 'Lifts the ground off: all but the subject, from a point, or a colour everywhere.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'a PNG file, or a folder for several', about: 'the PNG file to write, or a folder' },
    subject: { about: 'find the subject and lift everything else' },
    hair: { takes: `a width in px, 0 to ${MAX_RIM_PX}`, about: 'with --subject: hair, fur and blur reach so far to both sides of the border' },
    largest: { about: 'with --subject: only the largest part that hangs together' },
    at: { takes: 'X,Y in pixels', about: 'where to start, pixels from the upper left of the upright picture' },
    tolerance: { takes: `auto or 0 to ${MAX_TOLERANCE}`, about: 'largest perceptual difference from the colour there (default auto)' },
    everywhere: { about: 'that colour wherever it is' },
    enclosed: { about: 'also closed-off areas of the colour, such as counters of letters' },
    guard: { takes: 'a width in px', about: 'gaps in an outline narrower than this do not let the lift through' },
    hard: { about: 'no partly clear pixels along the edge' },
    ...FORCE_OPTION,
    timings: { about: 'print decode_ms, lift_ms and write_ms' },
  },
  async run(parsed, console) {
    const lifted = lifterOf(parsed);
    const timings = new Timings();
    const code = await eachInput(parsed, console, 'lift', '.png', async (input, output, outputs, console) => {
      const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
      const { art, words } = await timings.measure('lift', () => lifted(artFromPicture(picture), console));
      await timings.measure('write', async () => outputs.write(output, await encodeFile(pictureFromArt(art), statedDpi === undefined ? undefined : pxPerMmFromDpi(statedDpi))));
      console.out(`${words}\n`);
    });
    if (parsed.values.has('timings')) console.out(timings.lines());
    return code;
  },
};

/** What the options ask for, as a function on art that also says in words what it did. */
function lifterOf(parsed: Parsed): (art: Art, console: Console) => { art: Art; words: string } {
  if (parsed.values.has('subject')) {
    const other = ['at', 'tolerance', 'everywhere', 'enclosed', 'guard', 'hard'].find((name) => parsed.values.has(name));
    if (other !== undefined) throw new AppError('badValue', { name: '--subject', value: `--${other} beside it`, takes: 'no other option of a lift' });
    const rimPx = numberOption(parsed, 'hair', 0, MAX_RIM_PX) ?? 0;
    return (art, console) => {
      const lift = finishTelling(liftSubject(art, [], { rimPx, largest: parsed.values.has('largest') }), console, 'lifting');
      return { art: lift.art, words: `${lift.areaPx2} px lifted${howMuch(lift.areaPx2, art)}` };
    };
  }
  for (const name of ['hair', 'largest']) if (parsed.values.has(name)) throw new AppError('badValue', { name: `--${name}`, value: parsed.values.get(name) ?? '', takes: '--subject beside it' });
  const at = readPoint(required(parsed, 'at', 'two numbers X,Y in pixels, or give --subject'));
  const tolerance = autoOrNumber(parsed, 'tolerance', 0, MAX_TOLERANCE);
  const options = { tolerance, everywhere: parsed.values.has('everywhere'), enclosed: parsed.values.has('enclosed'), soft: !parsed.values.has('hard'), guardPx: numberOption(parsed, 'guard', 0, MAX_GUARD_PX) ?? 0 };
  return (art, console) => {
    const [x, y] = at.map(Math.floor);
    if (x < 0 || y < 0 || x >= art.width || y >= art.height) throw new AppError('badValue', { name: '--at', value: at.join(','), takes: `a point inside the picture, 0,0 to ${art.width - 1},${art.height - 1}` });
    const lift = finishTelling(liftAt(art, x, y, options), console, 'lifting');
    return { art: lift.art, words: `tolerance ${lift.tolerance}, ${lift.areaPx2} px lifted${lift.finds.length > 0 ? `, ${lift.finds.length} enclosed ${lift.finds.length === 1 ? 'area' : 'areas'}` : ''}${howMuch(lift.areaPx2, lift.art)}` };
  };
}

/** Says so when a lift took nothing, or left nothing. */
function howMuch(areaPx2: number, art: Art): string {
  if (areaPx2 === 0) return ': nothing was taken, the picture is as it was';
  return areaPx2 >= art.width * art.height || !art.alpha.some((value) => value >= 128) ? ': everything was taken, nothing of the picture is left' : '';
}

function readPoint(text: string): [number, number] {
  const match = /^\s*(\d+(?:\.\d+)?)\s*,\s*(\d+(?:\.\d+)?)\s*$/.exec(text);
  if (match === null) throw new AppError('badValue', { name: '--at', value: text, takes: 'two numbers X,Y in pixels such as 12,40' });
  return [Number(match[1]), Number(match[2])];
}
