import type { Film } from '../film/film.ts';
import { nearestStock } from '../film/stock.ts';
import type { Job } from '../job/job.ts';
import { tracedPart, type TracedPart } from '../job/tracedPart.ts';
import type { Recipe } from '../clean/recipe.ts';
import type { Art } from '../raster/art.ts';
import type { Separation } from '../separate/separation.ts';
import type { FirstLook } from './firstLook.ts';

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

/** What proposals are made from. */
export interface Asking {
  readonly job: Job;
  readonly look: FirstLook;
  readonly stock: readonly Film[];
  readonly art: Art;
}

/** Bits smaller than this are no part of the art, px². */
export const LEAST_PX2 = 5;
/** So many ways to start are enough to choose from. */
export const MOST_PROPOSALS = 3;
/** A film on the shelf stands for a tone up to this difference, CIEDE2000: a shopper would call it the same colour. */
const SAME_FILM = 7;

/** @param aspect width over height of the design. */
export function startOf({ job }: Asking, recipe: Recipe, separation: Separation, films: readonly Film[], aspect: number): JobStart {
  const { blank, process } = job;
  const { size } = tracedPart(job);
  const fitting = Math.floor(Math.min(size.sizeMm, blank.widthMm, blank.heightMm * aspect));
  const sizeMm = size.by === 'width' && size.sizeMm > fitting ? Math.max(1, fitting) : size.sizeMm;
  return { recipe: [...recipe], separation, process, size: { ...size, sizeMm }, films: [...films] };
}

export const aspectOf = ({ width, height }: Art): number => width / height;

/** The film of the shelf that a tone would be cut from, else the one in its own colour. @param taken films that stand for other tones already; added to. */
export function onShelf(own: Pick<Film, 'name' | 'colour'>, stock: readonly Film[], taken: Set<string>): Pick<Film, 'name' | 'colour'> {
  const match = nearestStock(own.colour, stock).find(({ film, difference }) => difference <= SAME_FILM && !taken.has(film.id));
  if (match === undefined) return { name: own.name, colour: own.colour };
  taken.add(match.film.id);
  return { name: match.film.name, colour: match.film.colour };
}
