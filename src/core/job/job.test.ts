import { describe, expect, it, vi } from 'vitest';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { tracedPart } from './tracedPart.ts';
import fc from 'fast-check';
import { artFromShare, disc, sampled } from '../../../tests/fixtures/shapes.ts';

import { isAppError } from '../errors/appError.ts';
import { finish } from '../task/task.ts';
import { applyRecipe, keepSteps, type CleanResult, type KeptSteps } from '../run/applyRecipe.ts';
import { BLANKS, blankSchema } from '../process/blanks.ts';
import { canonicalJson, hashBytes, hashText } from '../task/hash.ts';
import { JOB_VERSION, jobSchema } from './job.ts';
import { Memo } from '../task/memo.ts';
import { newJob } from './newJob.ts';
import { SHEETS } from '../layout/sheetStock.ts';
import { readJob } from './readJob.ts';
import { recipeSchema, STEP_KINDS, type Step } from '../clean/recipe.ts';
import { stepsBefore, withChanged, withMoved, withoutStep, withStep } from '../edit/recipeEdits.ts';
import { outlinePart } from '../run/outlinePart.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';

const base = { enabled: true, v: 1 } as const;
const lift: Step = { kind: 'areaLift', id: 'lift', ...base, at: { xPx: 2, yPx: 2 }, tolerance: 'auto', enclosed: false, soft: true };
const crop: Step = { kind: 'crop', id: 'crop', ...base, rect: { xPx: 4, yPx: 4, widthPx: 56, heightPx: 52 } };
const sweep: Step = { kind: 'sweep', id: 'sweep', ...base, speckMm2: 2, pinholeMm2: 2 };
const rub: Step = { kind: 'rubOut', id: 'rub', ...base, strokes: [{ radiusPx: 4, points: [20, 20, 40, 24] }] };
const back: Step = { kind: 'bringBack', id: 'back', ...base, strokes: [{ radiusPx: 3, points: [24, 20] }] };
const colour: Step = { kind: 'colourLift', id: 'colour', ...base, colour: '#ffffff', tolerance: 3, soft: false };

const picture = artFromShare(sampled(64, 64, (x, y) => Math.hypot(x - 32, y - 30) < 18 || Math.hypot(x - 56, y - 56) < 1.6));
const finished = { by: 'width', sizeMm: 40, turnDeg: 0 } as const;

function clean(recipe: readonly Step[], kept?: KeptSteps): CleanResult {
  const input = { picture, pictureKey: 'test', recipe, finished };
  return finish(applyRecipe(kept === undefined ? input : { ...input, kept }));
}
const same = (a: CleanResult, b: CleanResult): void => {
  expect(a.key).toBe(b.key);
  expect(a.art.alpha).toEqual(b.art.alpha);
  expect(a.art.colour.data).toEqual(b.art.colour.data);
  expect(a.art.frame).toEqual(b.art.frame);
};

describe('recipe', () => {
  it('gives the same bytes from the memo as from a fresh run, in any order of steps', () => {
    const turned: Step = { kind: 'turn', id: 'turn', ...base, mirrored: false, quarters: 1, angleDeg: 0 };
    const outside: Step = { ...crop, id: 'outside', rect: { xPx: 900, yPx: 0, widthPx: 5, heightPx: 5 } } as Step;
    const order = fc.shuffledSubarray([lift, crop, sweep, rub, back, colour, turned, outside], { minLength: 0, maxLength: 8 });
    // With room for all, and with so little that most is dropped again.
    for (const kept of [keepSteps(1e8), keepSteps(30_000), keepSteps(1e8, 4)]) {
      fc.assert(
        fc.property(order, (recipe) => {
          const [fast, fresh] = [clean(recipe, kept), clean(recipe)];
          same(fast, fresh);
          expect(fast.steps).toEqual(fresh.steps);
          expect(fast.base.key).toBe(fresh.base.key);
        }),
        { seed: 101, numRuns: 18 },
      );
      expect(kept.outcomes.bytes).toBeGreaterThan(0);
    }
  });

  it('recomputes only from the changed step on', () => {
    const kept = keepSteps(1e8);
    clean([crop, lift, rub], kept);
    const before = kept.outcomes.bytes;
    clean([crop, lift, { ...rub, strokes: [{ radiusPx: 9, points: [30, 30] }] } as Step], kept);
    expect(kept.outcomes.bytes - before).toBe(56 * 52);
  });

  it('goes on after the last step that is kept, although earlier ones were dropped', () => {
    // Room for the results of the last step or two only.
    const kept = keepSteps(20_000);
    const recipe = [crop, colour, lift, sweep, rub];
    const whole = clean(recipe, kept);
    const run = vi.spyOn(STEP_KINDS.crop, 'run');
    same(clean([...recipe, back], kept), clean([...recipe, back]));
    // Once: by the fresh run.
    expect(run).toHaveBeenCalledTimes(1);
    expect(clean(recipe, kept).steps).toEqual(whole.steps);
    run.mockRestore();
  });

  it('passes over steps that are off or cannot apply, and says so', () => {
    const outside: Step = { ...crop, id: 'outside', rect: { xPx: 900, yPx: 0, widthPx: 5, heightPx: 5 } } as Step;
    const result = clean([{ ...lift, enabled: false } as Step, outside, rub]);
    expect(result.steps).toEqual([
      { id: 'outside', facts: {}, skipped: 'cropEmpty' },
      { id: 'rub', facts: { strokes: 1 } },
    ]);
    expect(result.art.width).toBe(64);
  });

  it('finds points again after a crop before them', () => {
    const after = clean([crop, { ...lift, at: { xPx: 6, yPx: 6 } } as Step]);
    expect(after.art.alpha[0]).toBe(0);
    expect(after.art.alpha[26 * 56 + 28]).toBe(255);
  });

  it('rubs out and brings back', () => {
    const at = (x: number, y: number, result: CleanResult): number => result.art.alpha[y * 64 + x];
    expect(at(24, 20, clean([rub]))).toBe(0);
    expect(at(24, 20, clean([rub, back]))).toBe(255);
    expect(at(36, 23, clean([rub, back]))).toBe(0);
  });

  it('sweeps by size at the finished size', () => {
    const swept = clean([lift, { ...sweep, speckMm2: 10 } as Step]);
    expect(clean([lift, sweep]).steps[1].facts['specks']).toBe(0);
    expect(swept.steps[1].facts['specks']).toBe(1);
    expect(swept.art.alpha[56 * 64 + 56]).toBe(0);
  });
});

