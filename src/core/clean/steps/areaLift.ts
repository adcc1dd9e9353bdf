import { z } from 'zod';
import { artXFromPicture, artYFromPicture } from '../../raster/art.ts';
import { findsInPicture, placesInArt } from '../finds.ts';
import { liftAt } from '../liftAt.ts';
import { pointSchema, sparedSchema, stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

/** Largest tolerance that a lift tells apart, in perceptual difference. */
export const MAX_TOLERANCE = 25;
export const toleranceSchema = z.union([z.literal('auto'), z.number().min(0).max(MAX_TOLERANCE)]);

export const MAX_GUARD_PX = 500;

export const areaLiftSchema = z.strictObject({
  kind: z.literal('areaLift'),
  ...stepBase,
  /** Where the lift starts, in picture pixels. */
  at: pointSchema,
  /** Largest perceptual difference from the colour at that point; auto finds the first that holds. */
  tolerance: toleranceSchema,
  /** Also lift every closed-off area of the same colour. */
  enclosed: z.boolean(),
  /** Closed-off areas that stay. */
  spared: sparedSchema,
  /** Mixed pixels along the edge keep their share and lose the ground's tint. */
  soft: z.boolean(),
  /** Gaps in an outline narrower than this do not let the lift through, picture px; absent for no guard. */
  guardPx: z.number().min(0).max(MAX_GUARD_PX).optional(),
});
export type AreaLiftStep = z.infer<typeof areaLiftSchema>;

export const areaLift: StepKind<AreaLiftStep> = {
  about: say('Takes out the area of one colour that is connected to a point.'),
  revision: 8,
  readsSize: false,
  *run(art, step) {
    const x = Math.floor(artXFromPicture(art.frame, step.at.xPx));
    const y = Math.floor(artYFromPicture(art.frame, step.at.yPx));
    if (x < 0 || y < 0 || x >= art.width || y >= art.height || art.alpha[y * art.width + x] === 0) return { art, facts: { areaPx2: 0, offArt: 1 } };
    const lift = yield* liftAt(art, x, y, {
      tolerance: step.tolerance,
      everywhere: false,
      enclosed: step.enclosed,
      spared: placesInArt(art.frame, step.spared ?? []),
      soft: step.soft,
      guardPx: (step.guardPx ?? 0) * art.frame.scale,
    });
    const { tolerance, areaPx2, finds, found } = lift;
    const holds = found === undefined ? {} : { holdsFrom: found.holdsFrom, holdsTo: found.holdsTo };
    const enclosed = finds.filter((find) => !find.spared).length;
    return { art: lift.art, facts: { tolerance, areaPx2, enclosed, ...holds, ...(lift.inSquares === true ? { inSquares: 1 } : {}) }, finds: findsInPicture(art.frame, finds) };
  },
};
