import { describe, expect, it } from 'vitest';
import { sizedJob } from '../../../tests/fixtures/jobWith.ts';
import { differencesOf } from './differences.ts';
import { newJob } from './newJob.ts';

const job = sizedJob(newJob('Crest', 'htv'), 280);

describe('what two states of a job differ in', () => {
  it('is nothing for the same', () => expect(differencesOf(job, structuredClone(job), 'mm')).toEqual([]));

  it('is told in the order of the work, in the unit of the shop', () => {
    const now = { ...sizedJob(job, 254), name: 'Crest, small', layout: { ...job.layout, copies: 4 }, collections: ['Regatta'] };
    expect(differencesOf(job, now, 'in')).toEqual([
      { what: 'Name', then: 'Crest', now: 'Crest, small' },
      { what: 'Size', then: expect.stringContaining('11.02'), now: expect.stringContaining('10') },
      { what: 'Copies', then: '1', now: '4' },
      { what: 'Collections', then: 'none', now: 'Regatta' },
      { what: 'Settings of the lay-out', then: 'as they were', now: 'changed since' },
    ]);
  });

  it('leaves nothing out: what has no words of its own is told by where it is', () => {
    const now = { ...job, place: { xMm: 1, yMm: 2 }, rights: { ...job.rights, note: 'asked by phone' } };
    expect(differencesOf(job, now, 'mm').map(({ what }) => what)).toEqual(['Place on the blank', 'Order and rights']);
  });
});
