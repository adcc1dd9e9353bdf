import { z } from 'zod';

/** The size at which something is cut: one side of its box as it lies, the other follows. */
export const finishedSizeSchema = z.strictObject({
  by: z.enum(['width', 'height']),
  sizeMm: z.number().min(1).max(10_000),
  /** Clockwise on screen, before the side is measured. */
  turnDeg: z.number().min(-360).max(360),
});
export type FinishedSize = z.infer<typeof finishedSizeSchema>;
