import { colourName } from '../colour/colourName.ts';
import { hexFromRgb } from '../colour/hex.ts';
import { colourDifference } from '../colour/oklab.ts';
import { isAppError } from '../errors/appError.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { CLEAR } from '../raster/labelMap.ts';
import { eachBorderPixel } from '../raster/eachBorderPixel.ts';
import { labelRegions } from '../raster/labelRegions.ts';
import { withProcess } from '../edit/withProcess.ts';
import { printRecipe } from '../print/printRecipe.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { levelLight } from '../clean/levelLight.ts';
import { flatTones, type FlatTones } from '../separate/flatTones.ts';
import { oneTone } from '../separate/oneTone.ts';
import { finish, within, type Task } from '../task/task.ts';
import { firstLook, type FirstLook } from './firstLook.ts';
import { filmsOf, toneFacts } from '../run/filmsOf.ts';
import { BACK_FILM, DETAIL_FILM, ONE_FILM_ID } from '../film/filmRoles.ts';
import type { Job } from '../job/job.ts';
import type { Film } from '../film/film.ts';
import type { FlatSeparation, HeldTone, Separation } from '../separate/separation.ts';
import { canonicalJson } from '../task/hash.ts';
import { softShadow } from './softShadow.ts';
import { newJob } from '../job/newJob.ts';
import { tracedPart, withPart, type TracedPart } from '../job/tracedPart.ts';
import { PROCESSES } from '../process/processes.ts';
import type { Recipe } from '../clean/recipe.ts';
import { nearestStock } from '../film/stock.ts';
import { inSentence, say } from '../words/say.ts';

/** What a job takes over when it is started in a certain way: all that a picture decides. */
export type JobStart = Pick<Job, 'process'> & Pick<TracedPart, 'recipe' | 'separation' | 'size' | 'films'>;

/** A way to start. */
export interface Proposal {
  /** What comes of it, in a few words. */
  readonly title: string;
  /** When that is right, in a sentence. */
  readonly words: string;
  readonly start: JobStart;
}

export interface Proposals {
  readonly look: FirstLook;
  /** Whether the first one is right without asking. */
  readonly isSure: boolean;
  /** The likeliest first; three at most, none when the picture holds nothing to cut. */
  readonly proposals: readonly Proposal[];
}

/** Tones are found on a picture reduced to this side, px: enough for the thinnest lines that can be weeded. */
const SIDE_PX = 1600;
/** Bits smaller than this are no part of the art, px². */
const LEAST_PX2 = 5;
/** How sure the first look must be of flat art. */
const SURE = 0.62;
/** A ground has so much of the picture's border; with less of it the art may as well fill its frame. */
const GROUND_SHARE = 0.5;
/** White art that the paper's own colour encloses is worth a film from this share of the picture on. */
const WHITE_SHARE = 0.02;
/** A film on the shelf stands for a tone up to this difference, CIEDE2000: a shopper would call it the same colour. */
const SAME_FILM = 7;
/** More films than this stacked on one spot are too thick for cloth. */
const MOST_STACKED = 2;
/** How far inset films run on under each other, mm: what pressing may be off by. */
const REACH_MM = 0.3;

/** Takes a job up as a proposal says. @param id of the part that the proposal is for; the lowest when absent. */
export function startedWith(job: Job, { start: { process, ...start } }: Proposal, id?: string): Job {
  return withProcess(withPart(job, { ...tracedPart(job, id), ...start }), process);
}

/**
 * Looks at a picture and proposes how to start a job with it: recipe, way of separating, tones, films as they lie on the shelf, how they meet, size on the
 * blank, and another process where the job's own does not suit. A second at most whatever the picture's size.
 */
export function* propose(job: Job, picture: Rgba8, stock: readonly Film[]): Task<Proposals> {
  const look = firstLook(picture);
  yield 0.3;
  const small = shrinkToSide(picture, SIDE_PX);
  const ask: Asking = { job, look, stock, art: artFromPicture(small, small.width / picture.width) };
  try {
    const found = look.kind === 'flat' || look.kind === 'line' ? yield* within(flatProposals(ask), 0.3, 1) : undefined;
    return found ?? { look, isSure: false, proposals: shadedProposals(ask) };
  } catch (error) {
    if (isAppError(error)) return { look, isSure: false, proposals: [] };
    throw error;
  }
}

