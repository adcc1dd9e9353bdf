import { z } from 'zod';
import { say } from '../words/say.ts';

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

/** Sheets that a workshop lays in its machine. */
export const SHEETS: readonly SheetStock[] = [
  { name: say('Mat 305 × 305'), widthMm: 305, heightMm: 305, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: say('Mat 305 × 610'), widthMm: 305, heightMm: 610, marginMm: { left: 3, top: 3, right: 3, bottom: 3 }, origin: 'topLeft' },
  { name: say('Roll 500, 1 m'), widthMm: 500, heightMm: 1000, marginMm: { left: 10, top: 5, right: 10, bottom: 5 }, origin: 'bottomLeft' },
  { name: say('A4 sheet'), widthMm: 210, heightMm: 297, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
  { name: say('Letter sheet'), widthMm: 215.9, heightMm: 279.4, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' },
];
