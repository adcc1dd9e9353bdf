import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { tracedPart, type TracedPart } from './tracedPart.ts';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { isAppError } from '../errors/appError.ts';
import type { Separation } from '../separate/separation.ts';
import { newJob } from './newJob.ts';
import { readJob, readRecipe } from './readJob.ts';
import { recipeSchema, type Step } from '../clean/recipe.ts';

const base = { id: 'a', enabled: true, v: 1 } as const;
const STEPS: readonly Step[] = [
  {
    kind: 'squaring',
    ...base,
    marks: {
      by: 'corners',
      corners: [
        { xPx: 1, yPx: 2 },
        { xPx: 9, yPx: 2 },
        { xPx: 9, yPx: 8 },
        { xPx: 1, yPx: 8 },
      ],
      widthMm: 80,
    },
    levelLight: true,
  },
  { kind: 'turn', ...base, mirrored: true, quarters: 1, angleDeg: -2.5 },
  { kind: 'crop', ...base, rect: { xPx: 1, yPx: 2, widthPx: 30, heightPx: 40 } },
  { kind: 'enlarging', ...base, times: 4 },
  { kind: 'edgeTidying', ...base, amountPx: 2 },
  { kind: 'levels', ...base, points: { black: 10, white: 240 }, gamma: 1.2, saturation: 0, invert: true },
  { kind: 'lightLevelling', ...base, strength: 0.5 },
  { kind: 'smoothing', ...base, strength: 20 },
  { kind: 'fewerColours', ...base, tones: 4 },
  { kind: 'gapMending', ...base, widestPx: 9 },
  { kind: 'linePick', ...base, detail: 0.3 },
  { kind: 'subjectLift', ...base, strokes: [{ says: 'keep', radiusPx: 3, points: [1, 2, 3, 4] }] },
  { kind: 'areaLift', ...base, at: { xPx: 5, yPx: 6 }, tolerance: 'auto', enclosed: true, soft: true },
  { kind: 'colourLift', ...base, colour: '#ffffff', tolerance: 4, soft: false },
  { kind: 'rubOut', ...base, strokes: [{ radiusPx: 3, points: [1, 2, 3, 4] }] },
  { kind: 'bringBack', ...base, strokes: [] },
  { kind: 'sweep', ...base, speckMm2: 1, pinholeMm2: 0 },
];

describe('reading jobs and recipes from outside', () => {
  it('gives back every kind of step as it was written', () => {
    const job = jobWith(newJob('All steps'), { recipe: [...STEPS] });
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    expect(readRecipe(JSON.parse(JSON.stringify(STEPS)))).toEqual(STEPS);
    expect(readRecipe(JSON.parse(JSON.stringify(job)))).toEqual(STEPS);
  });

  it('ends with its own error on any value at all', () => {
    fc.assert(
      fc.property(fc.anything(), (value) => {
        if (Array.isArray(value) && value.length === 0) return;
        expect(['badJob', 'badRecipe', 'newerVersion', 'unknownStep']).toContain(codeOf(() => readRecipe(value)));
        expect(codeOf(() => readJob(value))).toBe('badJob');
      }),
      { seed: 71, numRuns: 400 },
    );
  });

  it('takes a step with one field changed to anything only when the schema does, and never half of it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...STEPS), fc.nat(), fc.anything(), (step, pick, value) => {
        const fields = Object.keys(step);
        const changed = { ...step, [fields[pick % fields.length]]: value };
        const outcome = codeOf(() => readRecipe([...STEPS, changed]));
        if (recipeSchema.safeParse([...STEPS, changed]).success) expect(outcome).toBe('fine');
        else expect(['badRecipe', 'newerVersion', 'unknownStep']).toContain(outcome);
        expect(codeOf(() => readRecipe([{ ...step, somethingMore: 1 }]))).toBe('badRecipe');
      }),
      { seed: 72, numRuns: 400 },
    );
  });

  it('says which field is wrong, and when it was written by a newer version', () => {
    try {
      readRecipe([{ ...STEPS.find(({ kind }) => kind === 'levels'), points: { black: 200, white: 100 } }], 'pale.json');
      expect.unreachable();
    } catch (error) {
      expect(isAppError(error) && error.details).toMatchObject({
        file: 'pale.json',
        reason: '“entry 1, points” is not as it should be: black must lie below white',
      });
    }
    expect(codeOf(() => readJob({ ...newJob('x'), version: 99 }))).toBe('newerVersion');
    expect(codeOf(() => readRecipe({ ...newJob('x'), version: 99 }))).toBe('newerVersion');
    expect(codeOf(() => readRecipe([{ ...STEPS[0], v: 2, blend: 'soft' }]))).toBe('newerVersion');
    expect(codeOf(() => readRecipe([STEPS[0], { kind: 'steaming', id: 'a', enabled: true, v: 1 }]))).toBe('unknownStep');
  });

  it('gives back every way of separating with all that can be set', () => {
    const pairs = [{ films: ['a', 'b'] as [string, string], meet: 'middle' as const, reachMm: 1 }];
    const ways: Separation[] = [
      { way: 'oneTone', source: 'notClear', threshold: 12, inkIs: 'light' },
      {
        way: 'flat',
        count: 'auto',
        meet: 'middle',
        keeps: 'darker',
        pairs,
        palette: [{ colour: '#ffffff', film: null }],
        spots: [{ xPx: 1, yPx: 2, film: 'a' }],
      },
      { way: 'tones', count: 3, meet: 'stacked', keeps: 'upper', pairs, steps: [80, 160] },
      { way: 'backDetail', fineness: 35, threshold: 100, back: 'full' },
    ];
    const outline: TracedPart['outline'] = {
      ...tracedPart(newJob('x')).outline,
      smoothPx: 1,
      shapes: false,
      outermost: true,
      around: { widthMm: 2, openings: 'kept' },
      held: [{ film: 'a', from: 'mark', path: 'M0 0L4 0C5 0 5 1 5 2Z' }],
    };
    for (const separation of ways) {
      const job = jobWith(newJob('All ways'), { separation, outline });
      expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    }
  });

  it('refuses a separation or an outline with one field out of its range', () => {
    const wrong: object[] = [
      { separation: { way: 'backDetail', fineness: 101, threshold: 'auto', back: 'open' } },
      { separation: { way: 'flat', count: 33, meet: 'stacked' } },
      { separation: { way: 'flat', count: 4, meet: 'beside' } },
      { separation: { way: 'tones', count: 3, meet: 'inset', pairs: [{ films: ['a'], meet: 'inset' }] } },
      { outline: { ...tracedPart(newJob('x')).outline, around: { widthMm: -1, openings: 'kept' } } },
      { outline: { ...tracedPart(newJob('x')).outline, held: [{ film: 'a', from: '', path: 'M0 0Q1 1 2 2Z' }] } },
      { outline: { ...tracedPart(newJob('x')).outline, smoothPx: 11 } },
    ];
    for (const change of wrong)
      expect(
        codeOf(() => readJob(jobWith(newJob('x'), change))),
        JSON.stringify(change),
      ).toBe('badJob');
  });
});
