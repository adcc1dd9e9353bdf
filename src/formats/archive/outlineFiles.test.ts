import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { OutlineFiles } from './outlineFiles.ts';

const path = (by: number): string => `M0 0${`L${by}.5 7`.repeat(4000)}Z`;
const job = (...paths: readonly string[]) => ({ name: 'Pennants', objects: [{ kind: 'imported', paths: paths.map((each) => ({ film: 'a', path: each })) }] });

describe('outlines beside their job', () => {
  it('are one file for each text, and the job is whole again with them', async () => {
    const { value, files } = await new OutlineFiles().apart(job(path(1), path(2), path(1), 'M0 0L1 1Z'));
    expect([files.length, JSON.stringify(value).length < 1000]).toEqual([2, true]);
    expect((await new OutlineFiles().read(files))(value)).toEqual(job(path(1), path(2), path(1), 'M0 0L1 1Z'));
  });

  it('are made once for a text, and not at all for one that would come back otherwise', async () => {
    const outlines = new OutlineFiles();
    const [first, again] = [await outlines.apart(job(path(1))), await outlines.apart(job(path(1)))];
    expect(again.files[0].bytes).toBe(first.files[0].bytes);
    const foreign = job(`M0 0${'L1.50 7'.repeat(4000)}Z`);
    expect(await outlines.apart(foreign)).toEqual({ value: foreign, files: [] });
  });

  it('are read as far as there is room, which only an archive limits', async () => {
    const { value, files } = await new OutlineFiles().apart(job(path(1), path(2)));
    const joined = await new OutlineFiles().read(files, path(1).length + 10);
    expect(codeOf(() => joined(value))).toBe('badJob');
    expect(joined((await new OutlineFiles().apart(job(path(1)))).value)).toEqual(job(path(1)));
    expect(codeOf(() => joined({ objects: [{ paths: [{ curves: 'unknown' }] }] }))).toBe('badJob');
  });
});
