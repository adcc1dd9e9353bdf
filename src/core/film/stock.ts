import { z } from 'zod';
import { filmDifference } from '../colour/filmDifference.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { filmSchema, type Film } from './film.ts';
import { say } from '../words/say.ts';

/** A film on the shelf, and the id of what it is made of, where that was written down. */
const stockFilmSchema = filmSchema.extend({ material: z.string().min(1).max(60).optional() });
export type StockFilm = z.infer<typeof stockFilmSchema>;

/** The films that lie on the shelf of the workshop. */
export const stockSchema = z.array(stockFilmSchema).max(400);

/** What a shelf holds before anyone wrote down their own. */
export const USUAL_STOCK: readonly Film[] = [
  ['foam-white', say('Foam white'), '#fbf8f3'],
  ['sail-cream', say('Sail cream'), '#efe3c8'],
  ['lamp-yellow', say('Lamp yellow'), '#f2b632'],
  ['buoy-orange', say('Buoy orange'), '#e5702a'],
  ['pennant-red', say('Pennant red'), '#b3262e'],
  ['rosehip', say('Rosehip'), '#d9788f'],
  ['plum', say('Plum'), '#5b2a4e'],
  ['sky-blue', say('Sky blue'), '#7fb2d9'],
  ['regatta-blue', say('Regatta blue'), '#24509a'],
  ['harbour-navy', say('Harbour navy'), '#22375f'],
  ['reed-green', say('Reed green'), '#3f7d4f'],
  ['bottle-green', say('Bottle green'), '#1d4034'],
  ['rope-brown', say('Rope brown'), '#7a5836'],
  ['heron-grey', say('Heron grey'), '#8d9298'],
  ['tar-black', say('Tar black'), '#1c1b22'],
].map(([id, name, colour]) => ({ id: `stock-${id}`, name, colour }));

export interface StockMatch {
  readonly film: Film;
  /** CIEDE2000 from the colour that it stands for. */
  readonly difference: number;
}

const rgb = (hex: string): Rgb => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 };

/** How far a film's colour is from that of a tone, CIEDE2000. */
export const differenceOf = (a: string, b: string): number => filmDifference(rgb(a), rgb(b));

/** The films on the shelf by their difference from a colour, nearest first. */
export const nearestStock = (colour: string, stock: readonly Film[]): StockMatch[] =>
  stock.map((film) => ({ film, difference: differenceOf(colour, film.colour) })).sort((a, b) => a.difference - b.difference);
