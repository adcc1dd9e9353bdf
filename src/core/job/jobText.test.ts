import { describe, expect, it } from 'vitest';
import type { Job } from './job.ts';
import { jobText, wordsOfSearch } from './jobText.ts';
import { newJob } from './newJob.ts';

describe('what a job is found by', () => {
  const plain = newJob('Crew shirt');
  const job: Job = {
    ...plain,
    keywords: ['regatta'],
    order: { code: '0A1B2C3D', customer: 'Mill Lane Rowing', notes: 'Blue for the first row', state: 'approved' },
    objects: [...plain.objects, { kind: 'lettering', id: 'name', film: plain.films[0].id, placement: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, lettering: { text: 'Row 46', font: 'Pacifico', heightMm: 20 } as never }],
  };

  it('is every text of it', () => {
    const text = jobText(job);
    for (const word of ['crew', 'regatta', 'heat-transfer', 'mill lane', 'first row', 'row 46', '0a1b2c3d', 'approved', plain.films[0].name.toLowerCase(), plain.blank.name.toLowerCase()]) expect(text).toContain(word);
  });

  it('is what was typed word by word, or a code as it is read off a ticket', () => {
    expect(wordsOfSearch('  Crew  SHIRT ')).toEqual(['crew', 'shirt']);
    expect(wordsOfSearch('LIMNER 0A1B2C3D')).toEqual(['0a1b2c3d']);
    expect(wordsOfSearch('limner shirts')).toEqual(['limner', 'shirts']);
  });
});
