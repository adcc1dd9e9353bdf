import { z } from 'zod';
import { rgbFromHex } from '../../colour/hex.ts';
import { nearTo } from '../liftMask.ts';
import { clearHard, clearLifted } from '../softenLift.ts';
import { within } from '../../task/task.ts';
import { MAX_TOLERANCE } from './areaLift.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const colourLiftSchema = z.strictObject({
  kind: z.literal('colourLift'),
  ...stepBase,
  colour: z.string().regex(/^#[0-9a-f]{6}$/),
  tolerance: z.number().min(0).max(MAX_TOLERANCE),
  soft: z.boolean(),
});
export type ColourLiftStep = z.infer<typeof colourLiftSchema>;

export const colourLift: StepKind<ColourLiftStep> = {
  about: say('Takes one colour out wherever it is.'),
  revision: 4,
  readsSize: false,
  *run(art, step) {
    const colour = rgbFromHex(step.colour);
    if (colour === undefined) throw new RangeError(`not a colour: ${step.colour}`);
    const mask = yield* within(nearTo(art, colour, step.tolerance), 0, 0.3);
    let areaPx2 = 0;
    for (let i = 0; i < mask.length; i++) areaPx2 += mask[i];
    return { art: yield* within(step.soft ? clearLifted(art, { lifted: mask, ground: colour, everywhere: true }) : clearHard(art, mask), 0.3, 1), facts: { areaPx2 } };
  },
};
