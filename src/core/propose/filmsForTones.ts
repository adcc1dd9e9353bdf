import type { Tone } from '../clean/palette.ts';
import { colourName } from '../colour/colourName.ts';
import { hexFromRgb } from '../colour/hex.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { isAppError } from '../errors/appError.ts';
import type { Art } from '../raster/art.ts';
import { CLEAR } from '../raster/labelMap.ts';
import type { FlatTones } from '../separate/flatTones.ts';
import { oneTone } from '../separate/oneTone.ts';
import { filmsOf, toneFacts } from '../run/filmsOf.ts';
import { ONE_FILM_ID } from '../film/filmRoles.ts';
import type { Job } from '../job/job.ts';
import type { Film } from '../film/film.ts';
import type { FlatSeparation, HeldTone } from '../separate/separation.ts';
import type { Recipe } from '../clean/recipe.ts';
import { inSentence, say } from '../words/say.ts';
import { onShelf, startOf, type Asking, type Proposal } from './proposal.ts';
import type { ShadedAreas } from './shadedAreas.ts';

/** More films than this stacked on one spot are too thick for cloth. */
const MOST_STACKED = 2;
/** How far inset films run on under each other, mm: what pressing may be off by. */
const REACH_MM = 0.3;

const NONE: ReadonlySet<number> = new Set();
const FLAT: FlatSeparation = { way: 'flat', count: 'auto', meet: 'stacked' };

/** One film for each tone but the ground, as it lies on the shelf. */
export function filmForEach(ask: Asking, flat: FlatTones, ground: number, recipe: Recipe, shadow: ReadonlySet<number> = NONE): Proposal {
  const { job, stock } = ask;
  const facts = toneFacts(FLAT, { ...flat, ground }).map((fact, k) => (shadow.has(k) ? { ...fact, film: null } : fact));
  const taken = new Set<string>();
  const known: HeldTone[] = facts.map(({ colour, film }) => ({ colour, film }));
  const films = filmsOf(FLAT, [], facts).films.map((film) => ({ ...film, ...onShelf(film, stock, taken) }));
  const start = startOf(ask, recipe, { way: 'flat', count: countOf(flat, ground), ...meetingOf(job, films), known }, films, extentOf(flat, ground, shadow));
  const named = namesOf(films);
  return {
    title: films.length === 1 ? say('One film') : say`${films.length} films, one for each tone`,
    words: shadow.size > 0 ? say`Flat art: ${named}. Its soft shadow is left out.` : say`Flat art: ${named}.`,
    start,
  };
}

/** One film for a drawing in one ink on its ground, however well that covered; undefined for other art. @param isShade whether each tone has no area of its own. */
export function filmForInk(ask: Asking, art: Art, flat: FlatTones, isShade: readonly boolean[], recipe: Recipe): Proposal | undefined {
  const ink = ask.look.kind === 'line' && isOneInk(flat, isShade) ? inkOf(art) : undefined;
  if (ink === undefined) return undefined;
  const name = colourName(ink);
  const film = { id: ONE_FILM_ID, ...onShelf({ name: name[0].toUpperCase() + name.slice(1), colour: hexFromRgb(ink) }, ask.stock, new Set()) };
  const start = startOf(ask, recipe, { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' }, [film], extentOf(flat, flat.ground));
  return { title: say('One film'), words: say`A drawing in one ink, cut from ${inSentence(film.name)}.`, start };
}

/** One film for each area, its shades in their middle tone. What the tones are is said, since where a shade is parted is nothing that could be found again. */
export function filmForEachArea(ask: Asking, { flat, groupOf }: ShadedAreas, recipe: Recipe): Proposal {
  const { job, stock } = ask;
  const facts = toneFacts(FLAT, flat);
  const filmOf = (k: number): string | null => (groupOf[k] === flat.ground ? null : facts[groupOf[k]].film);
  const ground = new Set([...groupOf.keys()].filter((k) => filmOf(k) === null));
  const areas = [...new Set(groupOf)].filter((group) => !ground.has(group));
  const middles = areas.map((group) => ({ colour: hexFromRgb(middleOf(flat.tones.filter((_, k) => groupOf[k] === group))), share: 0, film: filmOf(group) }));
  const taken = new Set<string>();
  const films = filmsOf(FLAT, [], middles).films.map((film) => ({ ...film, ...onShelf(film, stock, taken) }));
  // Shades of an area stand together, as its pieces do.
  const palette = [...groupOf.keys()].sort((a, b) => groupOf[a] - groupOf[b] || a - b).map((k) => ({ colour: facts[k].colour, film: filmOf(k) }));
  const separation = { way: 'flat', count: countOf(flat, flat.ground), ...meetingOf(job, films), palette } as const;
  return {
    title: films.length === 1 ? say('One film') : say`${films.length} films, one for each colour`,
    words: say`Shaded areas as flat film: ${namesOf(films)}. Each is cut in its middle tone.`,
    start: startOf(ask, recipe, separation, films, extentOf(flat, flat.ground, ground)),
  };
}

/** The mean of tones by how much there is of each. */
function middleOf(tones: FlatTones['tones']): Rgb {
  const all = tones.reduce((sum, { count }) => sum + count, 0);
  const mean = (channel: keyof Rgb): number => Math.round(tones.reduce((sum, tone) => sum + tone.count * tone[channel], 0) / all);
  return { r: mean('r'), g: mean('g'), b: mean('b') };
}

const meetingOf = ({ process }: Job, films: readonly Film[]): Pick<FlatSeparation, 'meet' | 'reachMm'> =>
  process === 'panel' || films.length <= MOST_STACKED ? { meet: 'stacked' } : { meet: 'inset', reachMm: REACH_MM };

const namesOf = (films: readonly Film[]): string => films.map(({ name }) => inSentence(name)).join(', ');

/** What is clear counts as a tone where it is the ground. */
const countOf = ({ tones, labels }: FlatTones, ground: number): number => tones.length + (ground === CLEAR && labels.data.includes(CLEAR) ? 1 : 0);

/** A mark that is fainter than the ink, and that has less than this of its pixels, was not meant to be cut: pencil under a drawing. */
const FAINT_SHARE = 0.1;
/** Nor was one that stands out from the ground by less than this share of what the ink does, however much there is of it: a watermark. */
const FAINT_CONTRAST = 0.2;
/** A tone lies on the way from the ground to the ink when the way over it is longer by no more than this. */
const DETOUR = 1.08;

/** Whether a drawing has one ink on its ground, but for what is only fainter: marks beside it, and where the ink itself did not cover, as a stamp's. */
function isOneInk({ tones, ground, labels }: FlatTones, isShade: readonly boolean[]): boolean {
  const paper = tones[ground];
  // What is clear is the paper where there is any.
  if (paper === undefined) return tones.length === (labels.data.includes(CLEAR) ? 1 : 2);
  const away = (tone: Rgb): number => colourDifference(paper, tone);
  const ink = tones.reduce((most, tone) => (away(tone) > away(most) ? tone : most), paper);
  const whole = away(ink);
  const isFaint = (mark: Tone): boolean => mark.count < FAINT_SHARE * ink.count || away(mark) < FAINT_CONTRAST * whole || isShade[tones.indexOf(mark)];
  return tones.every((mark) => mark === paper || mark === ink || (isFaint(mark) && away(mark) + colourDifference(mark, ink) <= DETOUR * whole));
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
