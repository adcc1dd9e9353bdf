import { z } from 'zod';
import { tidyEdges } from '../tidyEdges.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const MAX_TIDY_PX = 20;

export const edgeTidyingSchema = z.strictObject({
  kind: z.literal('edgeTidying'),
  ...stepBase,
  /** Height of the jags that go, picture px. */
  amountPx: z.number().min(0.5).max(MAX_TIDY_PX),
});
export type EdgeTidyingStep = z.infer<typeof edgeTidyingSchema>;

export const edgeTidying: StepKind<EdgeTidyingStep> = {
  about: say('Smooths jagged edges of flat art; corners, thin parts and counters stay.'),
  revision: 4,
  readsSize: false,
  *run(art, step) {
    const { art: tidy, movedPx2 } = yield* tidyEdges(art, Math.max(0.3, step.amountPx * art.frame.scale));
    return { art: tidy, facts: { movedPx2 } };
  },
};
