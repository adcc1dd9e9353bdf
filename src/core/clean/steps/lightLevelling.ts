import { z } from 'zod';
import { levelLight } from '../levelLight.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const lightLevellingSchema = z.strictObject({
  kind: z.literal('lightLevelling'),
  ...stepBase,
  /** 0 does nothing, 1 makes the paper plain white everywhere. */
  strength: z.number().min(0).max(1),
});
export type LightLevellingStep = z.infer<typeof lightLevellingSchema>;

export const lightLevelling: StepKind<LightLevellingStep> = {
  about: say('Takes shadow, uneven light and paper tone out of a scan or photo.'),
  revision: 2,
  readsSize: false,
  *run(art, step) {
    const { art: levelled, fallOffPercent } = yield* levelLight(art, step.strength);
    return { art: levelled, facts: { fallOffPercent } };
  },
};