/** Whether a job stands as a proposal starts it: the same steps, way of separating and process. */
export function isStartedWith(job: Job, { start }: Proposal, id?: string): boolean {
  const part = tracedPart(job, id);
  const steps = (recipe: Recipe): string => canonicalJson(recipe.map(({ id: _id, ...step }) => step));
  return job.process === start.process && steps(part.recipe) === steps(start.recipe) && canonicalJson(part.separation) === canonicalJson(start.separation);
}

/** The job with nothing done to its picture: no step, one film. Blank, process and size stay. */
export function asCame(job: Job, id?: string): Job {
  const { separation, films } = tracedPart(newJob(job.name));
  return withPart(job, { ...tracedPart(job, id), recipe: [], separation, films });
}

export function isAsCame(job: Job, id?: string): boolean {
  const { recipe, separation } = tracedPart(job, id);
  return recipe.length === 0 && canonicalJson(separation) === canonicalJson(tracedPart(newJob(job.name)).separation);
}

/**
 * The job as the likeliest proposal starts it that keeps its process: nobody is there to agree to another; as it is where the picture gives none.
 * @param widthMm finished width in place of the usual one.
 */
export function proposedJob(job: Job, picture: Rgba8, stock: readonly Film[], widthMm?: number): Job {
  const { proposals } = finish(propose(job, picture, stock));
  const likeliest = proposals.find(({ start }) => start.process === job.process) ?? proposals[0];
  const started = likeliest === undefined ? job : startedWith(job, likeliest);
  if (widthMm === undefined) return started;
  const part = tracedPart(started);
  return withPart(started, { ...part, size: { ...part.size, by: 'width', sizeMm: widthMm } });
}

interface Asking {
  readonly job: Job;
  readonly look: FirstLook;
  readonly stock: readonly Film[];
  readonly art: Art;
}

function* flatProposals(ask: Asking): Task<Proposals | undefined> {
  const { job, look } = ask;
  const recipe = PROCESSES[job.process].isPrinted ? printRecipe(look.recipe) : look.recipe;
  const art = look.recipe.some(({ kind }) => kind === 'lightLevelling') ? (yield* within(levelLight(ask.art), 0, 0.2)).art : ask.art;
  const flat = yield* within(flatTones(art, { count: 'auto', leastAreaPx2: LEAST_PX2 }), 0.2, 0.9);
  const around = aroundOf(flat);
  const lifted = job.process === 'waterslide' && flat.ground !== CLEAR ? withLift(recipe, around.atPx(ask), true) : recipe;
  const main = filmForEach(ask, art, flat, flat.ground, lifted);
  if (around.tone !== CLEAR && around.share < GROUND_SHARE) return { look, isSure: false, proposals: framed(ask, art, flat, around.tone) };
  const white = enclosedShare(flat) >= WHITE_SHARE && flat.ground !== CLEAR ? [withWhite(ask, art, flat, around.atPx(ask))] : [];
  const isSure = look.sure >= SURE;
  return { look, isSure, proposals: [main, ...white, ...(isSure ? [] : [dark(ask)])] };
}

/** Art that fills its frame, or seems to: with everything as film, and without what the border has most of; the likelier first. */
function framed(ask: Asking, art: Art, flat: FlatTones, around: number): Proposal[] {
  const name = colourName(flat.tones[around]);
  const every = filmForEach(ask, art, flat, CLEAR, ask.look.recipe);
  const filled = { ...every, title: say`${every.title}, all of the frame`, words: say('Should the art fill its frame: every tone is a film.') };
  const without = {
    ...filmForEach(ask, art, flat, around, ask.look.recipe),
    title: say`Without the ${name}`,
    words: say`Should the ${name} around it be the ground: it is left out.`,
  };
  return flat.ground === CLEAR ? [filled, without] : [without, filled];
}

