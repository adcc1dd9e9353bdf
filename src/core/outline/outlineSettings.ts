import { z } from 'zod';
import { filmId, MAX_FILMS } from '../film/film.ts';
import { isPathData } from './pathData.ts';
import { say } from '../words/say.ts';

/**
 * Characters of all outlines held by hand together: some million nodes, more than a cutter takes. Held to when an outline is edited, so that what was made can
 * be read.
 */
export const MAX_HELD_CHARS = 60_000_000;

/** The outline of a film as it was left by hand, px of the picture as turned and squared. */
export const heldOutlineSchema = z.strictObject({
  film: filmId,
  /** Says from which outline it was made: `outlineMark` of it. */
  from: z.string().max(40),
  path: z.string().max(MAX_HELD_CHARS).refine(isPathData, say('a path is written with M, L, C and Z')),
});
export type HeldOutline = z.infer<typeof heldOutlineSchema>;

/** A film below all others, as far around them. */
const aroundSchema = z.strictObject({ widthMm: z.number().min(0).max(100), openings: z.enum(['kept', 'filled']) });
export type Around = z.infer<typeof aroundSchema>;

export const outlineSettingsSchema = z.strictObject({
  /** Largest distance of the curve from the edge, picture px. */
  followPx: z.number().min(0.05).max(5),
  /** Turns from this angle on stay sharp corners, degrees. */
  cornerDeg: z.number().min(5).max(180),
  /** Smaller pieces and holes are left out, mm² at the finished size. */
  leastPieceMm2: z.number().min(0).max(1000),
  /** How much the edge is calmed between its corners before it is followed, picture px; nothing when absent. */
  smoothPx: z.number().min(0).max(10).optional(),
  /** Whether circles, ellipses and parallel edges are drawn as such; they are when absent. */
  shapes: z.boolean().optional(),
  /** Only the outermost edge around everything, as one film. */
  outermost: z.boolean().optional(),
  /** A film around and below all others. */
  around: aroundSchema.optional(),
  held: z.array(heldOutlineSchema).max(MAX_FILMS).optional(),
});
export type OutlineSettings = z.infer<typeof outlineSettingsSchema>;
