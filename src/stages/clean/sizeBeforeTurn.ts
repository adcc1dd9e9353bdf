import type { StepReport } from '../../core/run/applyRecipe.ts';

/** Size of the picture that reaches a turn, px: told by the turn once it ran, before that the size of what is shown. */
export function sizeBeforeTurn(report: StepReport | undefined, shown: { readonly widthPx: number; readonly heightPx: number } | undefined): { widthPx: number; heightPx: number } {
  const facts = report?.facts ?? {};
  return { widthPx: facts['fromWidthPx'] ?? shown?.widthPx ?? 1, heightPx: facts['fromHeightPx'] ?? shown?.heightPx ?? 1 };
}
