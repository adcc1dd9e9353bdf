import { z } from 'zod';
import { withAlpha } from '../../raster/art.ts';
import { within } from '../../task/task.ts';
import { noiseLevel } from '../noiseLevel.ts';
import { sigmaFilter } from '../sigmaFilter.ts';
import { stepBase, type StepKind } from './step.ts';

export const smoothingSchema = z.strictObject({
  kind: z.literal('smoothing'),
  ...stepBase,
  /** Differences up to this many levels of 255 are smoothed away; larger ones are edges and stay. */
  strength: z.number().min(1).max(100),
});
export type SmoothingStep = z.infer<typeof smoothingSchema>;

/** Two passes with a small reach keep edges better than one with a large one. */
const PASSES = 2;

export const smoothing: StepKind<SmoothingStep> = {
  about: 'Smooths noise and compression marks and keeps the edges.',
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const before = noiseLevel(art.colour);
    let colour = art.colour;
    for (let pass = 0; pass < PASSES; pass++) colour = yield* within(sigmaFilter(colour, 2, step.strength), pass / PASSES, (pass + 1) / PASSES);
    return { art: withAlpha(art, art.alpha, colour), facts: { noiseBefore: round(before), noiseAfter: round(noiseLevel(colour)) } };
  },
};

const round = (value: number): number => Math.round(value * 10) / 10;
