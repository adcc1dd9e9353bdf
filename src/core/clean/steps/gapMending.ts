import { z } from 'zod';
import { findsInPicture, placesInArt, rectInArt } from '../finds.ts';
import { mendGaps } from '../mendGaps.ts';
import { rectSchema, sparedSchema, stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const gapMendingSchema = z.strictObject({
  kind: z.literal('gapMending'),
  ...stepBase,
  /** Widest break that is closed, picture pixels between the ink on both sides. */
  widestPx: z.number().min(1).max(500),
  /** Only breaks inside of it are closed, picture px; everywhere when absent. */
  frame: rectSchema.optional(),
  spared: sparedSchema,
});
export type GapMendingStep = z.infer<typeof gapMendingSchema>;

export const gapMending: StepKind<GapMendingStep> = {
  about: say('Closes breaks in drawn lines, in their own direction and width.'),
  revision: 2,
  readsSize: false,
  *run(art, step) {
    const frame = step.frame === undefined ? undefined : rectInArt(art.frame, step.frame);
    const { art: mended, joints, finds } = yield* mendGaps(art, step.widestPx * art.frame.scale, placesInArt(art.frame, step.spared ?? []), frame);
    return { art: mended, facts: { joints: joints.length }, finds: findsInPicture(art.frame, finds) };
  },
};
