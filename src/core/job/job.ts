import { z } from 'zod';
import { recipeSchema } from '../clean/recipe.ts';
import { filmSchema, MAX_FILMS } from '../film/film.ts';
import { layoutSchema } from '../layout/layout.ts';
import { outlineSettingsSchema } from '../outline/outlineSettings.ts';
import { blankSchema } from '../process/blanks.ts';
import { processSchema } from '../process/processes.ts';
import { separationSchema } from '../separate/separation.ts';

/** Version of the job format that this code writes. */
export const JOB_VERSION = 3;

const sizeMm = z.number().min(1).max(10_000);
const name = z.string().trim().min(1).max(120);

/** Whose picture it is and whether it may be used for sale. */
export const rightsSchema = z.strictObject({
  note: z.string().max(2000),
  use: z.enum(['unknown', 'ours', 'allowed', 'notForSale']),
});

export const pictureInfoSchema = z.strictObject({
  /** File name as it came. */
  fileName: z.string().max(255),
  widthPx: z.number().int().min(1),
  heightPx: z.number().int().min(1),
  /** Resolution that the file states, dots per inch; absent when it states none. */
  statedDpi: z.number().positive().max(100_000).optional(),
  /** Camera and focal length that the file names. */
  camera: z.string().max(120).optional(),
  /** Long side at which a vector drawing is drawn as a picture. */
  drawnSidePx: z.number().int().min(100).max(8000).optional(),
});
export type PictureInfo = z.infer<typeof pictureInfoSchema>;

export const assemblySchema = z.strictObject({
  /** Finished size of the design: one side; the other follows. */
  by: z.enum(['width', 'height']),
  sizeMm,
  /** Clockwise on screen. */
  turnDeg: z.number().min(-360).max(360),
  /** Upper left of the design on the blank's printable area, mm; centred across and near the top when absent. */
  place: z.strictObject({ xMm: z.number().min(-20_000).max(20_000), yMm: z.number().min(-20_000).max(20_000) }).optional(),
  films: z.array(filmSchema).min(1).max(MAX_FILMS),
});
export type Assembly = z.infer<typeof assemblySchema>;

export const jobSchema = z.strictObject({
  format: z.literal('limner-job'),
  version: z.literal(JOB_VERSION),
  name,
  keywords: z.array(z.string().trim().min(1).max(40)).max(40),
  rights: rightsSchema,
  blank: blankSchema,
  process: processSchema,
  picture: pictureInfoSchema.optional(),
  recipe: recipeSchema,
  separation: separationSchema,
  /** How the other ways of separating were left, to go back to; one of each at most. */
  otherWays: z.array(separationSchema).max(4).optional(),
  outline: outlineSettingsSchema,
  assembly: assemblySchema,
  layout: layoutSchema,
  handOff: z.strictObject({ cutAs: z.enum(['lines', 'shapes']) }),
});
/** One order: everything but the picture's bytes. */
export type Job = z.infer<typeof jobSchema>;
