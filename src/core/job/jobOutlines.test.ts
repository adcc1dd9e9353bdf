import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { eachOutline, withOutlines } from './jobOutlines.ts';

const traced = (id: string, ...paths: readonly string[]) => ({ kind: 'traced', id, outline: { followPx: 0.3, held: paths.map((path) => ({ film: 'a', path })) } });
const job = { name: 'Pennants', objects: [traced('art', 'M0 0L1 1', 'M2 2L3 3'), { kind: 'imported', paths: [{ film: 'b', path: 'M4 4L5 5' }] }, { kind: 'group', objects: [traced('logo', 'M6 6L7 7'), { kind: 'figure' }] }] };

describe('the outlines of a job value', () => {
  it('are found in traced parts, drawings and groups', () => {
    const seen: unknown[] = [];
    eachOutline(job, ({ path }) => void seen.push(path));
    expect(seen).toEqual(['M0 0L1 1', 'M2 2L3 3', 'M4 4L5 5', 'M6 6L7 7']);
  });

  it('are changed, and nothing else', () => {
    const named = withOutlines(job, ({ path, ...rest }) => ({ ...rest, curves: path }));
    expect(JSON.stringify(named)).toBe(JSON.stringify(job).replaceAll('"path"', '"curves"'));
    expect(withOutlines(job, (outline) => outline)).toBe(job);
    const one = withOutlines(job, (outline) => (outline['path'] === 'M4 4L5 5' ? { ...outline, path: '' } : outline));
    expect([one.objects[0] === job.objects[0], one.objects[1] === job.objects[1], one.objects[2] === job.objects[2]]).toEqual([true, false, true]);
  });

  it('are none in what is shaped otherwise, however deep', () => {
    let deep: unknown = [traced('art', 'M0 0L1 1')];
    for (let k = 0; k < 50_000; k++) deep = [{ kind: 'group', objects: deep }];
    expect(withOutlines({ objects: deep }, () => ({}))).toEqual({ objects: deep });
    fc.assert(
      fc.property(fc.anything(), (value) => {
        expect(withOutlines(value, (outline) => outline)).toBe(value);
      }),
      { seed: 18 },
    );
  });
});
