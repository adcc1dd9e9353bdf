import { z } from 'zod';
import { filmId } from '../film/film.ts';
import { TURNS } from '../nest/turns.ts';
import { PROCESSES, type Process } from '../process/processes.ts';
import { DECAL_PAPERS } from '../print/motif.ts';
import { machineSchema } from './machine.ts';
import { remnantSchema } from './remnantSchema.ts';
import { SHEETS, sheetSchema } from './sheetStock.ts';

const poseMm = z.number().min(-1e6).max(1e6);
/** Copies and pieces that nesting lays. */
export const MOST_NESTED = 10_000;

/** How the parts of a film were nested, to be laid so again as long as nothing of them or of the sheet changes. */
export const nestRecordSchema = z.strictObject({
  film: filmId,
  /** Of the outlines and settings that it was made of. */
  key: z.string().min(1).max(80),
  /** For each sheet: numbers of parts, with their middle and turn on the strip. */
  sheets: z.array(z.array(z.strictObject({ part: z.number().int().min(0).max(MOST_NESTED), x: poseMm, y: poseMm, angle: poseMm })).max(MOST_NESTED)).max(1000),
});
export type NestRecord = z.infer<typeof nestRecordSchema>;

/** What a weeding box is drawn around: each copy, all of them, each piece or pieces whose boxes touch, or the blank's printable area with the design at its place. */
export const BOX_AROUND = ['copy', 'all', 'piece', 'blank'] as const;
const boxSchema = z.strictObject({
  on: z.boolean(),
  marginMm: z.number().min(0).max(200),
  /** Each copy when absent. */
  around: z.enum(BOX_AROUND).optional(),
  /** Radius of its corners, mm; sharp when absent. */
  roundMm: z.number().min(0).max(50).optional(),
});

export const tilesSchema = z.strictObject({
  manner: z.enum(['overlap', 'butt']),
  /** How far each tile runs over its neighbour, mm, where they overlap. */
  overlapMm: z.number().min(0).max(100),
});
export type TileSettings = z.infer<typeof tilesSchema>;

/** A weed line that somebody moved, or left out: known by its film, sheet (from 1), weeding box (from 0) and place among that box's lines (from 1). */
const ownWeedLineSchema = z.strictObject({
  film: filmId,
  sheet: z.number().int().min(1).max(10_000),
  box: z.number().int().min(0).max(MOST_NESTED),
  strip: z.number().int().min(1).max(10_000),
  /** Where along the box's longer side it lies; left out when absent. */
  share: z.number().min(0).max(1).optional(),
});
export type OwnWeedLine = z.infer<typeof ownWeedLineSchema>;

const flawMm = z.number().min(-20_000).max(20_000);
export const flawSchema = z.strictObject({ xMm: flawMm, yMm: flawMm, widthMm: z.number().min(0.1).max(20_000), heightMm: z.number().min(0.1).max(20_000) });

const stencilUseSchema = z.strictObject({
  /** Half of it, turned over about its upright middle; or all of it, laid again a step further. */
  manner: z.enum(['half', 'repeat']),
  /** From one place to the next, mm; its own width when absent. */
  everyMm: z.number().min(1).max(20_000).optional(),
  /** Over a surface: from one row to the next, mm; in a row alone when absent. */
  downMm: z.number().min(1).max(20_000).optional(),
  /** Of the holes by which it is laid again, mm. */
  holeMm: z.number().min(1).max(20),
});
export type StencilUse = z.infer<typeof stencilUseSchema>;

const weedLinesSchema = z.strictObject({ on: z.boolean(), everyMm: z.number().min(10).max(1000), awayMm: z.number().min(0.2).max(20) });
const copies = z.number().int().min(1).max(2000);
const gapMm = z.number().min(0).max(500);
/** How copies lie on sheets. */
const arranging = {
  /** In rows: each copy lies turned by a quarter; as it reads when absent. */
  turned: z.boolean().optional(),
  /** Rows when absent. Nested: by true outlines, on as many sheets as it takes. */
  arrange: z.enum(['rows', 'nested']).optional(),
  /** How nested parts may be turned; free when absent. */
  turns: z.enum(TURNS).optional(),
  /** Nested: each piece by itself instead of whole copies. */
  apart: z.boolean().optional(),
};

/** A film that is laid out by itself: what of the layout is its own. */
export const filmLayoutSchema = z.strictObject({ film: filmId, sheet: sheetSchema, box: boxSchema, weedLines: weedLinesSchema.optional(), copies, gapMm, ...arranging });
export type FilmLayout = z.infer<typeof filmLayoutSchema>;

