import { describe, expect, it } from 'vitest';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { jobSchema, type Job } from './job.ts';
import { newJob } from './newJob.ts';
import type { TracedObject } from './objects.ts';
import { FIRST_OBJECT_ID, pictureOf, tracedPart, withPart, withPicture, withPictureIds, withPicturesOnly } from './tracedPart.ts';

const crest = { id: 'aa', fileName: 'crest.png', widthPx: 60, heightPx: 60 };
const sponsor = { id: 'bb', fileName: 'sponsor.png', widthPx: 40, heightPx: 20 };
const [art] = newJob('Two').objects as [TracedObject];
/** A crest, and a sponsor's mark in a group with a bar on a film of its own. */
const two: Job = withPicture(
  withPicture(
    {
      ...newJob('Two'),
      films: [...newJob('Two').films, { id: 'gold', name: 'Gold', colour: '#e3bf73' }],
      objects: [
        art,
        {
          kind: 'group',
          id: 'g',
          objects: [
            { ...art, id: 'sponsor' },
            { kind: 'figure', id: 'bar', film: 'gold', shape: { form: 'round', widthMm: 9, heightMm: 9 } },
          ],
        },
      ],
    },
    FIRST_OBJECT_ID,
    crest,
  ),
  'sponsor',
  sponsor,
);

describe('a part of a job', () => {
  it('is found by its id, also in a group, and the lowest without one', () => {
    expect([tracedPart(two).id, tracedPart(two, 'sponsor').id, pictureOf(two, tracedPart(two, 'sponsor'))]).toEqual([FIRST_OBJECT_ID, 'sponsor', sponsor]);
    expect(() => tracedPart(two, 'bar')).toThrow(RangeError);
  });

  it('is put back without touching the others', () => {
    const changed = withPart(two, { ...tracedPart(two, 'sponsor'), recipe: [{ kind: 'enlarging', id: 'e', enabled: true, v: 1, times: 2 }] });
    expect(tracedPart(changed, 'sponsor').recipe).toHaveLength(1);
    expect(tracedPart(changed)).toEqual(tracedPart(two));
    expect(withPart(two, tracedPart(two))).toEqual(two);
    jobSchema.parse(changed);
  });

  it('leaves the films of every way of separating that another part has', () => {
    const rack = ['film-1', 'back', 'detail', 'shade-1', 'shade-2', 'red', 'gold'].map((id) => ({ id, name: id, colour: '#000000' }));
    const kept = (separation: TracedObject['separation']): string[] => {
      const job = withPart({ ...two, films: rack }, { ...tracedPart(two, 'sponsor'), films: rack, separation });
      return withPart(job, { ...tracedPart(job), films: [] }).films.map(({ id }) => id);
    };
    expect(kept({ way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' })).toEqual(['film-1', 'gold']);
    expect(kept({ way: 'backDetail', fineness: 50, threshold: 'auto', back: 'open' })).toEqual(['back', 'detail', 'gold']);
    expect(kept({ way: 'tones', count: 2, meet: 'stacked' })).toEqual(['shade-1', 'shade-2', 'gold']);
    expect(kept({ way: 'flat', count: 2, meet: 'stacked', kept: [{ colour: '#b3262e', film: 'red' }] })).toEqual(['red', 'gold']);
  });

  it('leaves films on the rack that others lie on', () => {
    const rack = withPart(two, { ...tracedPart(two), films: [{ id: 'tone-1', name: 'Red', colour: '#b3262e' }] }).films;
    expect(rack.map(({ id }) => id)).toEqual(['film-1', 'gold', 'tone-1']);
    const held = withPart(two, {
      ...tracedPart(two, 'sponsor'),
      separation: { way: 'flat', count: 2, meet: 'stacked', palette: [{ colour: '#000000', film: 'film-1' }] },
    });
    expect(withPart(held, { ...tracedPart(held), films: [] }).films.map(({ id }) => id)).toEqual(['film-1', 'gold']);
    // What only the part itself lay on goes, also where it lies in a group.
    expect(
      withPart(held, { ...tracedPart(held, 'sponsor'), separation: { way: 'tones', count: 2, meet: 'stacked' }, films: [] }).films.map(({ id }) => id),
    ).toEqual(['film-1', 'gold']);
  });
});

describe('the pictures of a job', () => {
  it('are each there once, as long as a part is made of them', () => {
    expect(two.pictures).toEqual([crest, sponsor]);
    const both = withPicture(two, FIRST_OBJECT_ID, sponsor);
    expect(both.pictures).toEqual([sponsor]);
    expect(jobSchema.safeParse(both).success).toBe(true);
  });

  it('are renamed with the parts that are made of them; two that are one become one', () => {
    const named = withPictureIds(
      two,
      new Map([
        ['aa', 'cc'],
        ['bb', 'cc'],
      ]),
    );
    expect([named.pictures.map(({ id }) => id), tracedPart(named).picture, tracedPart(named, 'sponsor').picture]).toEqual([['cc'], 'cc', 'cc']);
  });

  it('leave a part waiting for a new one when theirs is gone', () => {
    const less = withPicturesOnly(two, [crest]);
    expect([less.pictures, tracedPart(less).picture, tracedPart(less, 'sponsor').picture]).toEqual([[crest], 'aa', undefined]);
    jobSchema.parse(less);
    expect(tracedPart(jobWith(less, {}))).toEqual(tracedPart(less));
  });
});
