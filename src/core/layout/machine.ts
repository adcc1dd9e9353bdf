import { z } from 'zod';
import type { Material } from '../process/material.ts';
import { SHEETS, sheetSchema, type SheetStock } from './sheetStock.ts';
import { say } from '../words/say.ts';

/** A cutter or a printer of the workshop, with what lies in it. */
export const machineSchema = z.strictObject({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1).max(120),
  kind: z.enum(['cutter', 'printer']),
  /** Mat, length of roll, or page that is laid in it, with what it cannot reach and the corner that it counts from. */
  sheet: sheetSchema,
  /** Whether the film runs through it from a roll, as wide as the film is. */
  isRoll: z.boolean().optional(),
  /** Whether it finds printed marks by itself, and cuts along what was printed. */
  readsMarks: z.boolean().optional(),
  /** Fastest way and how quickly it gets there. */
  speedMmS: z.number().min(1).max(5000),
  accelerationMmS2: z.number().min(10).max(100_000),
  /** Down and up again, s. */
  liftS: z.number().min(0).max(10),
  /** Whether it can lay white under the colours. */
  printsWhite: z.boolean().optional(),
});
export type Machine = z.infer<typeof machineSchema>;

const sheet = (name: string): SheetStock => SHEETS.find((each) => each.name === name) as SheetStock;
const cutter = { kind: 'cutter', speedMmS: 400, accelerationMmS2: 4000, liftS: 0.08 } as const;
const printer = { kind: 'printer', speedMmS: 100, accelerationMmS2: 1000, liftS: 0 } as const;

/** What a workshop has before anyone wrote down its own. */
export const USUAL_MACHINES: readonly Machine[] = [
  { ...cutter, id: 'cutter-mat', name: say('Small cutter, long mat'), sheet: sheet(say('Mat 305 × 610')), readsMarks: true },
  { ...cutter, id: 'cutter-mat-square', name: say('Small cutter, square mat'), sheet: sheet(say('Mat 305 × 305')), readsMarks: true },
  { ...cutter, id: 'cutter-roll', name: say('Roll cutter'), speedMmS: 700, accelerationMmS2: 9000, sheet: sheet(say('Roll 500, 1 m')), isRoll: true, readsMarks: true },
  { ...printer, id: 'printer-a4', name: say('Printer, A4'), sheet: sheet(say('A4 sheet')) },
  { ...printer, id: 'printer-letter', name: say('Printer, Letter'), sheet: sheet(say('Letter sheet')) },
];

/** The sheet that lies in a machine when a material is used on it: a roll is as wide as the film comes, anything else stays as it is. */
export function sheetFor(machine: Machine, material: Pick<Material, 'widthMm'>): SheetStock {
  const { sheet: own, isRoll = false } = machine;
  if (!isRoll) return own;
  const { left, right } = own.marginMm;
  const widthMm = Math.min(own.widthMm, material.widthMm);
  // A film narrower than what its rolls are gripped by is no film for this machine: the machine's own sheet is shown then.
  if (widthMm <= left + right) return own;
  return widthMm === own.widthMm ? own : { ...own, name: say`Roll ${Math.round(widthMm)}`, widthMm };
}