/** What the picture's border has most of: its tone, its share of the border, and a place on it in px of the whole picture. */
function aroundOf({ labels: { data, width, height } }: FlatTones): { tone: number; share: number; atPx: (ask: Asking) => { xPx: number; yPx: number } } {
  const votes = new Uint32Array(256);
  const at = new Int32Array(256).fill(-1);
  eachBorderPixel(width, height, (i) => {
    votes[data[i]]++;
    if (at[data[i]] < 0) at[data[i]] = i;
  });
  const tone = votes.indexOf(Math.max(...votes));
  const atPx = ({ art: { frame } }: Asking): { xPx: number; yPx: number } => ({
    xPx: ((at[tone] % width) + 0.5) / frame.scale,
    yPx: (Math.floor(at[tone] / width) + 0.5) / frame.scale,
  });
  return { tone, share: votes[tone] / (2 * (width + height)), atPx };
}

/** Share of the picture that has the ground's tone and is closed off from the border. */
function enclosedShare({ labels: { data, width, height }, ground }: FlatTones): number {
  const regions = labelRegions(data, width, height, ground, false);
  let largest = 0;
  for (let k = 0; k < regions.count; k++) if (regions.touchesBorder[k] === 0) largest = Math.max(largest, regions.area[k]);
  return largest / data.length;
}

const NONE: ReadonlySet<number> = new Set();
const FLAT: FlatSeparation = { way: 'flat', count: 'auto', meet: 'stacked' };

