import { basename } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import { artResolution } from '../../src/core/clean/finishedSize.ts';
import type { Recipe, Step } from '../../src/core/clean/recipe.ts';
import { MAX_TIDY_PX } from '../../src/core/clean/steps/edgeTidying.ts';
import type { LevelsStep } from '../../src/core/clean/steps/levels.ts';
import { STEP_VERSION } from '../../src/core/clean/steps/step.ts';
import { MAX_STRAIGHTEN_DEG, type TurnStep } from '../../src/core/clean/steps/turn.ts';
import { readRecipe } from '../../src/core/job/readJob.ts';
import { artFromPicture, pictureFromArt, type Art } from '../../src/core/raster/art.ts';
import { applyRecipe, keepSteps, type CleanResult } from '../../src/core/run/applyRecipe.ts';
import { hashBytes } from '../../src/core/task/hash.ts';
import type { FinishedSize } from '../../src/core/units/finishedSize.ts';
import { pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { autoOrNumber, DRAW_OPTION, FORCE_OPTION, drawnSide, lengthOption, numberOption, numbersOption, type Parsed } from '../arguments.ts';
import { eachInput } from '../eachInput.ts';
import { encodeFile } from '../encodeFile.ts';
import { readJson, readPicture } from '../files.ts';
import { finishTelling } from '../progress.ts';
import { Timings } from '../timings.ts';
import type { Command, Console } from './command.ts';

/** What an option makes a step of. @param areaMm2 of so many px² of the art as it is when its turn comes, in the finished design. */
type StepOf = (parsed: Parsed, areaMm2: (areaPx2: number) => number) => Settings;
/** A step without what every one has. */
type Settings = { [Kind in Step['kind']]: Omit<Extract<Step, { kind: Kind }>, 'id' | 'enabled' | 'v'> }[Step['kind']];

/** Single steps as options: what each puts at the end of the recipe, in the order in which they are given. */
const STEPS: Readonly<Record<string, { takes?: string; about: string; step: StepOf }>> = {
  'level-light': { about: 'take shadow, uneven light and paper tone out', step: () => ({ kind: 'lightLevelling', strength: 1 }) },
  smooth: {
    takes: 'levels, 1 to 100',
    about: 'smooth differences up to so many levels of 255, keep edges',
    step: (parsed) => ({ kind: 'smoothing', strength: numberOption(parsed, 'smooth', 1, 100) ?? 16 }),
  },
  'full-contrast': { about: 'bring a pale drawing to full black on white', step: () => levelled({ points: 'auto' }) },
  levels: { takes: 'BLACK,WHITE or BLACK,WHITE,GAMMA', about: 'bring these two lightnesses (0 to 255) to black and white, bend the middle tones by gamma', step: (parsed) => levelled(levelsOf(parsed)) },
  brightness: { takes: 'percent, -100 to 100', about: 'lighter or darker', step: (parsed) => levelled({ brightness: (numberOption(parsed, 'brightness', -100, 100) ?? 0) / 100 }) },
  contrast: { takes: 'percent, -100 to 100', about: 'more or less contrast', step: (parsed) => levelled({ contrast: (numberOption(parsed, 'contrast', -100, 100) ?? 0) / 100 }) },
  saturation: { takes: 'percent, 0 to 300', about: 'less or more colour', step: (parsed) => levelled({ saturation: (numberOption(parsed, 'saturation', 0, 300) ?? 100) / 100 }) },
  threshold: { takes: 'auto or 0 to 255', about: 'keep what is darker than one lightness, found or given, and clear the rest', step: (parsed) => ({ kind: 'linePick', detail: 0.5, threshold: thresholdOf(parsed) }) },
  crop: {
    takes: 'X,Y,WIDTH,HEIGHT in px',
    about: 'keep this part of the picture',
    step(parsed) {
      const [xPx, yPx, widthPx, heightPx] = numbersOption(parsed, 'crop', [4], 'left, top, width and height in px');
      return { kind: 'crop', rect: { xPx, yPx, widthPx, heightPx } };
    },
  },
  grey: { about: 'take the colour out', step: () => levelled({ saturation: 0 }) },
  invert: { about: 'light to dark and dark to light', step: () => levelled({ invert: true }) },
  colours: { takes: 'auto or 2 to 32', about: 'bring it to so many real tones, counting the background', step: (parsed) => ({ kind: 'fewerColours', tones: autoOrNumber(parsed, 'colours', 2, 32) }) },
  'mend-gaps': { takes: 'a width in px of the picture', about: 'close breaks in drawn lines up to this width', step: (parsed) => ({ kind: 'gapMending', widestPx: numberOption(parsed, 'mend-gaps', 1, 500) ?? 12 }) },
  'pick-lines': { takes: 'detail, 0 to 1', about: 'keep ink, clear pencil, watermarks and paper', step: (parsed) => ({ kind: 'linePick', detail: numberOption(parsed, 'pick-lines', 0, 1) ?? 0.4 }) },
  enlarge: { takes: '2 or 4', about: 'make small flat art so many times as large, without steps or blur', step: (parsed) => ({ kind: 'enlarging', times: timesOf(parsed) }) },
  tidy: { takes: 'an amount in px of the picture', about: 'smooth jagged edges by this amount; corners stay', step: (parsed) => ({ kind: 'edgeTidying', amountPx: numberOption(parsed, 'tidy', 0.5, MAX_TIDY_PX) ?? 2 }) },
  turn: { takes: '90, 180 or 270', about: 'turn clockwise', step: (parsed) => turned({ quarters: quartersOf(parsed) }) },
  straighten: { takes: 'degrees, -45 to 45', about: 'turn by a small angle clockwise', step: (parsed) => turned({ angleDeg: numberOption(parsed, 'straighten', -MAX_STRAIGHTEN_DEG, MAX_STRAIGHTEN_DEG) ?? 0 }) },
  mirror: { about: 'change left and right over', step: () => turned({ mirrored: true }) },
  sweep: {
    takes: 'an area in px of the art as it is then',
    about: 'remove specks and fill pinholes smaller than this',
    step(parsed, areaMm2) {
      const leastMm2 = areaMm2(numberOption(parsed, 'sweep', 0, 1e6) ?? 0);
      return { kind: 'sweep', speckMm2: leastMm2, pinholeMm2: leastMm2 };
    },
  },
};

const levelled = (change: Partial<LevelsStep>): Settings => ({ kind: 'levels', points: { black: 0, white: 255 }, gamma: 1, saturation: 1, invert: false, ...change });
const turned = (change: Partial<TurnStep>): Settings => ({ kind: 'turn', mirrored: false, quarters: 0, angleDeg: 0, ...change });

function levelsOf(parsed: Parsed): Partial<LevelsStep> {
  const takes = 'two lightnesses from 0 to 255, black below white, and a gamma from 0.1 to 10';
  const [black, white, gamma = 1] = numbersOption(parsed, 'levels', [2, 3], takes);
  if (!(black >= 0 && black < white && white <= 255 && gamma >= 0.1 && gamma <= 10)) throw new AppError('badValue', { name: '--levels', value: parsed.values.get('levels') ?? '', takes });
  return { points: { black, white }, gamma };
}

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
      const cleaned = await timings.measure('clean', () => new Cleaning(artFromPicture(picture), hashBytes(picture.data as Uint8Array), widthMm, basename(input), console).run(recipe, chosen, parsed));
      await timings.measure('write', async () => outputs.write(output, await encodeFile(pictureFromArt(cleaned), statedDpi === undefined ? undefined : pxPerMmFromDpi(statedDpi) * cleaned.frame.scale)));
    }, recipePath === undefined ? [] : [recipePath]);
    if (parsed.values.has('timings')) console.out(timings.lines());
    return code;
  },
};

