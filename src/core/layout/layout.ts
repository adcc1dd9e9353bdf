import { z } from 'zod';
import { filmId } from '../film/film.ts';
import { TURNS } from '../nest/turns.ts';
import { PROCESSES, type Process } from '../process/processes.ts';
import { DECAL_PAPERS } from '../print/motif.ts';

const lengthMm = z.number().min(0).max(20_000);
const sizeMm = z.number().min(1).max(10_000);

/** A piece of stock as it lies in a machine. */
export const sheetSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  /** The stock as it lies in the machine. */
  widthMm: sizeMm,
  heightMm: sizeMm,
  /** What the machine cannot reach along each edge. */
  marginMm: z.strictObject({ left: lengthMm, top: lengthMm, right: lengthMm, bottom: lengthMm }),
  /** Corner of the cut area from which the machine counts. */
  origin: z.enum(['topLeft', 'topRight', 'bottomLeft', 'bottomRight']),
});
export type SheetStock = z.infer<typeof sheetSchema>;

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

export const layoutSchema = z.strictObject({
  sheet: sheetSchema,
  /** `process`: as the process wants it. Anything else is an override that stays marked. */
  mirror: z.enum(['process', 'always', 'never']),
  box: z.strictObject({ on: z.boolean(), marginMm: z.number().min(0).max(200) }),
  /** Cuts through the waste that part it into strips; none when absent. */
  weedLines: z.strictObject({ on: z.boolean(), everyMm: z.number().min(10).max(1000), awayMm: z.number().min(0.2).max(20) }).optional(),
  copies: z.number().int().min(1).max(2000),
  gapMm: z.number().min(0).max(500),
  /** Rows when absent. Nested: by true outlines, on as many sheets as it takes. */
  arrange: z.enum(['rows', 'nested']).optional(),
  /** How nested parts may be turned; free when absent. */
  turns: z.enum(TURNS).optional(),
  /** Nested: each piece by itself instead of whole copies. */
  apart: z.boolean().optional(),
  nests: z.array(nestRecordSchema).max(64).optional(),
  /** What is not printed, where the process prints: clear when absent. */
  paper: z.enum(DECAL_PAPERS).optional(),
  /** What is printed: page filled with copies, whatever their number. */
  fill: z.boolean().optional(),
  /** What is printed: each part of the design is a motif by itself. */
  eachPart: z.boolean().optional(),
});
export type Layout = z.infer<typeof layoutSchema>;

/** Weed lines as they are when they are switched on. */
export const USUAL_WEED_LINES = { on: true, everyMm: 80, awayMm: 1.5 } as const;

/** Sheets that a workshop lays in its machine. */
export const SHEETS: readonly SheetStock[] = [
  { name: 'Mat 305 × 305', widthMm: 305, heightMm: 305, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: 'Mat 305 × 610', widthMm: 305, heightMm: 610, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: 'Roll 500, 1 m', widthMm: 500, heightMm: 1000, marginMm: { left: 10, top: 5, right: 10, bottom: 5 }, origin: 'bottomLeft' },
  { name: 'A4 sheet', widthMm: 210, heightMm: 297, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
  { name: 'Letter sheet', widthMm: 215.9, heightMm: 279.4, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
];

/** How a job of a process is laid out before anyone changes it: what is printed fills a page. */
export const usualLayout = (process: Process): Layout =>
  PROCESSES[process].isPrinted
    ? { sheet: SHEETS[3], mirror: 'process', box: { on: false, marginMm: 6 }, copies: 1, fill: true, gapMm: 6 }
    : { sheet: SHEETS[1], mirror: 'process', box: { on: true, marginMm: 6 }, copies: 1, gapMm: 4 };
