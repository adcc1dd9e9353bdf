import { z } from 'zod';
import { processSchema } from './processes.ts';
import { recipeSchema } from './recipe.ts';

/** Version of the job format that this code writes. */
export const JOB_VERSION = 2;

const lengthMm = z.number().min(0).max(20_000);
const sizeMm = z.number().min(1).max(10_000);
const colourHex = z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is written #rrggbb in lower case');
const name = z.string().trim().min(1).max(120);

export const blankSchema = z.strictObject({
  name,
  /** Printable area, mm. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  colour: colourHex,
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

const oneToneSchema = z.strictObject({
  way: z.literal('oneTone'),
  source: z.enum(['threshold', 'notClear']),
  /** Lightness 0 to 255 at which ink begins, or found by itself. */
  threshold: z.union([z.literal('auto'), z.number().min(0).max(255)]),
  inkIs: z.enum(['auto', 'dark', 'light']),
});

const meetSchema = z.enum(['stacked', 'inset']);

/** A tone of the art: the film that it becomes, or none for the background. */
export const heldToneSchema = z.strictObject({ colour: colourHex, film: z.string().min(1).max(40).nullable() });
export type HeldTone = z.infer<typeof heldToneSchema>;

const spotSchema = z.strictObject({ xPx: z.number().finite(), yPx: z.number().finite(), film: z.string().min(1).max(40).nullable() });
export type Spot = z.infer<typeof spotSchema>;

const flatSchema = z.strictObject({
  way: z.literal('flat'),
  /** Tones with the background, or found. */
  count: z.union([z.literal('auto'), z.number().int().min(2).max(32)]),
  meet: meetSchema,
  /** How far an inset film runs on under its upper neighbours, mm; nothing when absent. */
  reachMm: z.number().min(0).max(20).optional(),
  /** Tones held as they are, with their films; found anew from `count` when absent. */
  palette: z.array(heldToneSchema).min(1).max(32).optional(),
  /** Single areas that are given another film than their tone has, or none: by a point in them, px of the picture as turned and squared. Later ones win. */
  spots: z.array(spotSchema).max(500).optional(),
});

const tonesSchema = z.strictObject({
  way: z.literal('tones'),
  /** Tones of lightness, the lightest being the blank. */
  count: z.number().int().min(2).max(6),
  meet: meetSchema,
  /** How far an inset film runs on under its upper neighbours, mm; nothing when absent. */
  reachMm: z.number().min(0).max(20).optional(),
  /** Lightness 0 to 255 at which one tone passes into the next, ascending; found when absent. */
  steps: z.array(z.number().min(0).max(255)).min(1).max(5).optional(),
});

/** How clean art becomes films: as one tone, as areas of flat colours, or as tones of lightness. */
export const separationSchema = z.discriminatedUnion('way', [oneToneSchema, flatSchema, tonesSchema]);
export type OneToneSeparation = z.infer<typeof oneToneSchema>;
export type FlatSeparation = z.infer<typeof flatSchema>;
export type TonesSeparation = z.infer<typeof tonesSchema>;
export type Separation = z.infer<typeof separationSchema>;

export const outlineSettingsSchema = z.strictObject({
  /** Largest distance of the curve from the edge, picture px. */
  followPx: z.number().min(0.05).max(5),
  /** Turns from this angle on stay sharp corners, degrees. */
  cornerDeg: z.number().min(5).max(180),
  /** Smaller pieces and holes are left out, mm² at the finished size. */
  leastPieceMm2: z.number().min(0).max(1000),
});

export const filmSchema = z.strictObject({ id: z.string().min(1).max(40), name, colour: colourHex });
export type Film = z.infer<typeof filmSchema>;

export const assemblySchema = z.strictObject({
  /** Finished size of the design: one side; the other follows. */
  by: z.enum(['width', 'height']),
  sizeMm,
  /** Clockwise on screen. */
  turnDeg: z.number().min(-360).max(360),
  /** Upper left of the design on the blank's printable area, mm; centred across and near the top when absent. */
  place: z.strictObject({ xMm: z.number().min(-20_000).max(20_000), yMm: z.number().min(-20_000).max(20_000) }).optional(),
  films: z.array(filmSchema).min(1).max(32),
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
  outline: outlineSettingsSchema,
  assembly: assemblySchema,
  layout: layoutSchema,
  handOff: z.strictObject({ cutAs: z.enum(['lines', 'shapes']) }),
});
/** One order: everything but the picture's bytes. */
export type Job = z.infer<typeof jobSchema>;
