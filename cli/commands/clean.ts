import { basename } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import { fewerColours } from '../../src/core/clean/fewerColours.ts';
import { levelLight } from '../../src/core/clean/levelLight.ts';
import { applyLevels, fullContrast, type Levels } from '../../src/core/clean/levels.ts';
import { mendGaps } from '../../src/core/clean/mendGaps.ts';
import { pickLines } from '../../src/core/clean/pickLines.ts';
import { smoothArt } from '../../src/core/clean/smoothArt.ts';
import { MAX_TIDY_PX } from '../../src/core/clean/steps/edgeTidying.ts';
import { MAX_STRAIGHTEN_DEG } from '../../src/core/clean/steps/turn.ts';
import { sweepArt } from '../../src/core/clean/sweepTones.ts';
import { tidyEdges } from '../../src/core/clean/tidyEdges.ts';
import { applyRecipe } from '../../src/core/run/applyRecipe.ts';
import { drawnLarger } from '../../src/core/run/drawnLarger.ts';
import { hashBytes } from '../../src/core/task/hash.ts';
import { readRecipe } from '../../src/core/job/readJob.ts';
import type { Recipe } from '../../src/core/clean/recipe.ts';
import { artFromPicture, pictureFromArt, withAlpha, type Art } from '../../src/core/raster/art.ts';
import { cropArt } from '../../src/core/raster/crop.ts';
import { turnArt } from '../../src/core/raster/turn.ts';
import { finish } from '../../src/core/task/task.ts';
import { pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { autoOrNumber, DRAW_OPTION, FORCE_OPTION, drawnSide, lengthOption, numberOption, numbersOption, type Parsed } from '../arguments.ts';
import { eachInput } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readJson, readPicture } from '../files.ts';
import { finishTelling } from '../progress.ts';
import { Timings } from '../timings.ts';
import type { Command, Console } from './command.ts';

type Cleaner = (art: Art, parsed: Parsed) => Art;

/** Single steps as options: what each does to the art. They are applied in the order in which they are given. */
const STEPS: Readonly<Record<string, { takes?: string; about: string; run: Cleaner }>> = {
  'level-light': { about: 'take shadow, uneven light and paper tone out', run: (art) => finish(levelLight(art)).art },
  smooth: {
    takes: 'levels, 1 to 100',
    about: 'smooth differences up to so many levels of 255, keep edges',
    run: (art, parsed) => withAlpha(art, art.alpha, finish(smoothArt(art, numberOption(parsed, 'smooth', 1, 100) ?? 16))),
  },
  'full-contrast': {
    about: 'bring a pale drawing to full black on white',
    run(art) {
      const points = fullContrast(art.colour);
      if (points === undefined) throw new AppError('oneColour');
      return relevelled(art, points);
    },
  },
  levels: {
    takes: 'BLACK,WHITE or BLACK,WHITE,GAMMA',
    about: 'bring these two lightnesses (0 to 255) to black and white, bend the middle tones by gamma',
    run(art, parsed) {
      const [black, white, gamma = 1] = numbersOption(parsed, 'levels', [2, 3], 'two lightnesses from 0 to 255, black below white, and a gamma from 0.1 to 10');
      if (!(black >= 0 && black < white && white <= 255 && gamma >= 0.1 && gamma <= 10)) throw new AppError('badValue', { name: '--levels', value: parsed.values.get('levels') ?? '', takes: 'two lightnesses from 0 to 255, black below white, and a gamma from 0.1 to 10' });
      return relevelled(art, { black, white, gamma });
    },
  },
  brightness: { takes: 'percent, -100 to 100', about: 'lighter or darker', run: (art, parsed) => relevelled(art, { brightness: (numberOption(parsed, 'brightness', -100, 100) ?? 0) / 100 }) },
  contrast: { takes: 'percent, -100 to 100', about: 'more or less contrast', run: (art, parsed) => relevelled(art, { contrast: (numberOption(parsed, 'contrast', -100, 100) ?? 0) / 100 }) },
  saturation: { takes: 'percent, 0 to 300', about: 'less or more colour', run: (art, parsed) => relevelled(art, { saturation: (numberOption(parsed, 'saturation', 0, 300) ?? 100) / 100 }) },
  threshold: { takes: 'auto or 0 to 255', about: 'keep what is darker than one lightness, found or given, and clear the rest', run: (art, parsed) => finish(pickLines(art, 0.5, thresholdOf(parsed))).art },
  crop: {
    takes: 'X,Y,WIDTH,HEIGHT in px',
    about: 'keep this part',
    run(art, parsed) {
      const [xPx, yPx, widthPx, heightPx] = numbersOption(parsed, 'crop', [4], 'left, top, width and height in px');
      return cropArt(art, { xPx: art.frame.leftPx + xPx, yPx: art.frame.topPx + yPx, widthPx, heightPx });
    },
  },
  grey: { about: 'take the colour out', run: (art) => relevelled(art, { saturation: 0 }) },
  invert: { about: 'light to dark and dark to light', run: (art) => relevelled(art, { invert: true }) },
  colours: { takes: 'auto or 2 to 32', about: 'bring it to so many real tones, counting the background', run: (art, parsed) => finish(fewerColours(art, autoOrNumber(parsed, 'colours', 2, 32))).art },
  'mend-gaps': { takes: 'a width in px', about: 'close breaks in drawn lines up to this width', run: (art, parsed) => finish(mendGaps(art, numberOption(parsed, 'mend-gaps', 1, 500) ?? 12)).art },
  'pick-lines': { takes: 'detail, 0 to 1', about: 'keep ink, clear pencil, watermarks and paper', run: (art, parsed) => finish(pickLines(art, numberOption(parsed, 'pick-lines', 0, 1) ?? 0.4)).art },
  enlarge: { takes: '2 or 4', about: 'make small flat art so many times as large, without steps or blur', run: (art, parsed) => finish(drawnLarger(art, timesOf(parsed))) },
  tidy: { takes: 'an amount in px', about: 'smooth jagged edges by this amount; corners stay', run: (art, parsed) => finish(tidyEdges(art, numberOption(parsed, 'tidy', 0.5, MAX_TIDY_PX) ?? 2)).art },
  turn: { takes: '90, 180 or 270', about: 'turn clockwise', run: (art, parsed) => turnArt(art, { mirrored: false, quarters: quartersOf(parsed), angleDeg: 0 }) },
  straighten: { takes: 'degrees, -45 to 45', about: 'turn by a small angle clockwise', run: (art, parsed) => turnArt(art, { mirrored: false, quarters: 0, angleDeg: numberOption(parsed, 'straighten', -MAX_STRAIGHTEN_DEG, MAX_STRAIGHTEN_DEG) ?? 0 }) },
  mirror: { about: 'change left and right over', run: (art) => turnArt(art, { mirrored: true, quarters: 0, angleDeg: 0 }) },
  sweep: {
    takes: 'an area in px',
    about: 'remove specks and fill pinholes smaller than this',
    run(art, parsed) {
      const areaPx2 = numberOption(parsed, 'sweep', 0, 1e6) ?? 0;
      return finish(sweepArt(art, areaPx2, areaPx2)).art;
    },
  },
};

