import { z } from 'zod';
import { pickLines } from '../pickLines.ts';
import { stepBase, type StepKind } from './step.ts';

export const linePickSchema = z.strictObject({
  kind: z.literal('linePick'),
  ...stepBase,
  /** 0 keeps only strong ink, 1 also faint lines. */
  detail: z.number().min(0).max(1),
});
export type LinePickStep = z.infer<typeof linePickSchema>;

export const linePick: StepKind<LinePickStep> = {
  about: 'Keeps ink and drops pencil, watermarks and paper by local contrast.',
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const { art: picked, inkShare } = yield* pickLines(art, step.detail);
    return { art: picked, facts: { inkPercent: Math.round(inkShare * 1000) / 10 } };
  },
};
