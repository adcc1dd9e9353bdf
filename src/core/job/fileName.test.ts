import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { newJob } from './newJob.ts';
import { fileNameOf } from './fileName.ts';

const job = newJob('Row 46, crew shirt');
const named = (nameAs: string, name = job.name): string => fileNameOf({ ...job, name, handOff: { ...job.handOff, nameAs } }, 279.6, '2026-11-28');

describe('names of files', () => {
  it('are the job’s name, or a pattern whose slots are filled', () => {
    expect(fileNameOf(job, 280, '2026-11-28')).toBe('Row 46, crew shirt');
    expect(named('{date} {job}, {width}')).toBe('2026-11-28 Row 46, crew shirt, 280 mm');
    expect(named('{job} for {nobody}')).toBe('Row 46, crew shirt for {nobody}');
  });

  it('are taken by any system, whatever the job is called', () => {
    fc.assert(
      fc.property(fc.string({ minLength: 1, maxLength: 130, unit: 'binary' }), (name) => {
        const made = named('{job}', name);
        expect(made).toMatch(/^[^<>:"/\\|?*]{1,100}$/);
        expect(made).not.toMatch(/[. ]$/);
      }),
      { seed: 2, numRuns: 300 },
    );
    expect(named('{job}', '...')).toBe('job');
    expect(named('{job}', '../../up')).toBe('..-..-up');
  });
});
