import { z } from 'zod';
import { say } from '../words/say.ts';

/** A colour as it is written in jobs. */
export const colourHex = z.string().regex(/^#[0-9a-f]{6}$/, say('a colour is written #rrggbb in lower case'));
export const filmId = z.string().min(1).max(40);

/** Films that a job may have on its rack, those of all ways of separating together. */
export const MAX_FILMS = 64;

/** One material in one colour. */
export const filmSchema = z.strictObject({ id: filmId, name: z.string().trim().min(1).max(120), colour: colourHex });
export type Film = z.infer<typeof filmSchema>;
