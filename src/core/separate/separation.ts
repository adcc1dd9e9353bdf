import { z } from 'zod';
import { colourHex, filmId } from '../film/film.ts';

const oneToneSchema = z.strictObject({
  way: z.literal('oneTone'),
  source: z.enum(['threshold', 'notClear']),
  /** Lightness 0 to 255 at which ink begins, or found by itself. */
  threshold: z.union([z.literal('auto'), z.number().min(0).max(255)]),
  inkIs: z.enum(['auto', 'dark', 'light']),
  /** The film that it becomes, where that is not the one with which a job starts. */
  film: filmId.optional(),
});

/** A lower film runs on under a whole upper one, is cut out along it, or runs on to the middle of it. */
export const meetSchema = z.enum(['stacked', 'inset', 'middle']);
export type Meet = z.infer<typeof meetSchema>;

const reachMm = z.number().min(0).max(20);

/** How two films meet, where it is not as all do. */
const pairSchema = z.strictObject({ films: z.tuple([filmId, filmId]), meet: meetSchema, reachMm: reachMm.optional() });
export type MeetingPair = z.infer<typeof pairSchema>;

const meeting = {
  meet: meetSchema,
  /** How far an inset film runs on under its neighbours, mm; nothing when absent. */
  reachMm: reachMm.optional(),
  /** Which of two inset films keeps its true edge while the other reaches: the upper one, or the darker. */
  keeps: z.enum(['upper', 'darker']).optional(),
  pairs: z.array(pairSchema).max(500).optional(),
};

/** A tone of the art: the film that it becomes, or none for the background. */
export const heldToneSchema = z.strictObject({ colour: colourHex, film: filmId.nullable() });
export type HeldTone = z.infer<typeof heldToneSchema>;

const spotSchema = z.strictObject({ xPx: z.number().finite(), yPx: z.number().finite(), film: filmId.nullable() });
export type Spot = z.infer<typeof spotSchema>;

/** Tones that are remembered for their films; the oldest are forgotten beyond. */
export const MAX_KNOWN = 64;

const flatSchema = z.strictObject({
  way: z.literal('flat'),
  /** Tones with the background, or found. */
  count: z.union([z.literal('auto'), z.number().int().min(1).max(32)]),
  ...meeting,
  /** Tones held as they are, with their films; found anew from `count` when absent. */
  palette: z.array(heldToneSchema).min(1).max(32).optional(),
  /** Tones that stay, with their films, when the others are found anew. */
  kept: z.array(heldToneSchema).min(1).max(32).optional(),
  /** Tones as they were found before, with their films: what is found anew takes the film of the one that it is most like. */
  known: z.array(heldToneSchema).min(1).max(MAX_KNOWN).optional(),
  /** Single areas that are given another film than their tone has, or none: by a point in them, px of the picture as turned and squared. Later ones win. */
  spots: z.array(spotSchema).max(500).optional(),
});

const tonesSchema = z.strictObject({
  way: z.literal('tones'),
  /** Tones of lightness, the lightest being the blank. */
  count: z.number().int().min(2).max(6),
  ...meeting,
  /** Lightness 0 to 255 at which one tone passes into the next, ascending; found when absent. */
  steps: z.array(z.number().min(0).max(255)).min(1).max(5).optional(),
});

const backDetailSchema = z.strictObject({
  way: z.literal('backDetail'),
  /** How much of the detail is cut: 0 for its broad shapes, 100 for all of it. */
  fineness: z.number().min(0).max(100),
  /** Lightness 0 to 255 below which is detail, or found by itself. */
  threshold: z.union([z.literal('auto'), z.number().min(0).max(255)]),
  /** Whether the back is cut with the openings of the art, or full. */
  back: z.enum(['open', 'full']),
});

/** How clean art becomes films: as one tone, as areas of flat colours, as tones of lightness, or as a back with one layer of detail on it. */
export const separationSchema = z.discriminatedUnion('way', [oneToneSchema, flatSchema, tonesSchema, backDetailSchema]);
export type OneToneSeparation = z.infer<typeof oneToneSchema>;
export type FlatSeparation = z.infer<typeof flatSchema>;
export type TonesSeparation = z.infer<typeof tonesSchema>;
export type BackDetailSeparation = z.infer<typeof backDetailSchema>;
export type Separation = z.infer<typeof separationSchema>;
