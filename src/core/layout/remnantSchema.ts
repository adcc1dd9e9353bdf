import { z } from 'zod';
import { filmId } from '../film/film.ts';

const sideMm = z.number().min(5).max(10_000);
const placeMm = z.number().min(-10_000).max(20_000);

/** What is left of a film and is used before a new sheet. */
export const remnantSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  film: filmId,
  widthMm: sideMm,
  heightMm: sideMm,
  /** Its edge, x and y of each corner from its upper left, mm; a rectangle when absent. */
  outline: z.array(placeMm).min(6).max(2000).optional(),
});
export type Remnant = z.infer<typeof remnantSchema>;
