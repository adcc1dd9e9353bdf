import { z } from 'zod';
import { artResolution } from '../finishedSize.ts';
import { isOpaque } from '../../raster/art.ts';
import { within } from '../../task/task.ts';
import { sweepSpecks } from '../sweepSpecks.ts';
import { sweepTones } from '../sweepTones.ts';
import { stepBase, type StepKind } from './step.ts';

export const sweepSchema = z.strictObject({
  kind: z.literal('sweep'),
  ...stepBase,
  /** Bits of art smaller than this at the finished size are cleared. */
  speckMm2: z.number().min(0).max(10_000),
  /** Clear holes smaller than this at the finished size are filled. */
  pinholeMm2: z.number().min(0).max(10_000),
});
export type SweepStep = z.infer<typeof sweepSchema>;

export const sweep: StepKind<SweepStep> = {
  about: 'Removes specks and fills pinholes below a size.',
  revision: 2,
  readsSize: true,
  *run(art, step, context) {
    const perMm2 = artResolution(art, context.finished) ** 2;
    yield 0.1;
    if (isOpaque(art.alpha)) {
      const { art: swept, specks } = yield* within(sweepTones(art, Math.max(step.speckMm2, step.pinholeMm2) * perMm2), 0.1, 1);
      return { art: swept, facts: { specks, pinholes: 0 } };
    }
    const { art: swept, specks, pinholes } = sweepSpecks(art, step.speckMm2 * perMm2, step.pinholeMm2 * perMm2);
    return { art: swept, facts: { specks, pinholes } };
  },
};
