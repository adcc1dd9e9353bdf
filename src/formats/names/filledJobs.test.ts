import { describe, expect, it } from 'vitest';
import { newJob } from '../../core/job/newJob.ts';
import { filledJobs } from './filledJobs.ts';
import { readNames } from './readNames.ts';

const job = newJob('Crew');
const text = { kind: 'lettering' as const, id: 'name', film: job.films[0].id, lettering: { text: '{Name} {Number}', font: 'Oswald', heightMm: 20 } };
const crew = { ...job, objects: [...job.objects, text] };
const list = (csv: string) => readNames(new TextEncoder().encode(csv), 'crew.csv');

describe('a job for each line of a list', () => {
  it('has its slots filled, a label, and a file name of its own', () => {
    const { jobs, lacking } = filledJobs(crew, list('Name;Number;Boat\nAda;7;Heron\nAda;7;Otter\nÉmile;;Otter\n'));
    expect(lacking).toEqual([]);
    expect(jobs.map(({ label, suffix }) => [label, suffix])).toEqual([['Ada 7', 'ada-7'], ['Ada 7', 'ada-7-2'], ['Émile', 'émile']]);
    expect(jobs[0].job.objects[1]).toMatchObject({ lettering: { text: 'Ada 7' } });
  });

  it('says which slots no column is for', () => {
    expect(filledJobs(crew, list('Name\nAda\n'))).toMatchObject({ lacking: ['number'], slots: ['name', 'number'] });
    expect(filledJobs(job, list('Name\nAda\n')).slots).toEqual([]);
  });
});
