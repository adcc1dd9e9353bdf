import { z } from 'zod';
import { AppError } from '../errors/appError.ts';
import { firstIssue } from '../job/readJob.ts';
import { stockSchema, USUAL_STOCK } from '../film/stock.ts';
import { remnantSchema } from '../layout/remnantSchema.ts';
import { machineSchema, USUAL_MACHINES } from '../layout/machine.ts';
import { blankSchema, BLANKS } from '../process/blanks.ts';
import { materialSchema, USUAL_MATERIALS } from '../process/material.ts';
import { processSchema } from '../process/processes.ts';
import { say } from '../words/say.ts';

/** A blank on the shelf: what it is usually decorated by, and how large. */
export const blankChoiceSchema = z.strictObject({ blank: blankSchema, process: processSchema, widthMm: z.number().min(1).max(10_000) });

/** A remnant on the shelf: of a film by its name, which jobs give ids of their own. */
export const shelfRemnantSchema = remnantSchema.extend({ id: z.string().min(1).max(60), film: z.string().trim().min(1).max(120) });
export type ShelfRemnant = z.infer<typeof shelfRemnantSchema>;

const fields = {
  materials: z.array(materialSchema).max(200),
  machines: z.array(machineSchema).max(60),
  blanks: z.array(blankChoiceSchema).max(400),
  /** What is left of films, by the film's name: none when absent. */
  remnants: z.array(shelfRemnantSchema).max(400).optional(),
};

/** What a workshop has, apart from its films: the same for all jobs. */
export const workshopSchema = z.strictObject(fields);
export type Workshop = z.infer<typeof workshopSchema>;

export const USUAL_WORKSHOP: Workshop = { materials: [...USUAL_MATERIALS], machines: [...USUAL_MACHINES], blanks: BLANKS.map((choice) => ({ ...choice })) };

/** A workshop with its films, as one file: what another shop, or another browser, takes over. */
export const workshopFileSchema = z.strictObject({ format: z.literal('limner-workshop'), version: z.literal(1), films: stockSchema, ...fields });
export type WorkshopFile = z.infer<typeof workshopFileSchema>;

export const USUAL_WORKSHOP_FILE: WorkshopFile = { format: 'limner-workshop', version: 1, films: [...USUAL_STOCK], ...USUAL_WORKSHOP };

export const writeWorkshop = (file: WorkshopFile): string => `${JSON.stringify(file, null, 2)}\n`;

/** @throws AppError `badWorkshop` with what is wrong with it. */
export function readWorkshop(text: string, file: string): WorkshopFile {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (cause) {
    throw new AppError('badWorkshop', { file, reason: say('it is not JSON') }, cause);
  }
  const parsed = workshopFileSchema.safeParse(value);
  if (parsed.success) return parsed.data;
  throw new AppError('badWorkshop', { file, reason: firstIssue(parsed.error) });
}