const relevelled = (art: Art, change: Partial<Levels>): Art => withAlpha(art, art.alpha, applyLevels(art.colour, { black: 0, white: 255, gamma: 1, saturation: 1, invert: false, ...change }));

function thresholdOf(parsed: Parsed): 'found' | number {
  return parsed.values.get('threshold') === 'auto' ? 'found' : (numberOption(parsed, 'threshold', 0, 255) ?? 128);
}

function timesOf(parsed: Parsed): 2 | 4 {
  const text = parsed.values.get('enlarge') ?? '';
  if (text !== '2' && text !== '4') throw new AppError('badValue', { name: '--enlarge', value: text, takes: '2 or 4' });
  return text === '2' ? 2 : 4;
}

function quartersOf(parsed: Parsed): 1 | 2 | 3 {
  const text = parsed.values.get('turn') ?? '';
  const quarters = ['90', '180', '270'].indexOf(text) + 1;
  if (quarters === 0) throw new AppError('badValue', { name: '--turn', value: text, takes: '90, 180 or 270' });
  return quarters as 1 | 2 | 3;
}

export const clean: Command = {
  usage: 'limner clean IN... --out OUT.png|DIR [--recipe FILE] [steps, in order] [--timings]',
  about: 'Runs clean-up steps on pictures: those of a recipe, then those given as options, in their order.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'a PNG file, or a folder for several', about: 'the PNG file to write, or a folder' },
    recipe: { takes: 'a JSON file', about: 'a recipe: a list of steps, or a job whose recipe is meant' },
    width: { takes: 'a length', about: 'finished width, for steps that measure in mm (default: what the file states, else 96 dpi)' },
    ...STEPS,
    ...FORCE_OPTION,
    timings: { about: 'print decode_ms, clean_ms and write_ms' },
  },
  async run(parsed, console) {
    const recipePath = parsed.values.get('recipe');
    const recipe = recipePath === undefined ? [] : readRecipe(await readJson(recipePath), basename(recipePath));
    const chosen = [...parsed.values.keys()].filter((name) => Object.hasOwn(STEPS, name));
    if (recipe.length === 0 && chosen.length === 0) throw new AppError('badValue', { name: 'The steps', value: 'nothing', takes: `--recipe or one of ${Object.keys(STEPS).map((name) => `--${name}`).join(', ')}` });
    const timings = new Timings();
    const code = await eachInput(parsed, console, 'clean', '.png', async (input, output, outputs, console) => {
      const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
      const widthMm = lengthOption(parsed, 'width') ?? picture.width / pxPerMmFromDpi(statedDpi ?? 96);
      const cleaned = await timings.measure('clean', () => {
        const art = withRecipe(artFromPicture(picture), hashBytes(picture.data as Uint8Array), recipe, widthMm, input, console);
        return chosen.reduce((before, name) => STEPS[name].run(before, parsed), art);
      });
      await timings.measure('write', async () => outputs.write(output, await encodeFile(pictureFromArt(cleaned), statedDpi === undefined ? undefined : pxPerMmFromDpi(statedDpi) * cleaned.frame.scale)));
    }, recipePath === undefined ? [] : [recipePath]);
    if (parsed.values.has('timings')) console.out(timings.lines());
    return code;
  },
};

function withRecipe(picture: Art, pictureKey: string, recipe: Recipe, sizeMm: number, input: string, console: Console): Art {
  const { art, steps } = finishTelling(applyRecipe({ picture, pictureKey, recipe, finished: { by: 'width', sizeMm, turnDeg: 0 } }), console, 'cleaning');
  for (const { id, skipped } of steps) if (skipped !== undefined) console.err(`${basename(input)}: step ${id} skipped: ${explain({ code: skipped, details: {} }).what}\n`);
  return art;
}
