import type { Finding } from '../check/cutCheck.ts';
import type { Recipe, Step } from '../clean/recipe.ts';

/** A little more than a size, mm²: what is just as large goes too. */
const justAbove = (sizeMm2: number): number => Math.ceil((sizeMm2 * 1.02 + 0.005) * 100) / 100;

/** How the recipe can mend what the cut check found; nothing where only the design or the size can. */
export function mendOf(kind: Finding['kind']): 'sweep' | 'edgeTidying' | undefined {
  if (kind === 'smallPiece' || kind === 'smallHole') return 'sweep';
  return kind === 'jagged' ? 'edgeTidying' : undefined;
}

/**
 * The recipe with a finding mended: its last sweep or edge tidying reaches as far as the finding is large, or a new one at the end does.
 * @param pxPerMm picture pixels on a mm at the finished size. @param newId id of a step that is added.
 */
export function withMend(recipe: Recipe, finding: Finding, pxPerMm: number, newId: string): Step[] {
  const kind = mendOf(finding.kind);
  if (kind === undefined) return [...recipe];
  const at = recipe.findLastIndex((step) => step.kind === kind && step.enabled);
  const last = recipe[at];
  const areaMm2 = justAbove(finding.size);
  let next: Step;
  if (kind === 'edgeTidying') {
    const amountPx = Math.max(0.5, Math.min(20, Math.ceil(finding.size * pxPerMm * 10) / 10));
    next = last?.kind === 'edgeTidying' ? { ...last, amountPx: Math.max(last.amountPx, amountPx) } : { kind, id: newId, enabled: true, v: 1, amountPx };
  } else {
    const sweep = last?.kind === 'sweep' ? last : { kind, id: newId, enabled: true, v: 1 as const, speckMm2: 0, pinholeMm2: 0 };
    next =
      finding.kind === 'smallPiece' ? { ...sweep, speckMm2: Math.max(sweep.speckMm2, areaMm2) } : { ...sweep, pinholeMm2: Math.max(sweep.pinholeMm2, areaMm2) };
  }
  return at < 0 ? [...recipe, next] : recipe.map((step, k) => (k === at ? next : step));
}
