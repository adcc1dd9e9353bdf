import { z } from 'zod';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const enlargingSchema = z.strictObject({ kind: z.literal('enlarging'), ...stepBase, times: z.union([z.literal(2), z.literal(4)]) });
export type EnlargingStep = z.infer<typeof enlargingSchema>;

export const enlarging: StepKind<EnlargingStep> = {
  about: say('Makes small flat art two or four times as large, without steps or blur.'),
  revision: 9,
  readsSize: false,
  *run(art, step, { enlarge }) {
    const large = yield* enlarge(art, step.times);
    return { art: large, facts: { widthPx: large.width, heightPx: large.height } };
  },
};
