import { describe, expect, it } from 'vitest';
import type { StepReport } from '../../core/run/applyRecipe.ts';
import type { Step } from '../../core/clean/recipe.ts';
import { stepWords } from './stepWords.ts';

const lift = (strokes: number): Step => ({ kind: 'subjectLift', id: 'lift', enabled: true, v: 1, strokes: Array.from({ length: strokes }, () => ({ says: 'keep', radiusPx: 5, points: [1, 1, 9, 9] })) }) as unknown as Step;
const report = (facts: Record<string, number>): StepReport => ({ id: 'lift', facts }) as unknown as StepReport;

describe('what a subject lift says', () => {
  it('is how much it lifted, or that it is not sure, until strokes have said what the subject is', () => {
    expect(stepWords(lift(0), report({ liftedPercent: 40, unsure: 0 }))).toBe('40 % of the picture lifted');
    expect(stepWords(lift(0), report({ liftedPercent: 40, unsure: 1 }))).toBe('not sure what the subject is: brush over it');
    expect(stepWords(lift(2), report({ liftedPercent: 55, unsure: 1 }))).toBe('55 % of the picture lifted, 2 strokes');
  });
});
