import { z } from 'zod';
import { say } from '../words/say.ts';

const lengthMm = z.number().min(0.1).max(10_000);
const cornerMm = z.number().min(0).max(5000).optional();
const box = { widthMm: lengthMm, heightMm: lengthMm };

/** A basic shape by its measures; the upper left of the box that it is set in is at 0, 0. */
export const figureSchema = z.discriminatedUnion('form', [
  z.strictObject({ form: z.literal('rectangle'), ...box, cornerMm }),
  z.strictObject({ form: z.literal('round'), ...box }),
  /** A round with a round opening, `bandMm` broad. */
  z.strictObject({ form: z.literal('ring'), ...box, bandMm: lengthMm }),
  /** A rectangle whose short ends are round, flat or pointed. */
  z.strictObject({ form: z.literal('bar'), ...box, ends: z.enum(['round', 'flat', 'pointed']) }),
  /** A regular polygon standing on a side, stretched into its box. */
  z.strictObject({ form: z.literal('polygon'), ...box, corners: z.number().int().min(3).max(60), cornerMm }),
  /** @see starCurves: `depth` is how far the inner corners lie towards the middle, 0 to 1. */
  z.strictObject({ form: z.literal('star'), ...box, corners: z.number().int().min(3).max(60), depth: z.number().min(0.02).max(0.98), cornerMm }),
  /** A band along a circle, its middle on top. */
  z.strictObject({ form: z.literal('arc'), ...box, bandMm: lengthMm, sweepDeg: z.number().min(1).max(359), ends: z.enum(['round', 'flat']) }),
  /** A band that goes up and down. */
  z.strictObject({ form: z.literal('wave'), ...box, bandMm: lengthMm, waves: z.number().int().min(1).max(50) }),
  /** A band whose ends are folded back behind it and notched. */
  z.strictObject({ form: z.literal('ribbon'), ...box, tailMm: lengthMm }),
  z.strictObject({ form: z.literal('shield'), ...box }),
  /** A round or square field with a point towards who speaks, at a share of its width. */
  z.strictObject({ form: z.literal('speech'), ...box, cornerMm, at: z.number().min(0).max(1), tailMm: lengthMm }),
  z.strictObject({ form: z.literal('heart'), ...box }),
  z.strictObject({ form: z.literal('drop'), ...box }),
]);
export type Figure = z.infer<typeof figureSchema>;
export type FigureForm = Figure['form'];

/** What a form is called, and what its other measures are when it is set anew in a box. */
export const FIGURE_FORMS: Readonly<Record<FigureForm, { readonly name: string; readonly about: string; readonly first: (widthMm: number, heightMm: number) => Figure }>> = {
  rectangle: { name: say('Rectangle'), about: say('a board, its corners round or sharp'), first: (widthMm, heightMm) => ({ form: 'rectangle', widthMm, heightMm }) },
  bar: { name: say('Bar'), about: say('its ends round, flat or pointed'), first: (widthMm, heightMm) => ({ form: 'bar', widthMm, heightMm, ends: 'round' }) },
  round: { name: say('Round'), about: say('a disc or an oval'), first: (widthMm, heightMm) => ({ form: 'round', widthMm, heightMm }) },
  ring: { name: say('Ring'), about: say('a round with a round opening'), first: (widthMm, heightMm) => ({ form: 'ring', widthMm, heightMm, bandMm: tenthOf(widthMm, heightMm) }) },
  arc: { name: say('Arc'), about: say('a band along a circle'), first: (widthMm, heightMm) => ({ form: 'arc', widthMm, heightMm, bandMm: tenthOf(widthMm, heightMm), sweepDeg: 120, ends: 'round' }) },
  wave: { name: say('Wave'), about: say('a band that goes up and down'), first: (widthMm, heightMm) => ({ form: 'wave', widthMm, heightMm, bandMm: tenthOf(heightMm, heightMm) * 3, waves: 3 }) },
  polygon: { name: say('Polygon'), about: say('of three sides and more'), first: (widthMm, heightMm) => ({ form: 'polygon', widthMm, heightMm, corners: 6 }) },
  star: { name: say('Star'), about: say('of three points and more'), first: (widthMm, heightMm) => ({ form: 'star', widthMm, heightMm, corners: 5, depth: 0.6 }) },
  ribbon: { name: say('Ribbon'), about: say('a band with folded ends, for a name'), first: (widthMm, heightMm) => ({ form: 'ribbon', widthMm, heightMm, tailMm: widthMm / 6 }) },
  shield: { name: say('Shield'), about: say('for a crest'), first: (widthMm, heightMm) => ({ form: 'shield', widthMm, heightMm }) },
  speech: { name: say('Speech shape'), about: say('a field with a point'), first: (widthMm, heightMm) => ({ form: 'speech', widthMm, heightMm, cornerMm: heightMm / 5, at: 0.25, tailMm: heightMm / 4 }) },
  heart: { name: say('Heart'), about: say('its point below'), first: (widthMm, heightMm) => ({ form: 'heart', widthMm, heightMm }) },
  drop: { name: say('Drop'), about: say('its point on top'), first: (widthMm, heightMm) => ({ form: 'drop', widthMm, heightMm }) },
};

const tenthOf = (widthMm: number, heightMm: number): number => Math.max(0.5, Math.round(Math.min(widthMm, heightMm)) / 10);