export const layoutSchema = z.strictObject({
  sheet: sheetSchema,
  /** The cutter or printer it lies in, as it was when it was chosen. */
  machine: machineSchema.optional(),
  /** `process`: as the process wants it. Anything else is an override that stays marked. */
  mirror: z.enum(['process', 'always', 'never']),
  box: boxSchema,
  /** Marks cut into every film at the same place, to line them up by; none when absent. */
  register: z.strictObject({ on: z.boolean(), sizeMm: z.number().min(2).max(40) }).optional(),
  /** Whether it is cut as it is although its blank tapers; bent so that it lies level on it when absent. */
  unbent: z.boolean().optional(),
  /** Whether a guide of card that places film on the blank is cut with the sheets. */
  guide: z.boolean().optional(),
  /** Of a stencil: how it is laid more than once; once when absent. */
  stencil: stencilUseSchema.optional(),
  /** How a design that is larger than the cut area is parted; not at all when absent. */
  tiles: tilesSchema.optional(),
  /** What of every sheet cannot be used, mm of the sheet: nested parts keep clear of it. */
  flaws: z.array(flawSchema).max(100).optional(),
  /** Where the upper left of the first copy lies on every sheet, mm, because what it is cut around lies there already: it is never moved; further copies are blanks on what is free. From the origin corner when absent. */
  work: z.strictObject({ xMm: z.number().min(-1000).max(20_000), yMm: z.number().min(-1000).max(20_000) }).optional(),
  /** Cuts through the waste that part it into strips; none when absent. */
  weedLines: weedLinesSchema.extend({ own: z.array(ownWeedLineSchema).max(2000).optional() }).optional(),
  copies,
  gapMm,
  ...arranging,
  /** Films that are laid out by themselves; the others as all are. Not of what is printed, nor of a stencil that is laid more than once. */
  byFilm: z.array(filmLayoutSchema).max(64).optional(),
  /** What is left of films from earlier: nested parts lie on these first. */
  remnants: z.array(remnantSchema).max(60).optional(),
  nests: z.array(nestRecordSchema).max(64).optional(),
  /** What is not printed, where the process prints: clear when absent. */
  paper: z.enum(DECAL_PAPERS).optional(),
  /** What is printed: page filled with copies, whatever their number. */
  fill: z.boolean().optional(),
  /** What is printed: a white shape below the ink, so much within its edge that it does not show; none when absent. For printers and films that can. */
  white: z.strictObject({ on: z.boolean(), chokeMm: z.number().min(0).max(5) }).optional(),
  /** What is printed: a line around each motif that a cutter follows, so far outside of it; scissors by corner marks when absent. */
  contour: z.strictObject({ on: z.boolean(), awayMm: z.number().min(0).max(50) }).optional(),
  /** What is printed: how far its colours run out over its edge, mm, so that a cut that is a little off shows no paper. */
  bleedMm: z.number().min(0).max(10).optional(),
  /** What is printed: each part of the design is a motif by itself. */
  eachPart: z.boolean().optional(),
});
export type Layout = z.infer<typeof layoutSchema>;

/** Tiles as they are when they are switched on. */
export const USUAL_TILES: TileSettings = { manner: 'overlap', overlapMm: 6 };
/** Register marks as they are when they are switched on. */
export const USUAL_REGISTER = { on: true, sizeMm: 6 } as const;

/** Holes by which a stencil is laid again, when that is switched on, mm. */
export const USUAL_STENCIL_HOLE_MM = 4;

/** Weed lines as they are when they are switched on. */
export const USUAL_WEED_LINES = { on: true, everyMm: 80, awayMm: 1.5 } as const;

/** White backs and cut lines of prints as they are when they are switched on. */
export const USUAL_WHITE = { on: true, chokeMm: 0.2 } as const;
export const USUAL_CONTOUR = { on: true, awayMm: 2 } as const;

/** How a job of a process is laid out before anyone changes it: what is printed fills a page. */
export const usualLayout = (process: Process): Layout =>
  PROCESSES[process].isPrinted
    ? { sheet: SHEETS[3], mirror: 'process', box: { on: false, marginMm: 6 }, copies: 1, fill: true, gapMm: 6 }
    : { sheet: SHEETS[1], mirror: 'process', box: { on: true, marginMm: 6 }, copies: 1, gapMm: 4 };
