import { z } from 'zod';
import { mendGaps } from '../mendGaps.ts';
import { stepBase, type StepKind } from './step.ts';

export const gapMendingSchema = z.strictObject({
  kind: z.literal('gapMending'),
  ...stepBase,
  /** Widest break that is closed, picture pixels between the ink on both sides. */
  widestPx: z.number().min(1).max(500),
});
export type GapMendingStep = z.infer<typeof gapMendingSchema>;

export const gapMending: StepKind<GapMendingStep> = {
  about: 'Closes breaks in drawn lines, in their own direction and width.',
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const { art: mended, joints } = yield* mendGaps(art, step.widestPx * art.frame.scale);
    return { art: mended, facts: { joints: joints.length } };
  },
};
