import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { isAppError } from '../../core/errors/appError.ts';
import { newJob } from '../../core/job/newJob.ts';
import { readArchive, writeArchive } from './archive.ts';
import { jobsInZip, jobsZip } from './jobsZip.ts';

const archive = (name: string): Promise<Uint8Array<ArrayBuffer>> => writeArchive({ job: newJob(name), pictures: new Map() });

describe('many jobs in one file', () => {
  it('come back each as it was, also those of one name', async () => {
    const zip = jobsZip([{ fileName: 'Crest.limner', bytes: await archive('Crest') }, { fileName: 'Crest.limner', bytes: await archive('Crest of another') }, { fileName: '2026/oars.limner', bytes: await archive('Oars') }]);
    const found = jobsInZip(zip, 'jobs.zip');
    expect(found.map(({ fileName }) => fileName).sort()).toEqual(['2026-oars.limner', 'Crest, 2.limner', 'Crest.limner']);
    const names = await Promise.all(found.map(async ({ bytes, fileName }) => (await readArchive(bytes, fileName)).job.name));
    expect(names.sort()).toEqual(['Crest', 'Crest of another', 'Oars']);
  });

  it('are found beside other files, and it is said where there are none', async () => {
    const mixed = zipSync({ 'readme.txt': strToU8('x'), 'shop/a.LIMNER': await archive('A') });
    expect(jobsInZip(mixed, 'x.zip').map(({ fileName }) => fileName)).toEqual(['a.LIMNER']);
    expect(codeOf(() => jobsInZip(zipSync({ 'readme.txt': strToU8('x') }), 'x.zip'))).toBe('badArchive');
    expect(codeOf(() => jobsInZip(strToU8('no zip'), 'x.zip'))).toBe('badArchive');
  });

  it('are refused, never broken on, whatever the bytes', async () => {
    const zip = jobsZip([{ fileName: 'a.limner', bytes: await archive('A') }]);
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(zip.length - 1), fc.integer({ min: 0, max: 255 })), { minLength: 1, maxLength: 20 }), (changes) => {
        const bytes = zip.slice();
        for (const [at, value] of changes) bytes[at] = value;
        try {
          jobsInZip(bytes, 'x.zip');
        } catch (error) {
          if (!isAppError(error)) throw error;
        }
      }),
      { seed: 6, numRuns: 500 },
    );
  });
});
