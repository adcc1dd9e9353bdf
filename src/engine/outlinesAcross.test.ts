import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holdOutlines } from '../core/edit/paletteEdits.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import { tracedPart, withPart } from '../core/job/tracedPart.ts';
import { KnownOutlines, SentOutlines, type Crossing } from './outlinesAcross.ts';

const bare = newJob('Pennants');

/** A job with outlines held by hand, one a film, of so many nodes each. */
const holding = (...nodes: readonly number[]): Job =>
  withPart(bare, holdOutlines(tracedPart(bare), nodes.map((count, k) => ({ film: `film-${k}`, from: 'mark', path: `M0 0${`L${count}.5 7`.repeat(count)}Z` }))));

describe('long outlines on their way to the worker', () => {
  it('cross once, and are named after that', () => {
    const [sent, known] = [new SentOutlines(), new KnownOutlines()];
    const sizes = [holding(4000, 5000), holding(4000, 5000), holding(4000, 6000), holding(4000, 6000)].map((job) => {
      const across = structuredClone(sent.leaving({ job }));
      expect(known.arrived(across)).toEqual({ job });
      return JSON.stringify(across).length;
    });
    expect([sizes[0] > 60_000, sizes[1] < 6000, sizes[2] > 40_000 && sizes[2] < 55_000, sizes[3] < 6000]).toEqual([true, true, true, true]);
  });

  it('stay in a job that has short ones alone, and the same text twice is one', () => {
    const sent = new SentOutlines();
    expect(sent.leaving({ job: holding(9) })).toEqual({ job: holding(9), forget: [] });
    const twice = holding(4000, 4000);
    expect(JSON.stringify(sent.leaving({ job: twice })).length).toBeLessThan(JSON.stringify(twice).length * 0.6);
  });

  it('are forgotten on both sides when they become too many, and cross anew', () => {
    const [sent, known] = [new SentOutlines(), new KnownOutlines()];
    const jobs = [1, 2, 3, 4].map((k) => holding(2_500_000 + k, 5000));
    let forgotten = 0;
    for (const job of [...jobs, ...jobs]) {
      const across = sent.leaving({ job }) as Crossing;
      forgotten += across.forget.length;
      expect(known.arrived(across)).toEqual({ job });
    }
    expect(forgotten).toBeGreaterThan(4);
  });

  it('come whole in any order of jobs', () => {
    fc.assert(
      fc.property(fc.array(fc.array(fc.integer({ min: 2000, max: 2004 }), { maxLength: 4 }), { maxLength: 12 }), (jobs) => {
        const [sent, known] = [new SentOutlines(), new KnownOutlines()];
        for (const nodes of jobs) expect(known.arrived(sent.leaving({ job: holding(...nodes) }))).toEqual({ job: holding(...nodes) });
      }),
      { seed: 18, numRuns: 30 },
    );
  });

  it('leave all other arguments alone', () => {
    for (const value of [undefined, 7, new Uint8Array(2), { side: 3 }]) expect(new KnownOutlines().arrived(new SentOutlines().leaving(value))).toBe(value);
  });

  it('are told of when one is named that never came', () => {
    const sent = new SentOutlines();
    sent.leaving({ job: holding(4000) });
    expect(() => new KnownOutlines().arrived(sent.leaving({ job: holding(4000) }))).toThrow(RangeError);
  });
});
