import { colourName } from '../colour/colourName.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { printRecipe } from '../print/printRecipe.ts';
import { levelLight } from '../clean/levelLight.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { within, type Task } from '../task/task.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Recipe } from '../clean/recipe.ts';
import { say } from '../words/say.ts';
import { filmForEach, filmForInk } from './filmsForTones.ts';
import { LEAST_PX2, MOST_PROPOSALS, type Asking, type Proposal, type Proposals } from './proposal.ts';
import { areaProposals, dark, print } from './shadedProposals.ts';
import { shadeGroups, type ShadeGroups } from './shadeGroups.ts';

/** How sure the first look must be of flat art. */
const SURE = 0.62;
/** A ground has so much of the picture's border; with less of it the art may as well fill its frame. */
const GROUND_SHARE = 0.5;
/** With less than this of it the ground is likely, and still the whole frame is offered too. */
const SURE_GROUND_SHARE = 0.65;
/** So much of the border is clear where the ground was lifted. */
const LIFTED_SHARE = 0.05;
/** White art that the paper's own colour encloses is worth a film from this share of the picture on. */
const WHITE_SHARE = 0.02;

/** How to start with flat art or a drawing: a film for each tone, or for each area where some are shaded; what to do where the ground is in doubt. */
export function* flatProposals(ask: Asking): Task<Proposals> {
  const { job, look } = ask;
  const recipe = PROCESSES[job.process].isPrinted ? printRecipe(look.recipe) : look.recipe;
  const art = look.recipe.some(({ kind }) => kind === 'lightLevelling') ? (yield* within(levelLight(ask.art), 0, 0.2)).art : ask.art;
  const flat = yield* within(flatTones(art, { count: 'auto', leastAreaPx2: LEAST_PX2 }), 0.2, 0.9);
  const groups = shadeGroups(art, flat);
  const around = aroundOf(flat, groups);
  const lifted = job.process === 'waterslide' && flat.ground !== CLEAR ? withLift(recipe, around.atPx(ask), true) : recipe;
  const each = filmForEach(ask, flat, flat.ground, lifted, groups.ofGround);
  const ink = filmForInk(ask, art, flat, groups.isShade, lifted);
  if (groups.hasShadedArea && ink === undefined) {
    // Whether shades are levelled, cut each, or printed is a matter of taste.
    const areas = yield* within(areaProposals({ ...ask, art }), 0.9, 1);
    const others = [{ ...each, words: say('Should each shade be a film of its own.') }, print(ask)];
    if (areas.length > 0) return { look, isSure: false, proposals: [...areas, ...others].slice(0, MOST_PROPOSALS) };
  }
  // What is clear along the border is the ground, however little of it there is.
  const isOpen = around.tone !== CLEAR && around.clear <= LIFTED_SHARE;
  if (isOpen && around.share < GROUND_SHARE) return { look, isSure: false, proposals: framed(ask, flat, around.tone) };
  const paler = flat.tones.length > 2 ? [{ ...each, words: say('Should what is paler be film too.') }] : [];
  const whole = isOpen && around.share < SURE_GROUND_SHARE ? [allOfFrame(ask, flat)] : [];
  const white = enclosedShare(flat) >= WHITE_SHARE && flat.ground !== CLEAR ? [withWhite(ask, flat, around.atPx(ask))] : [];
  const isSure = look.sure >= SURE;
  return { look, isSure, proposals: [...(ink === undefined ? [each] : [ink, ...paler]), ...whole, ...white, ...(isSure ? [] : [dark(ask)])].slice(0, MOST_PROPOSALS) };
}

/** Art that fills its frame, or seems to: with everything as film, and without what the border has most of; the likelier first. */
function framed(ask: Asking, flat: FlatTones, around: number): Proposal[] {
  const name = colourName(flat.tones[around]);
  const filled = allOfFrame(ask, flat);
  const without = {
    ...filmForEach(ask, flat, around, ask.look.recipe),
    title: say`Without the ${name}`,
    words: say`Should the ${name} around it be the ground: it is left out.`,
  };
  return flat.ground === CLEAR ? [filled, without] : [without, filled];
}

function allOfFrame(ask: Asking, flat: FlatTones): Proposal {
  const every = filmForEach(ask, flat, CLEAR, ask.look.recipe);
  return { ...every, title: say`${every.title}, all of the frame`, words: say('Should the art fill its frame: every tone is a film.') };
}

/** What the picture's border has most of, shades of the ground counted to it: its tone, its share of the border and that of what is clear, and a place on it in px of the whole picture. */
function aroundOf({ labels: { data, width, height } }: FlatTones, { groupOf }: ShadeGroups): { tone: number; share: number; clear: number; atPx: (ask: Asking) => { xPx: number; yPx: number } } {
  const votes = new Uint32Array(256);
  const at = new Int32Array(256).fill(-1);
  eachBorderPixel(width, height, (i) => {
    const tone = groupOf[data[i]] ?? CLEAR;
    votes[tone]++;
    if (at[tone] < 0) at[tone] = i;
  });
  const tone = votes.indexOf(Math.max(...votes));
  const atPx = ({ art: { frame } }: Asking): { xPx: number; yPx: number } => ({
    xPx: ((at[tone] % width) + 0.5) / frame.scale,
    yPx: (Math.floor(at[tone] / width) + 0.5) / frame.scale,
  });
  const all = 2 * (width + height);
  return { tone, share: votes[tone] / all, clear: votes[CLEAR] / all, atPx };
}

/** Share of the picture that has the ground's tone and is closed off from the border. */
function enclosedShare({ labels: { data, width, height }, ground }: FlatTones): number {
  const regions = labelRegions(data, width, height, ground, false);
  let largest = 0;
  for (let k = 0; k < regions.count; k++) if (regions.touchesBorder[k] === 0) largest = Math.max(largest, regions.area[k]);
  return largest / data.length;
}

/** The art with the areas that have the paper's own colour, as one more film: the lift takes only what is connected to the border. */
function withWhite(ask: Asking, flat: FlatTones, at: { xPx: number; yPx: number }): Proposal {
  const made = filmForEach(ask, flat, CLEAR, withLift(ask.look.recipe, at, false));
  const { separation } = made.start;
  const name = colourName(flat.tones[flat.ground]);
  // What the lift clears counts as a tone beside the white that stays.
  const counted = separation.way === 'flat' ? { ...separation, count: flat.tones.length + 1 } : separation;
  return {
    ...made,
    start: { ...made.start, separation: counted },
    title: say`With ${name} as a film`,
    words: say`Should areas closed off by the art be ${name} film and not openings.`,
  };
}

function withLift(recipe: Recipe, at: { xPx: number; yPx: number }, enclosed: boolean): Recipe {
  const lift = { kind: 'areaLift', id: 'look-lift', enabled: true, v: 1, at, tolerance: 'auto', enclosed, soft: true } as const;
  // After a sweep, which sees what lies beside lettering, as the dot of an i, while nothing is clear yet.
  return [...recipe, lift];
}

