import { z } from 'zod';
import { findsInPicture, placesInArt } from '../finds.ts';
import { mendGaps } from '../mendGaps.ts';
import { sparedSchema, stepBase, type StepKind } from './step.ts';

export const gapMendingSchema = z.strictObject({
  kind: z.literal('gapMending'),
  ...stepBase,
  /** Widest break that is closed, picture pixels between the ink on both sides. */
  widestPx: z.number().min(1).max(500),
  spared: sparedSchema,
});
export type GapMendingStep = z.infer<typeof gapMendingSchema>;

export const gapMending: StepKind<GapMendingStep> = {
  about: 'Closes breaks in drawn lines, in their own direction and width.',
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const { art: mended, joints, finds } = yield* mendGaps(art, step.widestPx * art.frame.scale, placesInArt(art.frame, step.spared ?? []));
    return { art: mended, facts: { joints: joints.length }, finds: findsInPicture(art.frame, finds) };
  },
};
