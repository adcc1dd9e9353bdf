import { z } from 'zod';
import { turnArt } from '../../raster/turn.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const MAX_STRAIGHTEN_DEG = 45;

export const turnSchema = z.strictObject({
  kind: z.literal('turn'),
  ...stepBase,
  /** Left and right changed over, before it is turned. */
  mirrored: z.boolean(),
  /** Quarter turns clockwise. */
  quarters: z.union([z.literal(0), z.literal(1), z.literal(2), z.literal(3)]),
  /** Straightened by so many degrees clockwise. */
  angleDeg: z.number().min(-MAX_STRAIGHTEN_DEG).max(MAX_STRAIGHTEN_DEG),
});
export type TurnStep = z.infer<typeof turnSchema>;

export const turn: StepKind<TurnStep> = {
  about: say('Turns the picture by quarters, straightens it or mirrors the art itself.'),
  revision: 2,
  readsSize: false,
  isBase: true,
  *run(art, step) {
    const { scale } = art.frame;
    const facts = { fromWidthPx: Math.round(art.width / scale), fromHeightPx: Math.round(art.height / scale) };
    return { art: yield* turnArt(art, step), facts };
  },
};