/** How often the resolution is asked for: bits that are left out for being small do not count for it. */
const ROUNDS = 4;

function areaInMm2(areaPx2: number, art: Art, finished: FinishedSize): number {
  let areaMm2 = 0;
  for (let round = 0; round < ROUNDS; round++) areaMm2 = areaPx2 / artResolution(art, finished, areaMm2) ** 2;
  return areaMm2;
}

/** Room for what earlier steps of one picture made, bytes: a step that asks how large its art is has all before it done already. */
const KEPT_BYTES = 400_000_000;

/** The steps of one picture. */
class Cleaning {
  private readonly kept = keepSteps(KEPT_BYTES);
  private readonly finished: FinishedSize;

  constructor(
    private readonly picture: Art,
    private readonly pictureKey: string,
    sizeMm: number,
    private readonly name: string,
    private readonly console: Console,
  ) {
    this.finished = { by: 'width', sizeMm, turnDeg: 0 };
  }

  /** A recipe, of which steps that cannot apply are told, and then the steps of some options, which must. */
  run(recipe: Recipe, chosen: readonly string[], parsed: Parsed): Art {
    for (const { id, skipped } of this.apply(recipe).steps) if (skipped !== undefined) this.console.err(`${this.name}: step ${id} skipped: ${explain({ code: skipped, details: {} }).what}\n`);
    let all: Recipe = recipe;
    for (const name of chosen) {
      const before = all;
      const settings = STEPS[name].step(parsed, (areaPx2) => areaInMm2(areaPx2, this.apply(before).art, this.finished));
      all = [...before, { ...settings, id: `--${name}`, enabled: true, v: STEP_VERSION } as Step];
    }
    const { art, steps } = this.apply(all);
    const failed = steps.slice(recipe.length).find(({ skipped }) => skipped !== undefined)?.skipped;
    if (failed !== undefined) throw new AppError(failed);
    return art;
  }

  private apply(recipe: Recipe): CleanResult {
    const { picture, pictureKey, finished, kept } = this;
    return finishTelling(applyRecipe({ picture, pictureKey, recipe, finished, kept }), this.console, 'cleaning');
  }
}
