import { z } from 'zod';
import { pickLines } from '../pickLines.ts';
import { stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const linePickSchema = z.strictObject({
  kind: z.literal('linePick'),
  ...stepBase,
  /** 0 keeps only strong ink, 1 also faint lines. */
  detail: z.number().min(0).max(1),
  /** Below what lightness ink is: found for each neighbourhood (also when absent), once for the picture, or given. */
  threshold: z.union([z.literal('local'), z.literal('found'), z.number().min(0).max(255)]).optional(),
});
export type LinePickStep = z.infer<typeof linePickSchema>;

export const linePick: StepKind<LinePickStep> = {
  about: say('Keeps ink and drops pencil, watermarks and paper by its contrast.'),
  revision: 2,
  readsSize: false,
  *run(art, step) {
    const { art: picked, inkShare } = yield* pickLines(art, step.detail, step.threshold);
    return { art: picked, facts: { inkPercent: Math.round(inkShare * 1000) / 10 } };
  },
};
