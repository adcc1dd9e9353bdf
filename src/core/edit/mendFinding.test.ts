import { describe, expect, it } from 'vitest';
import type { Finding } from '../check/cutCheck.ts';
import { mendOf, withMend } from './mendFinding.ts';
import type { Recipe } from '../clean/recipe.ts';

const finding = (kind: Finding['kind'], size: number): Finding => ({ kind, size, xMm: 1, yMm: 1 });
const SWEEP: Recipe = [{ kind: 'sweep', id: 's', enabled: true, v: 1, speckMm2: 0.5, pinholeMm2: 0.5 }];

describe('mending a finding by the recipe', () => {
  it('adds a sweep that is just large enough, or raises the one there is', () => {
    expect(withMend([], finding('smallPiece', 1), 4, 'new')).toEqual([{ kind: 'sweep', id: 'new', enabled: true, v: 1, speckMm2: 1.03, pinholeMm2: 0 }]);
    expect(withMend(SWEEP, finding('smallHole', 2), 4, 'new')).toEqual([{ ...SWEEP[0], pinholeMm2: 2.05 }]);
    expect(withMend(SWEEP, finding('smallPiece', 0.1), 4, 'new')).toEqual(SWEEP);
    const off: Recipe = [{ ...SWEEP[0], enabled: false }];
    expect(withMend(off, finding('smallPiece', 1), 4, 'new').map(({ id }) => id)).toEqual(['s', 'new']);
  });

  it('tidies jagged edges by as much as their teeth stand out, within what a step takes', () => {
    expect(withMend([], finding('jagged', 0.5), 4, 'new')).toMatchObject([{ kind: 'edgeTidying', amountPx: 2 }]);
    expect(withMend([], finding('jagged', 90), 4, 'new')).toMatchObject([{ amountPx: 20 }]);
  });

  it('leaves alone what it cannot mend', () => {
    expect((['thin', 'island', 'coarsePicture'] as const).map(mendOf)).toEqual([undefined, undefined, undefined]);
    expect(withMend(SWEEP, finding('thin', 0.2), 4, 'new')).toEqual(SWEEP);
  });
});
