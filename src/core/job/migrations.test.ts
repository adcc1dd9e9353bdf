import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { JOB_VERSION, type Job } from './job.ts';
import { MAX_GROUPS_DEEP } from './objects.ts';
import { newJob } from './newJob.ts';
import { readJob } from './readJob.ts';
import { pictureOf, tracedPart } from './tracedPart.ts';

const stored = (name: string): Record<string, never> =>
  JSON.parse(readFileSync(new URL(`../../../tests/fixtures/jobs/${name}.json`, import.meta.url), 'utf8')) as Record<string, never>;

describe('jobs of earlier versions', () => {
  it.each(['version1-crest', 'version1-buoy', 'version2-crest', 'version2-buoy', 'version3-crest', 'version3-buoy', 'version3-lighthouse'])(
    'are read with all that they say: %s',
    (name) => {
      const old = stored(name);
      const job = readJob(old, name, 'as-the-shelf-knows-it');
      const { films, by, sizeMm, turnDeg, place } = old['assembly'] as { films: unknown; by: unknown; sizeMm: unknown; turnDeg: unknown; place?: unknown };
      expect(job).toMatchObject({
        version: JOB_VERSION,
        name: old['name'],
        keywords: old['keywords'],
        blank: old['blank'],
        process: old['process'],
        layout: old['layout'],
        films,
        pictures: [{ ...(old['picture'] as object), id: 'as-the-shelf-knows-it' }],
      });
      expect(job.place).toEqual(place);
      const part = tracedPart(job);
      expect(part).toMatchObject({
        recipe: old['recipe'],
        separation: old['separation'],
        outline: old['outline'],
        size: { by, sizeMm, turnDeg },
        picture: 'as-the-shelf-knows-it',
      });
      expect(pictureOf(job, part)?.fileName).toBe((old['picture'] as { fileName: string }).fileName);
      expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
    },
  );

  it('are told what is wrong with them, whatever part is missing or broken', () => {
    const old = stored('version3-crest');
    for (const field of ['recipe', 'separation', 'outline', 'assembly', 'layout', 'blank']) {
      for (const value of [undefined, 7, [], { by: 'depth' }])
        if (!(field === 'recipe' && Array.isArray(value)))
          expect(
            codeOf(() => readJob({ ...old, [field]: value })),
            `${field} ${JSON.stringify(value)}`,
          ).toBe('badJob');
    }
    expect(codeOf(() => readJob({ ...old, recipe: [{ kind: 'folding', id: 'a', v: 1 }] }))).toBe('unknownStep');
    expect(codeOf(() => readJob({ ...old, recipe: [{ kind: 'crop', id: 'a', v: 9 }] }))).toBe('newerVersion');
  });
});

describe('the objects of a job', () => {
  const withObjects = (objects: unknown): unknown => ({ ...newJob('Parts'), objects });
  const [art] = newJob('Parts').objects;
  const bar = { kind: 'figure', id: 'bar', film: 'film-1', shape: { form: 'rectangle', widthMm: 40, heightMm: 8, cornerMm: 2 } } as const;
  const grouped = (depth: number, inner: unknown = bar): unknown =>
    depth === 0 ? inner : { kind: 'group', id: `g${depth}`, objects: [grouped(depth - 1, inner)] };

  it('may be figures, drawings and groups of them beside what is traced', () => {
    const path = {
      kind: 'imported',
      id: 'oar',
      fileName: 'oar.svg',
      placement: { a: 1, b: 0, c: 0, d: 1, e: 5, f: 0 },
      paths: [{ film: 'film-1', path: 'M0 0L4 0L4 4Z' }],
    };
    const job = readJob(withObjects([art, { kind: 'group', id: 'g', objects: [bar, path] }])) as Job;
    expect(readJob(JSON.parse(JSON.stringify(job)))).toEqual(job);
  });

  it('are refused without one that is traced, with one id for two, with a picture that is not there, or put on a line', () => {
    for (const objects of [
      [],
      [bar],
      [art, bar, bar],
      [{ ...art, picture: 'nowhere' }],
      [art, { ...bar, placement: { a: 1, b: 1, c: 1, d: 1, e: 0, f: 0 } }],
      [art, { ...bar, shape: { form: 'heart' } }],
      'none',
      [null],
      [art, { kind: 'group', id: 'g', objects: [] }],
    ]) {
      expect(
        codeOf(() => readJob(withObjects(objects))),
        JSON.stringify(objects),
      ).toBe('badJob');
    }
  });

  it('lie in each other to a bounded depth, and no deeper value does harm', () => {
    expect(() => readJob(withObjects([art, grouped(MAX_GROUPS_DEEP)]))).not.toThrow();
    let deep: unknown = bar;
    for (let k = 0; k < 50_000; k++) deep = { kind: 'group', id: 'g', objects: [deep] };
    expect(codeOf(() => readJob(withObjects([art, deep])))).toBe('badJob');
    expect(codeOf(() => readJob(withObjects([art, grouped(MAX_GROUPS_DEEP + 1)])))).toBe('badJob');
  });

  it('tell steps of a later version wherever they stand', () => {
    expect(codeOf(() => readJob(withObjects([{ kind: 'group', id: 'g', objects: [{ ...art, recipe: [{ kind: 'crop', id: 'a', v: 9 }] }] }])))).toBe(
      'newerVersion',
    );
  });
});
