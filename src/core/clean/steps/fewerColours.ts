import { z } from 'zod';
import { fewerColours as reduce } from '../fewerColours.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const fewerColoursSchema = z.strictObject({
  kind: z.literal('fewerColours'),
  ...stepBase,
  /** Real tones that stay, the background counted; `auto` counts them itself. */
  tones: z.union([z.literal('auto'), z.number().int().min(2).max(32)]),
});
export type FewerColoursStep = z.infer<typeof fewerColoursSchema>;

export const fewerColours: StepKind<FewerColoursStep> = {
  about: say('Brings the art to its few real tones; edges stay as sharp and as smooth as they came.'),
  revision: 5,
  readsSize: false,
  *run(art, step) {
    const { art: reduced, tones } = yield* reduce(art, step.tones);
    return { art: reduced, facts: { tones: tones.length } };
  },
};
