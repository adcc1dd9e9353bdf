import { z } from 'zod';
import { AppError } from '../../errors/appError.ts';
import { withAlpha } from '../../raster/art.ts';
import { applyLevels, fullContrast } from '../levels.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const levelsSchema = z.strictObject({
  kind: z.literal('levels'),
  ...stepBase,
  /** Lightness that becomes black and the one that becomes white; `auto` finds both, so that a pale drawing comes out black. */
  points: z.union([
    z.literal('auto'),
    z
      .strictObject({ black: z.number().min(0).max(254), white: z.number().min(1).max(255) })
      .refine(({ black, white }) => black < white, say('black must lie below white')),
  ]),
  gamma: z.number().min(0.1).max(10),
  /** −1 to 1: half the range darker or lighter. */
  brightness: z.number().min(-1).max(1).optional(),
  /** −1 (all grey) to 1 (two tones). */
  contrast: z.number().min(-1).max(1).optional(),
  saturation: z.number().min(0).max(3),
  invert: z.boolean(),
});
export type LevelsStep = z.infer<typeof levelsSchema>;

export const levels: StepKind<LevelsStep> = {
  about: say('Black and white point, brightness, contrast, colour, inversion.'),
  revision: 2,
  readsSize: false,
  *run(art, { points, gamma, brightness, contrast, saturation, invert }) {
    const found = points === 'auto' ? fullContrast(art.colour) : points;
    if (found === undefined) throw new AppError('oneColour');
    yield 0.3;
    return { art: withAlpha(art, art.alpha, applyLevels(art.colour, { ...found, gamma, brightness, contrast, saturation, invert })), facts: { ...found } };
  },
};
