import { DEFAULT_LETTERING } from '../lettering/lettering.ts';
import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import { jobSchema } from '../job/job.ts';
import { tracedPart } from '../job/tracedPart.ts';
import { BLANKS } from '../process/blanks.ts';
import { sizedJob } from '../../../tests/fixtures/jobWith.ts';
import { letteringsOf } from './fillSlots.ts';
import { sameAgain } from './sameAgain.ts';

const mug = BLANKS.find(({ blank }) => blank.name === 'Mug')!;
const child = BLANKS.find(({ blank }) => blank.name === 'Shirt, child')!;

/** A crest over a bar with a name, its customer waiting. */
function crest(): Job {
  const bare = sizedJob(newJob('Crew crest', 'htv'), 280);
  const film = bare.films[0].id;
  return {
    ...bare,
    objects: [...bare.objects, { kind: 'figure', id: 'bar', film, shape: { form: 'rectangle', widthMm: 90, heightMm: 20, cornerMm: 0 }, placement: { a: 1, b: 0, c: 0, d: 1, e: 140, f: 300 } }, { kind: 'lettering', id: 'name', film, lettering: { ...DEFAULT_LETTERING, text: 'Mill Lane', font: 'Lobster', heightMm: 12, widthMm: 60 } }],
    place: { xMm: 4, yMm: 5 },
    order: { code: 'ABCDEFGH', state: 'pressed', customer: 'Mill Lane Rowing', due: '2026-11-30' },
  };
}

describe('the same again', () => {
  it('is an order of its own for the same customer, and else the same', () => {
    const job = crest();
    const { order, ...again } = sameAgain(job, {}, 280);
    const { order: _, ...before } = job;
    expect(again).toEqual(before);
    expect(order).toEqual({ customer: 'Mill Lane Rowing' });
  });

  it('is larger or smaller in all its parts, and placed anew', () => {
    const job = crest();
    const half = sameAgain(job, { widthMm: 140 }, 280);
    expect(tracedPart(half).size.sizeMm).toBe(140);
    expect(half.objects[1]).toMatchObject({ placement: { a: 1, d: 1, e: 70, f: 150 } });
    expect(letteringsOf(half)[0].lettering).toMatchObject({ heightMm: 6, widthMm: 30 });
    expect(half.place).toBeUndefined();
    expect(jobSchema.safeParse(half).success).toBe(true);
  });

  it('takes the usual size and process of another blank, or the size that is asked for', () => {
    const job = crest();
    expect(sameAgain(job, { blank: child }, 280)).toMatchObject({ blank: { name: 'Shirt, child' }, process: 'htv' });
    expect(tracedPart(sameAgain(job, { blank: child }, 280)).size.sizeMm).toBe(170);
    const onMug = sameAgain(job, { blank: mug, widthMm: 70 }, 280);
    expect(onMug.process).toBe('waterslide');
    expect(tracedPart(onMug).size.sizeMm).toBe(70);
    expect(onMug.layout).not.toEqual(job.layout);
  });

  it('says other words, and leaves lettering out that says none', () => {
    const job = crest();
    const [{ id }] = letteringsOf(job);
    expect(letteringsOf(sameAgain(job, { texts: new Map([[id, 'Quay Street']]) }, 280)).map(({ lettering }) => lettering.text)).toEqual(['Quay Street']);
    expect(letteringsOf(sameAgain(job, { texts: new Map([[id, ' ']]) }, 280))).toEqual([]);
    const grouped: Job = { ...job, objects: [job.objects[0], { kind: 'group', id: 'g', objects: [job.objects[2]] }] };
    expect(sameAgain(grouped, { texts: new Map([[id, '']]), name: ' Plain crest ' }, 280)).toMatchObject({ name: 'Plain crest', objects: [{ kind: 'traced' }] });
  });
});
