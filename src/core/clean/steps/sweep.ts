import { z } from 'zod';
import { artResolution } from '../finishedSize.ts';
import { within } from '../../task/task.ts';
import { findsInPicture, placesInArt } from '../finds.ts';
import { sweepArt } from '../sweepTones.ts';
import { sparedSchema, stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const sweepSchema = z.strictObject({
  kind: z.literal('sweep'),
  ...stepBase,
  /** Bits of art smaller than this at the finished size are cleared. */
  speckMm2: z.number().min(0).max(10_000),
  /** Clear holes smaller than this at the finished size are filled. */
  pinholeMm2: z.number().min(0).max(10_000),
  spared: sparedSchema,
});
export type SweepStep = z.infer<typeof sweepSchema>;

export const sweep: StepKind<SweepStep> = {
  about: say('Removes specks and fills pinholes below a size.'),
  revision: 8,
  readsSize: true,
  *run(art, step, context) {
    const perMm2 = artResolution(art, context.finished, step.speckMm2) ** 2;
    yield 0.1;
    const {
      art: swept,
      specks,
      pinholes,
      finds,
    } = yield* within(sweepArt(art, step.speckMm2 * perMm2, step.pinholeMm2 * perMm2, placesInArt(art.frame, step.spared ?? [])), 0.1, 1);
    return { art: swept, facts: { specks, pinholes }, finds: findsInPicture(art.frame, finds) };
  },
};
