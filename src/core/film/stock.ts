import { z } from 'zod';
import { filmDifference } from '../colour/filmDifference.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { filmSchema, type Film } from './film.ts';

/** A film on the shelf, and the id of what it is made of, where that was written down. */
const stockFilmSchema = filmSchema.extend({ material: z.string().min(1).max(60).optional() });
export type StockFilm = z.infer<typeof stockFilmSchema>;

/** The films that lie on the shelf of the workshop. */
export const stockSchema = z.array(stockFilmSchema).max(400);

/** What a shelf holds before anyone wrote down their own. */
export const USUAL_STOCK: readonly Film[] = [
  ['Foam white', '#fbf8f3'],
  ['Sail cream', '#efe3c8'],
  ['Lamp yellow', '#f2b632'],
  ['Buoy orange', '#e5702a'],
  ['Pennant red', '#b3262e'],
  ['Rosehip', '#d9788f'],
  ['Plum', '#5b2a4e'],
  ['Sky blue', '#7fb2d9'],
  ['Regatta blue', '#24509a'],
  ['Harbour navy', '#22375f'],
  ['Reed green', '#3f7d4f'],
  ['Bottle green', '#1d4034'],
  ['Rope brown', '#7a5836'],
  ['Heron grey', '#8d9298'],
  ['Tar black', '#1c1b22'],
].map(([name, colour]) => ({ id: `stock-${name.toLowerCase().replace(' ', '-')}`, name, colour }));

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
