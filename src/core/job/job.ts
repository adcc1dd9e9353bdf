import { z } from 'zod';
import { isPathData } from '../outline/pathData.ts';
import { processSchema } from './processes.ts';
import { recipeSchema } from './recipe.ts';
import { colourHex, filmId, separationSchema } from './separation.ts';

export * from './separation.ts';

/** Version of the job format that this code writes. */
export const JOB_VERSION = 3;

/** Films that a job may have on its rack, those of all ways of separating together. */
export const MAX_FILMS = 64;

const lengthMm = z.number().min(0).max(20_000);
const sizeMm = z.number().min(1).max(10_000);
const name = z.string().trim().min(1).max(120);

export const blankSchema = z.strictObject({
  name,
  /** Printable area, mm. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  colour: colourHex,
  /** Whether the area is round or oval rather than a rectangle. */
  round: z.boolean().optional(),
});
export type Blank = z.infer<typeof blankSchema>;

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

/** Characters of all outlines held by hand together: some million nodes, more than a cutter takes. Held to when an outline is edited, so that what was made can be read. */
export const MAX_HELD_CHARS = 60_000_000;

/** The outline of a film as it was left by hand, px of the picture as turned and squared. */
export const heldOutlineSchema = z.strictObject({
  film: filmId,
  /** Says from which outline it was made: `outlineMark` of it. */
  from: z.string().max(40),
  path: z.string().max(MAX_HELD_CHARS).refine(isPathData, 'a path is written with M, L, C and Z'),
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

export const filmSchema = z.strictObject({ id: filmId, name, colour: colourHex });
export type Film = z.infer<typeof filmSchema>;

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

export const sheetSchema = z.strictObject({
  name,
  /** The stock as it lies in the machine. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  /** What the machine cannot reach along each edge. */
  marginMm: z.strictObject({ left: lengthMm, top: lengthMm, right: lengthMm, bottom: lengthMm }),
  /** Corner of the cut area from which the machine counts. */
  origin: z.enum(['topLeft', 'topRight', 'bottomLeft', 'bottomRight']),
});
export type SheetStock = z.infer<typeof sheetSchema>;

export const layoutSchema = z.strictObject({
  sheet: sheetSchema,
  /** `process`: as the process wants it. Anything else is an override that stays marked. */
  mirror: z.enum(['process', 'always', 'never']),
  box: z.strictObject({ on: z.boolean(), marginMm: z.number().min(0).max(200) }),
  copies: z.number().int().min(1).max(2000),
  gapMm: z.number().min(0).max(500),
});
export type Layout = z.infer<typeof layoutSchema>;

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
