import { describe, expect, it } from 'vitest';
import { tracedPart } from '../job/tracedPart.ts';
import { sizedJob } from '../../../tests/fixtures/jobWith.ts';
import { BLANKS, ownBlank } from '../process/blanks.ts';
import { onBlank } from './onBlank.ts';
import { jobSchema, type Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';

const mug = BLANKS.find(({ blank }) => blank.name === 'Mug')!;
const sign = BLANKS.find(({ blank }) => blank.name === 'Wooden sign')!;

describe('another blank', () => {
  it('brings its usual size and process', () => {
    const job = onBlank(newJob('Crest'), mug);
    expect([job.blank.name, job.process, tracedPart(job).size.sizeMm]).toEqual(['Mug', 'waterslide', 90]);
    // Printed on a page that is filled; cut from a mat again.
    expect([job.layout.sheet.name, job.layout.fill, onBlank(job, sign).layout.sheet.name]).toEqual(['A4 sheet', true, 'Mat 305 × 610']);
    expect(onBlank(job, sign).process).toBe('stencil');
    expect(tracedPart(onBlank(job, sign)).size.sizeMm).toBe(300);
  });

  it('leaves a size and a process that were set in the job', () => {
    const fresh = newJob('Crest');
    const typed: Job = { ...sizedJob(fresh, 250), process: 'panel' };
    expect(onBlank(typed, sign)).toMatchObject({ process: 'panel', objects: [{ size: { by: 'width', sizeMm: 250 } }] });
    const high = sizedJob(fresh, tracedPart(fresh).size.sizeMm, 'height');
    expect(onBlank(high, sign).objects).toEqual(high.objects);
  });
});

describe('a blank of one’s own', () => {
  it('is a shipped one changed, under a name of its own, or itself', () => {
    const own = ownBlank(mug.blank, { widthMm: 180 });
    expect(own).toEqual({ ...mug.blank, name: 'Mug, own', widthMm: 180 });
    expect(ownBlank(own, { name: 'Enamel mug', round: true })).toEqual({ ...own, name: 'Enamel mug', round: true });
    expect(ownBlank(ownBlank(own, { round: true }), { round: false })).toEqual(own);
    const job = { ...newJob('Crest'), blank: ownBlank(own, { round: true }) };
    expect(jobSchema.parse(job)).toEqual(job);
  });
});
