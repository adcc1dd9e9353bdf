import { z } from 'zod';

/** Kinds of files that a job can leave as; each names what its files' names end in. */
export const FILE_KINDS = ['svg', 'dxf', 'dxf-r12', 'pdf', 'hpgl', 'png'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

/** How plotter language is written. */
export const plotterSchema = z.strictObject({
  /** Steps of a thousandth of a mm, by scaling; a fortieth when absent, which every machine knows. */
  fine: z.boolean().optional(),
  relative: z.boolean().optional(),
  /** Tool, speed and force of the film's material are told in the file; set at the machine when absent. */
  tells: z.boolean().optional(),
  /** Passes, overcut and blade offset of the film's material are in the path; the machine sees to them when absent. */
  compensated: z.boolean().optional(),
});
export type PlotterChoices = z.infer<typeof plotterSchema>;

export const handOffSchema = z.strictObject({
  cutAs: z.enum(['lines', 'shapes']),
  /** Files that are saved together; cut lines as SVG when absent. */
  files: z.array(z.enum(FILE_KINDS)).max(FILE_KINDS.length).optional(),
  /** What the names of files begin with: words and slots such as {job}; the job's name when absent. */
  nameAs: z.string().trim().min(1).max(120).optional(),
  plotter: plotterSchema.optional(),
});
export type HandOff = z.infer<typeof handOffSchema>;

/** Files that are saved when nothing was chosen: of what is cut, and of what is printed. */
export const USUAL_FILES: readonly FileKind[] = ['svg'];
export const PRINTED_FILES: readonly FileKind[] = ['pdf'];
