import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import { readJob } from '../job/readJob.ts';
import { nameOfObject, withDuplicate, withNewObject, withObjectChanged, withObjectMoved, withObjectShifted, withoutObject, type FilmedObject } from './objectEdits.ts';

const film = { id: 'gold', name: 'Brass gold', colour: '#b9751a' };
const name: FilmedObject = { kind: 'lettering', id: 'name', film: 'gold', lettering: { text: 'Row\n46', font: 'Oswald', heightMm: 20 } };
const bar: FilmedObject = { kind: 'figure', id: 'bar', film: 'gold', shape: { form: 'rectangle', widthMm: 80, heightMm: 12 } };
const start = newJob('Crew');
const both = withNewObject(withNewObject(start, bar, film), name, film);
const ids = (job: Job): string[] => job.objects.map(({ id }) => id);

describe('parts of a design', () => {
  it('come on top, bring their film once, and stay a job that can be read again', () => {
    expect(ids(both)).toEqual(['art', 'bar', 'name']);
    expect(both.films.filter(({ id }) => id === 'gold')).toHaveLength(1);
    expect(readJob(JSON.parse(JSON.stringify(both)))).toEqual(both);
    expect(start.objects).toHaveLength(1);
  });

  it('are moved in their order, stop at its ends, and shifted', () => {
    expect(ids(withObjectMoved(both, 'name', -1))).toEqual(['art', 'name', 'bar']);
    expect(ids(withObjectMoved(both, 'name', -9))).toEqual(['name', 'art', 'bar']);
    expect(withObjectMoved(both, 'name', 1)).toBe(both);
    const shifted = withObjectShifted(withObjectShifted(both, 'bar', 3, 4), 'bar', -1, 2);
    expect(shifted.objects[1].placement).toEqual({ a: 1, b: 0, c: 0, d: 1, e: 2, f: 6 });
  });

  it('are changed, doubled and taken off, but for traced art', () => {
    const bigger = withObjectChanged<typeof name>(both, 'name', (object) => ({ ...object, cutsOut: true }));
    expect(bigger.objects[2]).toMatchObject({ cutsOut: true });
    expect(ids(withDuplicate(both, 'bar', 'bar-2', 5))).toEqual(['art', 'bar', 'name', 'bar-2']);
    expect(ids(withoutObject(both, 'bar'))).toEqual(['art', 'name']);
    expect(ids(withoutObject(both, 'art'))).toEqual(ids(both));
    const grouped: Job = { ...both, objects: [both.objects[0], { kind: 'group', id: 'g', objects: [bar] }] };
    expect(ids(withoutObject(grouped, 'bar'))).toEqual(['art']);
  });

  it('are called by what they are', () => {
    expect(both.objects.map((object) => nameOfObject(object, 'crest.png'))).toEqual(['crest.png', 'Rectangle', '“Row 46”']);
    expect(nameOfObject({ ...bar, name: 'Board' })).toBe('Board');
  });
});