/** One film for each tone but the ground, as it lies on the shelf. */
function filmForEach(ask: Asking, art: Art, flat: FlatTones, ground: number, recipe: Recipe): Proposal {
  const { job, look, stock } = ask;
  const single = look.kind === 'line' && isOneInk(flat) ? inkOf(art) : undefined;
  if (single !== undefined) {
    const name = colourName(single);
    const film = { id: ONE_FILM_ID, ...onShelf({ name: name[0].toUpperCase() + name.slice(1), colour: hexFromRgb(single) }, stock, new Set()) };
    const start = startOf(ask, recipe, { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' }, [film], extentOf(flat, ground));
    return { title: say('One film'), words: say`A drawing in one ink, cut from ${inSentence(film.name)}.`, start };
  }
  const shadow = ground === flat.ground ? softShadow(art, flat) : NONE;
  const facts = toneFacts(FLAT, { ...flat, ground }).map((fact, k) => (shadow.has(k) ? { ...fact, film: null } : fact));
  const taken = new Set<string>();
  const known: HeldTone[] = facts.map(({ colour, film }) => ({ colour, film }));
  const films = filmsOf(FLAT, [], facts).films.map((film) => ({ ...film, ...onShelf(film, stock, taken) }));
  const meet = job.process === 'panel' || films.length <= MOST_STACKED ? ({ meet: 'stacked' } as const) : ({ meet: 'inset', reachMm: REACH_MM } as const);
  const named = films.map(({ name }) => inSentence(name)).join(', ');
  const isClear = ground === CLEAR && flat.labels.data.includes(CLEAR);
  const start = startOf(ask, recipe, { way: 'flat', count: flat.tones.length + (isClear ? 1 : 0), ...meet, known }, films, extentOf(flat, ground, shadow));
  return {
    title: films.length === 1 ? say('One film') : say`${films.length} films, one for each tone`,
    words: shadow.size > 0 ? say`Flat art: ${named}. Its soft shadow is left out.` : say`Flat art: ${named}.`,
    start,
  };
}

/** The art with the areas that have the paper's own colour, as one more film: the lift takes only what is connected to the border. */
function withWhite(ask: Asking, art: Art, flat: FlatTones, at: { xPx: number; yPx: number }): Proposal {
  const made = filmForEach({ ...ask, look: { ...ask.look, kind: 'flat' } }, art, flat, CLEAR, withLift(ask.look.recipe, at, false));
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

/** A mark that is fainter than the ink, and that has less than this of its pixels, was not meant to be cut: pencil under a drawing. */
const FAINT_SHARE = 0.1;
/** A tone lies on the way from the ground to the ink when the way over it is longer by no more than this. */
const DETOUR = 1.08;

/** Whether a drawing has one ink on its ground, but for marks that are only fainter. */
function isOneInk({ tones, ground }: FlatTones): boolean {
  const paper = tones[ground];
  const [ink, ...others] = tones.filter((tone) => tone !== paper);
  if (paper === undefined || ink === undefined) return tones.length === 2;
  const whole = colourDifference(paper, ink);
  return others.every((mark) => mark.count < FAINT_SHARE * ink.count && colourDifference(paper, mark) + colourDifference(mark, ink) <= DETOUR * whole);
}

/** The one ink of a drawing; undefined where lightness does not tell it from its ground. */
function inkOf(art: Art): { r: number; g: number; b: number } | undefined {
  try {
    return oneTone(art, { source: 'threshold', threshold: 'auto', inkIs: 'auto' }).ink;
  } catch (error) {
    if (isAppError(error)) return undefined;
    throw error;
  }
}

/** The film of the shelf that a tone would be cut from, else the one in its own colour. @param taken films that stand for other tones already; added to. */
function onShelf(own: Pick<Film, 'name' | 'colour'>, stock: readonly Film[], taken: Set<string>): Pick<Film, 'name' | 'colour'> {
  const match = nearestStock(own.colour, stock).find(({ film, difference }) => difference <= SAME_FILM && !taken.has(film.id));
  if (match === undefined) return { name: own.name, colour: own.colour };
  taken.add(match.film.id);
  return { name: match.film.name, colour: match.film.colour };
}

const shadedProposals = (ask: Asking): Proposal[] =>
  [...(ask.job.process === 'waterslide' ? [] : [print(ask)]), dark(ask), shades(ask), detail(ask)].slice(0, 3);

const aspectOf = ({ width, height }: Art): number => width / height;

function print(ask: Asking): Proposal {
  const start = startOf(
    { ...ask, job: { ...ask.job, process: 'waterslide' } },
    [],
    { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' },
    ask.job.films,
    aspectOf(ask.art),
  );
  return { title: say('Print it'), words: say`Shaded art keeps its shading as a ${inSentence(PROCESSES.waterslide.name)} print, not as cut film.`, start };
}

function dark(ask: Asking): Proposal {
  const start = startOf(ask, ask.look.recipe, { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' }, ask.job.films, aspectOf(ask.art));
  return { title: say('One film of what is dark'), words: say('Everything darker than a threshold, which can be moved.'), start };
}

function shades(ask: Asking): Proposal {
  const start = startOf(ask, ask.look.recipe, { way: 'tones', count: 3, meet: 'stacked' }, ask.job.films, aspectOf(ask.art));
  return { title: say('Two films, by shade'), words: say('The lightest shade is the blank; each darker one lies on the one before.'), start };
}

function detail(ask: Asking): Proposal {
  const start = startOf(
    ask,
    ask.look.recipe,
    { way: 'backDetail', fineness: 50, threshold: 'auto', back: 'open' },
    [BACK_FILM, DETAIL_FILM],
    aspectOf(ask.art),
  );
  return { title: say('A back and its detail'), words: say('A plain back with one layer of what is dark on it.'), start };
}

/** Width over height of what is not ground. @param out other tones that are left out. */
function extentOf({ labels: { data, width, height } }: FlatTones, ground: number, out: ReadonlySet<number> = NONE): number {
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const label = data[y * width + x];
      if (label === ground || label === CLEAR || out.has(label)) continue;
      left = Math.min(left, x);
      right = Math.max(right, x + 1);
      top = Math.min(top, y);
      bottom = y + 1;
    }
  }
  return right > left && bottom > top ? (right - left) / (bottom - top) : 1;
}

/** @param aspect width over height of the design. */
function startOf({ job }: Asking, recipe: Recipe, separation: Separation, films: readonly Film[], aspect: number): JobStart {
  const { blank, process } = job;
  const { size } = tracedPart(job);
  const fitting = Math.floor(Math.min(size.sizeMm, blank.widthMm, blank.heightMm * aspect));
  const sizeMm = size.by === 'width' && size.sizeMm > fitting ? Math.max(1, fitting) : size.sizeMm;
  return { recipe: [...recipe], separation, process, size: { ...size, sizeMm }, films: [...films] };
}
