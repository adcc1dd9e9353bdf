import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject, TracedObject } from '../job/objects.ts';
import { leanJob, wholeJob } from './leanJob.ts';

const bare = newJob('Pennants', 'htv');
const FILM = bare.films[0].id;

/** A path of so many short lines. */
const zigzag = (nodes: number, at = -1, by = 0): string => `M0 0${Array.from({ length: nodes }, (_, k) => `L${k % 7}.25 ${k + (k === at ? by : 0)}`).join('')}Z`;

/** A job of two traced parts, one of them in a group, each with an outline by hand, or with none, and a drawing. */
function jobHolding(first: string | undefined, second: string | undefined): Job {
  const traced = (id: string, path: string | undefined): DesignObject => {
    const art = bare.objects[0] as TracedObject;
    return { ...art, id, outline: { ...art.outline, ...(path === undefined ? {} : { held: [{ film: FILM, from: 'mark', path }] }) } };
  };
  return { ...bare, objects: [traced('art', first), { kind: 'group', id: 'group', objects: [traced('logo', second)] }, { kind: 'imported', id: 'drawing', fileName: 'oars.svg', paths: [{ film: FILM, path: second ?? zigzag(3) }] }] };
}

describe('a job as undo keeps it', () => {
  it('holds a few characters of an outline of which one node was moved', () => {
    const [before, after] = [jobHolding(zigzag(20_000), zigzag(9)), jobHolding(zigzag(20_000, 11_000, 3), zigzag(9))];
    const lean = leanJob(before, after);
    expect(JSON.stringify(lean).length).toBeLessThan(JSON.stringify(bare).length + 1500);
    expect(wholeJob(lean, after)).toEqual(before);
  });

  it('is the job itself where no long outline was changed', () => {
    const job = jobHolding(zigzag(9), zigzag(5000));
    expect(leanJob(job, jobHolding(zigzag(10), zigzag(5000))).job).toBe(job);
    expect(wholeJob(leanJob(job, bare), bare)).toBe(job);
  });

  it('comes back whatever lies beside it', () => {
    const path = fc.option(fc.tuple(fc.integer({ min: 1, max: 2000 }), fc.integer({ min: -1, max: 1999 }), fc.integer({ min: 1, max: 5 })).map(([nodes, at, by]) => zigzag(nodes, at, by)), { nil: undefined });
    fc.assert(
      fc.property(path, path, path, path, (a, b, c, d) => {
        const [job, beside] = [jobHolding(a, b), jobHolding(c, d)];
        expect(wholeJob(leanJob(job, beside), beside)).toEqual(job);
      }),
      { seed: 18 },
    );
  });
});
