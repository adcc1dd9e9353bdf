import { basename } from 'node:path';
import { AppError, isAppError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import { hexFromRgb } from '../src/core/colour/hex.ts';
import type { Recipe } from '../src/core/clean/recipe.ts';
import { USUAL_STOCK } from '../src/core/film/stock.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { readRecipe } from '../src/core/job/readJob.ts';
import { tracedPart, type TracedPart } from '../src/core/job/tracedPart.ts';
import { pictureFromFrame } from '../src/core/outline/heldOutline.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { transformCurves } from '../src/core/outline/transformCurves.ts';
import { proposedJob } from '../src/core/propose/propose.ts';
import type { Art } from '../src/core/raster/art.ts';
import { finishFilms } from '../src/core/run/finishFilms.ts';
import { cleanPart } from '../src/core/run/runJob.ts';
import { separateArt, type SeparatedArt, type TracedFilm } from '../src/core/run/separateArt.ts';
import type { Meet, Separation } from '../src/core/separate/separation.ts';
import { autoOrNumber, choiceOption, numberOption, type Parsed } from './arguments.ts';
import type { Console } from './commands/command.ts';
import { readJson } from './files.ts';
import { finishTelling } from './progress.ts';

/** In place of a recipe's file: as the first look at the picture proposes. */
export const PROPOSED = 'proposed';
export const BORDER_MM = 100;
const MEETS: readonly Meet[] = ['stacked', 'inset', 'middle'];

/** Outlines in px of the picture as turned and squared. */
export interface Traced extends Pick<SeparatedArt, 'tone' | 'tones' | 'strayPx'> {
  readonly films: readonly TracedFilm[];
  /** What they were read from, with the same outlines in its own px. */
  readonly art: Art;
  readonly artFilms: readonly TracedFilm[];
  readonly artPxPerMm: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What a picture is traced by: the part of a job that the options come to. What is `proposed` is known only once the picture is. */
export interface TracePlan {
  readonly recipe: Recipe | typeof PROPOSED;
  readonly separation: Separation | typeof PROPOSED;
  /** In place of a single ink where that differs from its ground in hue alone. */
  readonly otherwise?: Separation;
  readonly outline: TracedPart['outline'];
}

/** Reads the options before the picture is read. @throws AppError `badValue` where they do not go together. */
export async function tracePlan(parsed: Parsed): Promise<TracePlan> {
  const given = ['proposed', 'colours', 'tones', 'detail'].filter((name) => parsed.values.has(name));
  if (given.length > 1) throw new AppError('badValue', { name: `--${given[1]}`, value: `given with --${given[0]}`, takes: 'its place: give one of them' });
  const borderMm = numberOption(parsed, 'border', 0, BORDER_MM);
  const outline = {
    ...tracedPart(newJob('')).outline,
    ...(parsed.values.has('outermost') ? { outermost: true } : {}),
    ...(borderMm === undefined ? {} : { around: { widthMm: borderMm, openings: 'kept' as const } }),
  };
  return { ...waysOf(parsed), recipe: await recipeOf(parsed), outline };
}

/** What is proposed is so with its recipe, unless another one is given. */
async function recipeOf(parsed: Parsed): Promise<TracePlan['recipe']> {
  const file = parsed.values.get('recipe') ?? (parsed.values.has('proposed') ? PROPOSED : undefined);
  if (file === undefined) return [];
  return file === PROPOSED ? PROPOSED : readRecipe(await readJson(file), basename(file));
}

function waysOf(parsed: Parsed): Pick<TracePlan, 'separation' | 'otherwise'> {
  const tones = numberOption(parsed, 'tones', 2, 6, true);
  const detail = numberOption(parsed, 'detail', 0, 100);
  const threshold = autoOrNumber(parsed, 'threshold', 0, 255);
  const common = { meet: choiceOption(parsed, 'meet', MEETS) ?? 'stacked', reachMm: numberOption(parsed, 'reach', 0, 20) ?? 0 } as const;
  const count = parsed.values.get('colours') === 'auto' ? 'auto' : (numberOption(parsed, 'colours', 1, 32, true) ?? 2);
  if (parsed.values.has('proposed')) return { separation: PROPOSED };
  if (tones !== undefined) return { separation: { way: 'tones', count: tones, ...common } };
  if (detail !== undefined) return { separation: { way: 'backDetail', fineness: detail, threshold, back: 'open' } };
  const flat: Separation = { way: 'flat', count, ...common };
  if (count !== 2) return { separation: flat };
  const ink: Separation = { way: 'oneTone', source: 'threshold', threshold, inkIs: 'auto' };
  return threshold === 'auto' ? { separation: ink, otherwise: flat } : { separation: ink };
}

/**
 * The one way from a picture to outlines on its frame: cleaned, separated, finished as a part of a job with these settings is.
 * @param resolution pixels of the picture on one mm. @param input what the picture is called where a step is passed over.
 */
export function traceArt(plan: TracePlan, came: Art, resolution: number, input: string, console: Console): Traced {
  const asked = plan.recipe === PROPOSED || plan.separation === PROPOSED ? tracedPart(proposedJob(newJob('Proposed'), came.colour, USUAL_STOCK)) : undefined;
  const start = asked ?? tracedPart(newJob(''));
  const part: TracedPart = {
    ...start,
    outline: plan.outline,
    recipe: plan.recipe === PROPOSED ? start.recipe : [...plan.recipe],
    ...(plan.separation === PROPOSED ? {} : { separation: plan.separation, films: tracedPart(newJob('')).films }),
    // The size that was asked for is the picture's; a proposal knows its own.
    ...(plan.recipe === PROPOSED ? {} : { size: { ...start.size, by: 'width', sizeMm: came.width / resolution } }),
  };
  const { art, base, steps } = finishTelling(cleanPart(part, came.colour, 'picture'), console, 'cleaning');
  for (const { id, skipped } of steps) if (skipped !== undefined) console.err(`${input}: step ${id} skipped: ${explain({ code: skipped, details: {} }).what}\n`);
  const ofArt = resolution * art.frame.scale;
  const separated = separatedBy(part, plan.otherwise, art, ofArt, console);
  const finished = finishFilms({ outline: plan.outline, films: tracedPart(newJob('')).films }, art.frame, separated, () => ofArt);
  const toPicture = pictureFromFrame(art.frame);
  const films = finished.map(({ film, outline }) => ({ film, outline: transformCurves(outline, toPicture) }));
  return { ...separated, films, art, artFilms: finished, artPxPerMm: ofArt, widthPx: base.art.width / base.art.frame.scale, heightPx: base.art.height / base.art.frame.scale };
}

function separatedBy(part: TracedPart, otherwise: Separation | undefined, art: Art, ofArt: number, console: Console): SeparatedArt {
  // An enlarged art is followed as closely as the picture that it was.
  const options = { ...DEFAULT_OUTLINE, followPx: DEFAULT_OUTLINE.followPx * Math.max(1, art.frame.scale) };
  const by = (separation: Separation): SeparatedArt =>
    finishTelling(separateArt({ separation, films: part.films, outline: { leastPieceMm2: 0 } }, art, options, () => ofArt), console, 'outlining');
  try {
    const separated = by(part.separation);
    const { tone } = separated;
    // One ink is named after nothing on the shelf: it has its own colour.
    return tone === undefined ? separated : { ...separated, films: separated.films.map(({ outline }) => ({ film: { id: 'Ink', name: 'Ink', colour: hexFromRgb(tone.ink) }, outline })) };
  } catch (error) {
    if (otherwise !== undefined && isAppError(error) && error.code === 'oneColour') return by(otherwise);
    throw error;
  }
}
