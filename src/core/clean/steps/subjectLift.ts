import { z } from 'zod';
import { liftSubject } from '../subject/liftSubject.ts';
import { placedStroke, strokeSchema } from './strokes.ts';
import { stepBase, type StepKind } from './step.ts';

export const MAX_RIM_PX = 300;

export const subjectLiftSchema = z.strictObject({
  kind: z.literal('subjectLift'),
  ...stepBase,
  /** Strokes that correct what was found, in picture pixels; where two cross, the later one counts. */
  strokes: z.array(strokeSchema.extend({ says: z.enum(['keep', 'clear']) })).max(2000),
  /** Hair, fur and blur reach so far to both sides of the border, picture px; absent for a border as sharp as the picture. */
  rimPx: z.number().min(0).max(MAX_RIM_PX).optional(),
});
export type SubjectLiftStep = z.infer<typeof subjectLiftSchema>;

export const subjectLift: StepKind<SubjectLiftStep> = {
  about: 'Finds the subject and takes out everything else; strokes correct it.',
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const strokes = step.strokes.map((stroke) => ({ says: stroke.says, ...placedStroke(art.frame, stroke) }));
    const lift = yield* liftSubject(art, strokes, (step.rimPx ?? 0) * art.frame.scale);
    return { art: lift.art, facts: { areaPx2: lift.areaPx2, liftedPercent: Math.round((100 * lift.areaPx2) / art.alpha.length), strokes: strokes.length } };
  },
};
