import { z } from 'zod';
import { colourHex } from '../film/film.ts';
import type { Process } from './processes.ts';
import { say } from '../words/say.ts';

const sizeMm = z.number().min(1).max(10_000);

/** What a blank is, which says how it is drawn and whether it is round to look at. */
export const BLANK_FORMS = ['shirt', 'tote', 'mug', 'glass', 'soap', 'board'] as const;
export type BlankForm = (typeof BLANK_FORMS)[number];
export const FORM_WORDS: Readonly<Record<BlankForm, string>> = { shirt: say('shirt'), tote: say('tote'), mug: say('mug'), glass: say('glass'), soap: say('soap'), board: say('board') };

export const blankSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  /** Printable area, mm. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  colour: colourHex,
  /** Whether the area is round or oval rather than a rectangle. */
  round: z.boolean().optional(),
  /** A plain board when absent. */
  form: z.enum(BLANK_FORMS).optional(),
  /** From the collar's seam down to the printable area, where there is a collar, mm. */
  belowCollarMm: z.number().min(0).max(1000).optional(),
  /** Once around what is round, at the printable area's upper edge, mm; the area and the zone of a handle lie on it. */
  aroundMm: sizeMm.optional(),
  /** Once around at its lower edge, where the blank tapers; as above when absent. */
  aroundBelowMm: sizeMm.optional(),
});
export type Blank = z.infer<typeof blankSchema>;

/** A mug's wrap goes so far around it, share of its whole turn: the rest is the handle's. */
const WRAP_SHARE = 0.8;
const GLASS_SHARE = 0.42;

/** Radii of what is round to look at, mm, at the upper and the lower edge of its printable area; undefined for what is flat. */
export function radiiOf({ form, widthMm, aroundMm, aroundBelowMm }: Pick<Blank, 'form' | 'widthMm' | 'aroundMm' | 'aroundBelowMm'>): { readonly upperMm: number; readonly lowerMm: number } | undefined {
  if (form !== 'mug' && form !== 'glass') return undefined;
  const upper = aroundMm ?? widthMm / (form === 'mug' ? WRAP_SHARE : GLASS_SHARE);
  const lower = aroundBelowMm ?? upper;
  // What is printed never goes round further than once.
  const larger = Math.max(1, (2 * widthMm) / (upper + lower));
  return { upperMm: (upper * larger) / (2 * Math.PI), lowerMm: (lower * larger) / (2 * Math.PI) };
}

export interface BlankChoice {
  readonly blank: Blank;
  readonly process: Process;
  /** Finished width that is usual on it, mm. */
  readonly widthMm: number;
}

/** Blanks that a workshop has at hand; sizes are of the printable area. Any of it can be changed in the job. */
export const BLANKS: readonly BlankChoice[] = [
  { blank: { name: say('Shirt, adult L'), widthMm: 300, heightMm: 380, colour: '#e9e6df', form: 'shirt', belowCollarMm: 75 }, process: 'htv', widthMm: 280 },
  { blank: { name: say('Shirt, child'), widthMm: 200, heightMm: 240, colour: '#f4d58d', form: 'shirt', belowCollarMm: 50 }, process: 'htv', widthMm: 170 },
  { blank: { name: say('Shirt, dark'), widthMm: 300, heightMm: 380, colour: '#24303a', form: 'shirt', belowCollarMm: 75 }, process: 'htv', widthMm: 280 },
  { blank: { name: say('Tote bag'), widthMm: 260, heightMm: 280, colour: '#e4d8c3', form: 'tote' }, process: 'htv', widthMm: 200 },
  { blank: { name: say('Drinking glass'), widthMm: 80, heightMm: 90, colour: '#dfeaea', form: 'glass' }, process: 'decal', widthMm: 60 },
  { blank: { name: say('Tapered tumbler'), widthMm: 100, heightMm: 95, colour: '#dfeaea', form: 'glass', aroundMm: 272, aroundBelowMm: 222 }, process: 'decal', widthMm: 80 },
  { blank: { name: say('Window pane'), widthMm: 400, heightMm: 400, colour: '#dbe6ec' }, process: 'decal', widthMm: 300 },
  { blank: { name: say('Mug'), widthMm: 200, heightMm: 90, colour: '#ffffff', form: 'mug', aroundMm: 255 }, process: 'waterslide', widthMm: 90 },
  { blank: { name: say('Soap bar'), widthMm: 75, heightMm: 50, colour: '#f3e7d3', form: 'soap' }, process: 'stencil', widthMm: 55 },
  { blank: { name: say('Wooden sign'), widthMm: 400, heightMm: 250, colour: '#c9a675' }, process: 'stencil', widthMm: 300 },
  { blank: { name: say('Shirt, adult S'), widthMm: 260, heightMm: 340, colour: '#e9e6df', form: 'shirt', belowCollarMm: 65 }, process: 'htv', widthMm: 240 },
  { blank: { name: say('Shirt, adult M'), widthMm: 280, heightMm: 360, colour: '#e9e6df', form: 'shirt', belowCollarMm: 70 }, process: 'htv', widthMm: 260 },
  { blank: { name: say('Shirt, adult XL'), widthMm: 330, heightMm: 400, colour: '#e9e6df', form: 'shirt', belowCollarMm: 80 }, process: 'htv', widthMm: 300 },
  { blank: { name: say('Espresso cup'), widthMm: 120, heightMm: 45, colour: '#ffffff', form: 'mug', aroundMm: 165 }, process: 'waterslide', widthMm: 40 },
  { blank: { name: say('Glazed tile'), widthMm: 148, heightMm: 148, colour: '#f4f1ea' }, process: 'waterslide', widthMm: 120 },
  { blank: { name: say('Shop sign'), widthMm: 1200, heightMm: 400, colour: '#ffffff' }, process: 'decal', widthMm: 1000 },
];

/** A blank with something of it changed. A shipped one stays what it is: the changed one takes a name of its own. */
export function ownBlank(blank: Blank, change: Partial<Blank>): Blank {
  const { round, ...rest } = { ...blank, ...change };
  const isShipped = BLANKS.some((choice) => choice.blank.name === rest.name);
  return { ...rest, name: isShipped ? say`${rest.name}, own` : rest.name, ...(round === true ? { round } : {}) };
}
