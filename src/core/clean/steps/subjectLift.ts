import { z } from 'zod';
import { liftSubject } from '../subject/liftSubject.ts';
import { placedStroke, strokeSchema } from './strokes.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const MAX_RIM_PX = 300;

/** A stroke over, or with `lasso` around, what belongs to the subject or does not; one that teaches says so of its colours everywhere. */
export const subjectStrokeSchema = strokeSchema.extend({ says: z.enum(['keep', 'clear']), lasso: z.boolean().optional(), teaches: z.boolean().optional() });

export const subjectLiftSchema = z.strictObject({
  kind: z.literal('subjectLift'),
  ...stepBase,
  /** Strokes that correct what was found, in picture pixels; where two cross, the later one counts. */
  strokes: z.array(subjectStrokeSchema).max(2000),
  /** Hair, fur and blur reach so far to both sides of the border, picture px; absent for a border as sharp as the picture. */
  rimPx: z.number().min(0).max(MAX_RIM_PX).optional(),
  /** Only the largest part that hangs together, and parts that a stroke keeps. */
  largest: z.boolean().optional(),
});
export type SubjectLiftStep = z.infer<typeof subjectLiftSchema>;

export const subjectLift: StepKind<SubjectLiftStep> = {
  about: say('Finds the subject and takes out everything else; strokes correct it.'),
  revision: 8,
  readsSize: false,
  *run(art, step) {
    const strokes = step.strokes.map((stroke) => ({
      says: stroke.says,
      lasso: stroke.lasso === true,
      teaches: stroke.teaches === true,
      ...placedStroke(art.frame, stroke),
    }));
    const lift = yield* liftSubject(art, strokes, { rimPx: (step.rimPx ?? 0) * art.frame.scale, largest: step.largest === true });
    return {
      art: lift.art,
      facts: {
        areaPx2: lift.areaPx2,
        liftedPercent: Math.round((100 * lift.areaPx2) / art.alpha.length),
        strokes: strokes.length,
        unsure: lift.isSure ? 0 : 1,
      },
    };
  },
};