describe('recipe edits', () => {
  const recipe = [crop, lift, sweep];
  it('add, change, move and remove without touching the original', () => {
    expect(withStep(recipe, rub, 'crop').map(({ id }) => id)).toEqual(['crop', 'rub', 'lift', 'sweep']);
    expect(withStep(recipe, rub).at(-1)).toBe(rub);
    expect(withoutStep(recipe, 'lift')).toEqual([crop, sweep]);
    expect(withMoved(recipe, 'crop', 9).map(({ id }) => id)).toEqual(['lift', 'sweep', 'crop']);
    expect(withMoved(recipe, 'sweep', -1).map(({ id }) => id)).toEqual(['crop', 'sweep', 'lift']);
    expect(withChanged<'sweep'>(recipe, 'sweep', { speckMm2: 9 })[2]).toEqual({ ...sweep, speckMm2: 9 });
    expect(stepsBefore(recipe, 'lift')).toEqual([crop]);
    expect(recipe.map(({ id }) => id)).toEqual(['crop', 'lift', 'sweep']);
  });
});

describe('job', () => {
  const code = (value: unknown): string => {
    try {
      readJob(value);
    } catch (error) {
      if (isAppError(error)) return `${error.code}: ${error.details['reason'] ?? ''}`;
      throw error;
    }
    return 'fine';
  };

  it('reads back what it writes', () => {
    const job = jobWith(newJob('Crew crest'), { recipe: [crop, lift, sweep, rub, back, colour] });
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
  });

  it('refuses what is not a job, names the field, and knows a newer version', () => {
    expect(code(7)).toContain('badJob');
    expect(code({ ...newJob('x'), version: JOB_VERSION + 1 })).toContain('newerVersion');
    expect(code({ ...newJob('x'), process: 'magic' })).toContain('process');
    expect(code({ ...newJob('x'), extra: 1 })).toContain('badJob');
    expect(code(jobWith(newJob('x'), { recipe: [{ ...sweep, speckMm2: -1 }] }))).toContain(
      '“objects, entry 1, recipe, entry 1, speckMm2” is too small: the least is 0',
    );
  });

  it('never throws anything but its own error, whatever it is given', () => {
    fc.assert(
      fc.property(fc.anything({ maxDepth: 4 }), (value) => void expect(code(value)).not.toBe('fine')),
      { seed: 102, numRuns: 300 },
    );
    fc.assert(
      fc.property(fc.constantFrom(...Object.keys(newJob('x'))), fc.anything({ maxDepth: 2 }), (key, value) => void code({ ...newJob('x'), [key]: value })),
      { seed: 103, numRuns: 300 },
    );
  });

  it('offers blanks and sheets that are valid themselves', () => {
    for (const { blank } of BLANKS) expect(blankSchema.parse(blank)).toEqual(blank);
    for (const sheet of SHEETS) expect(jobSchema.safeParse({ ...newJob('x'), layout: { ...newJob('x').layout, sheet } }).success).toBe(true);
    expect(recipeSchema.safeParse(new Array(201).fill(sweep)).success).toBe(false);
  });

  it('mirrors by its process, and marks an override', () => {
    expect(mirroringOf({ mirror: 'process' }, 'htv')).toEqual({ mirrored: true, against: false });
    expect(mirroringOf({ mirror: 'process' }, 'decal')).toEqual({ mirrored: false, against: false });
    expect(mirroringOf({ mirror: 'process' }, 'stencil')).toEqual({ mirrored: false, against: false });
    expect(mirroringOf({ mirror: 'never' }, 'htv')).toEqual({ mirrored: false, against: true });
  });

  it('says that there is nothing to cut when every piece is too small', () => {
    const fresh = tracedPart(newJob('x'));
    const part = { ...fresh, outline: { ...fresh.outline, leastPieceMm2: 1000 }, size: { ...fresh.size, sizeMm: 10 } };
    const small = artFromShare(disc(30, 30, 15, 15, 4));
    expect(() => finish(outlinePart(part, small))).toThrow(/nothingToCut/);
  });
});

describe('hash and memo', () => {
  it('tell different content apart and equal content not', () => {
    expect(hashText('boat')).toBe(hashText('boat'));
    expect(hashText('boat')).not.toBe(hashText('boats'));
    expect(hashBytes(new Uint8Array([1, 2]))).not.toBe(hashBytes(new Uint8Array([2, 1])));
    expect(canonicalJson({ b: 1, a: { d: 2, c: [3] } })).toBe(canonicalJson({ a: { c: [3], d: 2 }, b: 1 }));
  });

  it('keep what was used last within their room', () => {
    const memo = new Memo<number>(100);
    memo.set('a', 1, 40);
    memo.set('b', 2, 40);
    memo.get('a');
    memo.set('c', 3, 40);
    expect([memo.get('a'), memo.get('b'), memo.get('c'), memo.bytes]).toEqual([1, undefined, 3, 80]);
    memo.set('c', 4, 500);
    expect(memo.get('c')).toBe(4);
  });
});
