import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { jobSchema, type Job } from './job.ts';
import { newJob } from './newJob.ts';
import { salvageJob } from './salvageJob.ts';

const crop = { kind: 'crop', id: 'c', enabled: true, v: 1, rect: { xPx: 1, yPx: 2, widthPx: 30, heightPx: 40 } } as const;
const held = { film: 'tone-2', from: 'x', path: 'M0 0L1 0L1 1Z' };
const outline = { followPx: 0.4, cornerDeg: 24, leastPieceMm2: 0.3 };
const whole: Job = { ...jobWith(newJob('Crest'), { recipe: [crop], outline: { ...outline, held: [held] } }), keywords: ['crew'] };

describe('what can be saved of a broken job', () => {
  it('is all of one that is whole', () => {
    expect(salvageJob(whole)).toEqual({ job: whole, lost: [] });
  });

  it('is every part that can be read, told what is not', () => {
    const { job, lost } = salvageJob({
      ...whole,
      version: 'x',
      layout: 7,
      objects: [{ ...whole.objects[0], recipe: [crop, { kind: 'crop' }], outline: { ...outline, held: [held, { film: 'tone-3' }] } }, { kind: 'figure' }],
    });
    expect(job).toEqual({ ...whole, layout: newJob('').layout });
    expect(lost).toEqual(['the lay-out', '1 of 2 steps', '1 of 2 outlines edited by hand', 'a part of the design']);
  });

  it('is always a job', () => {
    const part = fc.constantFrom(...Object.keys(whole));
    fc.assert(
      fc.property(fc.dictionary(part, fc.anything()), fc.anything(), (broken, nothing) => {
        for (const stored of [{ ...whole, ...broken }, broken, nothing]) jobSchema.parse(salvageJob(stored).job);
      }),
      { seed: 3, numRuns: 60 },
    );
  });
});
