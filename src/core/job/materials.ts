import { z } from 'zod';
import { filmId, MAX_FILMS } from '../film/film.ts';
import { materialSchema, usualMaterial, type Material } from '../process/material.ts';
import type { Process } from '../process/processes.ts';

/** What the films of a job are made of, as it was on the shelf when it was chosen. */
export const materialsSchema = z.strictObject({
  /** Of all films that are not named below. */
  usual: materialSchema.optional(),
  /** Of single films. */
  ofFilms: z.array(z.strictObject({ film: filmId, material: materialSchema })).max(MAX_FILMS).optional(),
});
export type Materials = z.infer<typeof materialsSchema>;

interface Made {
  readonly process: Process;
  readonly materials?: Materials | undefined;
}

/** What a film of a job is made of. A material of another process than the job's by now is passed over. */
export function materialOf({ process, materials }: Made, film?: string): Material {
  const own = film === undefined ? undefined : materials?.ofFilms?.find((each) => each.film === film)?.material;
  return [own, materials?.usual].find((each) => each?.process === process) ?? usualMaterial(process);
}
