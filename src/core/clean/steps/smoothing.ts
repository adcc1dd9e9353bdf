import { z } from 'zod';
import { withAlpha } from '../../raster/art.ts';
import { noiseLevel } from '../noiseLevel.ts';
import { smoothArt } from '../smoothArt.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const smoothingSchema = z.strictObject({
  kind: z.literal('smoothing'),
  ...stepBase,
  /** Differences up to this many levels of 255 are smoothed away; larger ones are edges and stay. */
  strength: z.number().min(1).max(100),
});
export type SmoothingStep = z.infer<typeof smoothingSchema>;

export const smoothing: StepKind<SmoothingStep> = {
  about: say('Smooths noise and compression marks and keeps the edges.'),
  revision: 2,
  readsSize: false,
  *run(art, step) {
    const before = noiseLevel(art.colour);
    const colour = yield* smoothArt(art, step.strength);
    return { art: withAlpha(art, art.alpha, colour), facts: { noiseBefore: round(before), noiseAfter: round(noiseLevel(colour)) } };
  },
};

const round = (value: number): number => Math.round(value * 10) / 10;
