import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { Dexie } from 'dexie';
import { describe, expect, it } from 'vitest';
import { FIRST_OBJECT_ID, tracedPart, withPart, withPicture } from '../core/job/tracedPart.ts';
import { AppError, isAppError } from '../core/errors/appError.ts';
import { codeOf } from '../../tests/fixtures/errorCode.ts';
import { JOB_VERSION } from '../core/job/job.ts';
import { MAX_FILMS } from '../core/film/film.ts';
import { holdOutlines } from '../core/edit/paletteEdits.ts';
import { salvageJob } from '../core/job/salvageJob.ts';
import { newJob } from '../core/job/newJob.ts';
import { DexieStorage } from './dexieStorage.ts';
import { KEPT_RESULT_BYTES, rowsToDrop } from './keptRows.ts';
import { MemoryStorage } from './memoryStorage.ts';
import type { JobStorage, ShelfEntry } from './ports.ts';

const entry = (id: string, updatedAt: number, change: Partial<ShelfEntry> = {}): ShelfEntry => ({ id, job: newJob(`Job ${id}`), createdAt: 1, updatedAt, stage: 'picture', ...change });
const picture = { id: 'p1', fileName: 'boat.png', bytes: new Uint8Array([1, 2, 3]) };
/** An entry whose job is made of a picture. */
const pictured = (id: string, updatedAt: number, picture = 'p1'): ShelfEntry => entry(id, updatedAt, { job: withPicture(newJob(`Job ${id}`), FIRST_OBJECT_ID, { id: picture, fileName: 'boat.png', widthPx: 4, heightPx: 3 }) });

const kinds: Record<string, () => JobStorage> = { Dexie: () => new DexieStorage(`test-${Math.random()}`), memory: () => new MemoryStorage() };

describe.each(Object.entries(kinds))('%s storage', (_name, make) => {
  it('finds again what was put, newest first', async () => {
    const storage = make();
    await storage.put(pictured('a', 10), [picture]);
    await storage.put(entry('b', 20));
    expect((await storage.all()).entries.map(({ id }) => id)).toEqual(['b', 'a']);
    expect((await storage.get('a'))?.job.name).toBe('Job a');
    expect([...(await storage.picture('p1'))!.bytes]).toEqual([1, 2, 3]);
    expect(await storage.get('none')).toBeUndefined();
  });

  it('keeps thumbnails apart: what is saved without one keeps its own, and it goes with its job', async () => {
    const storage = make();
    await storage.put(entry('a', 1, { thumbnail: new Uint8Array([7, 8]) }));
    await storage.put(entry('a', 2));
    expect(await storage.thumbnail('a')).toEqual(new Uint8Array([7, 8]));
    expect((await storage.all()).entries).toEqual([entry('a', 2)]);
    expect(await storage.get('a')).toEqual(entry('a', 2));
    await storage.purge(['a']);
    expect(await storage.thumbnail('a')).toBeUndefined();
  });

  it('writes a thumbnail alone without touching the job, and none of a job that is gone', async () => {
    const storage = make();
    await storage.put(entry('a', 1));
    await storage.keepThumbnail('a', new Uint8Array([9]));
    await storage.keepThumbnail('gone', new Uint8Array([9]));
    expect([await storage.thumbnail('a'), await storage.thumbnail('gone')]).toEqual([new Uint8Array([9]), undefined]);
    expect(await storage.get('a')).toEqual(entry('a', 1));
  });

  it('keeps a picture while any job uses it', async () => {
    const storage = make();
    await storage.put(pictured('a', 1), [picture]);
    await storage.put(pictured('b', 2));
    await storage.purge(['a']);
    expect(await storage.picture('p1')).toBeDefined();
    await storage.purge(['b']);
    expect(await storage.picture('p1')).toBeUndefined();
    expect((await storage.all()).entries).toEqual([]);
  });

  it('keeps versions of a job with their notes and pictures, until the job goes for good', async () => {
    const storage = make();
    await storage.put(pictured('a', 1), [picture]);
    await storage.put(entry('b', 1));
    await storage.putVersion({ id: 'v1', jobId: 'b', at: 5, note: 'before the customer called', job: pictured('x', 1).job });
    await storage.putVersion({ id: 'v2', jobId: 'b', at: 9, note: '', job: newJob('Later') });
    expect((await storage.versions('b')).map(({ id, note }) => [id, note])).toEqual([['v2', ''], ['v1', 'before the customer called']]);
    await storage.removeVersion('v2');
    await storage.purge(['a']);
    expect(await storage.picture('p1')).toBeDefined();
    expect((await storage.versions('b'))[0]).toMatchObject({ id: 'v1', job: { name: 'Job x' } });
    await storage.purge(['b']);
    expect(await storage.versions('b')).toEqual([]);
    expect(await storage.picture('p1')).toBeUndefined();
  });

  it('keeps recipes under their names, in their order, until they are removed', async () => {
    const storage = make();
    const recipe = [{ kind: 'fewerColours', id: 'f', enabled: true, v: 1, tones: 3 }] as const;
    await storage.putRecipe({ id: 'b', name: 'Scans 10', recipe, savedAt: 2 });
    await storage.putRecipe({ id: 'a', name: 'Scans 9', recipe, savedAt: 1 });
    expect((await storage.recipes()).map(({ name }) => name)).toEqual(['Scans 9', 'Scans 10']);
    await storage.putRecipe({ id: 'b', name: 'Logos', recipe: [], savedAt: 3 });
    expect((await storage.recipes())[0]).toEqual({ id: 'b', name: 'Logos', recipe: [], savedAt: 3 });
    await storage.removeRecipe('b');
    expect((await storage.recipes()).map(({ id }) => id)).toEqual(['a']);
  });

  it('keeps one result a job, until the job goes for good', async () => {
    const storage = make();
    await storage.put(entry('a', 1));
    await storage.keep({ jobId: 'a', key: 'k1', bytes: 3, usedAt: 1, value: { outline: new Float64Array([1, 2]) } });
    await storage.keep({ jobId: 'a', key: 'k2', bytes: 3, usedAt: 2, value: { outline: new Float64Array([3]) } });
    expect(await storage.kept('a')).toMatchObject({ key: 'k2', value: { outline: new Float64Array([3]) } });
    expect(await storage.kept('b')).toBeUndefined();
    await storage.purge(['a']);
    expect(await storage.kept('a')).toBeUndefined();
  });

  it('lets the results that were used longest ago make room', async () => {
    const storage = make();
    const row = (jobId: string, share: number, usedAt: number) => ({ jobId, key: 'k', bytes: KEPT_RESULT_BYTES * share, usedAt, value: jobId });
    for (const [at, id] of ['a', 'b', 'c'].entries()) await storage.keep(row(id, 0.45, at));
    expect(await Promise.all(['a', 'b', 'c'].map(async (id) => (await storage.kept(id))?.value))).toEqual([undefined, 'b', 'c']);
    await storage.keep(row('d', 1.1, 9));
    expect(await storage.kept('d')).toBeUndefined();
    expect(await storage.kept('c')).toBeDefined();
  });

  it('keeps small notes', async () => {
    const storage = make();
    expect(await storage.note('demo')).toBeUndefined();
    await storage.setNote('demo', 'yes');
    expect(await storage.note('demo')).toBe('yes');
  });
});

describe('storage in trouble', () => {
  it('says that the disk is full and keeps what was there', async () => {
    const storage = new MemoryStorage(4);
    await storage.put(pictured('a', 1), [picture]);
    await expect(storage.put(pictured('b', 2, 'p2'), [{ ...picture, id: 'p2' }])).rejects.toThrow(AppError);
    expect((await storage.all()).entries.map(({ id }) => id)).toEqual(['a']);
  });

  it('maps a quota error of the browser, also when it comes wrapped', async () => {
    const name = `test-${Math.random()}`;
    const storage = new DexieStorage(name);
    await storage.all();
    const table = (storage as unknown as { db: Dexie }).db.table('entries');
    for (const failure of [new Dexie.QuotaExceededError('full'), Object.assign(new Error('aborted'), { name: 'AbortError', inner: Object.assign(new Error('full'), { name: 'QuotaExceededError' }) })]) {
      table.hook('creating', function fail() {
        throw failure;
      });
      const error = await storage.put(entry('a', 1)).catch((caught: unknown) => caught);
      expect(isAppError(error) && error.code).toBe('storageFull');
      table.hook('creating').unsubscribe(table.hook('creating').subscribers?.[0] as never);
      expect((await storage.all()).entries).toEqual([]);
    }
  });

  it('leaves out kept recipes that it cannot read', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    await storage.putRecipe({ id: 'x', name: 'From tomorrow', recipe: [{ kind: 'somethingNew', id: 'n', enabled: true, v: 9 }] as never, savedAt: 1 });
    expect(await storage.recipes()).toEqual([]);
  });

  it('tells damaged rows, with what can be saved from them', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    await storage.put({ ...entry('broken', 5), job: { ...pictured('x', 1).job, name: 'Crest', layout: 7 } as never }, [picture]);
    await storage.put(entry('a', 1));
    expect((await storage.all()).damaged).toMatchObject([{ id: 'broken', name: 'Crest', pictureIds: ['p1'], reason: { code: 'badJob' }, job: { layout: 7 } }]);
    expect(salvageJob((await storage.all()).damaged[0].job)).toEqual({ job: { ...pictured('x', 1).job, name: 'Crest' }, lost: ['the lay-out'] });
    expect((await storage.all()).entries.map(({ id }) => id)).toEqual(['a']);
  });

  it('takes thumbnails out of rows of before', async () => {
    const name = `test-${Math.random()}`;
    const old = new Dexie(name);
    old.version(5).stores({ entries: 'id, updatedAt', pictures: 'id', notes: 'name', recipes: 'id', results: 'jobId', resultSizes: 'jobId', versions: 'id, jobId', folders: 'name' });
    await old.table('entries').bulkPut([entry('a', 1, { thumbnail: new Uint8Array([5]) }), entry('b', 2)]);
    old.close();
    const storage = new DexieStorage(name);
    expect((await storage.all()).entries).toEqual([entry('b', 2), entry('a', 1)]);
    expect(await storage.thumbnail('a')).toEqual(new Uint8Array([5]));
    expect(await storage.thumbnail('b')).toBeUndefined();
  });

  it('reads every outline that can be held by hand', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    const path = `M0 0${'L123.456789 987.654321'.repeat(300_000)}Z`;
    const job = withPart(newJob('Crest'), holdOutlines(tracedPart(newJob('Crest')), Array.from({ length: MAX_FILMS }, (_, k) => ({ film: `tone-${k}`, from: 'x', path: k === 0 ? path : 'M0 0L1 0L1 1Z' }))));
    await storage.put({ ...entry('a', 1), job });
    expect(tracedPart((await storage.get('a'))!.job).outline.held).toHaveLength(MAX_FILMS);
    expect((await storage.all()).damaged).toEqual([]);
    expect(codeOf(() => holdOutlines(tracedPart(newJob('Crest')), Array.from({ length: MAX_FILMS }, (_, k) => ({ film: `tone-${k}`, from: 'x', path }))))).toBe('heldTooLarge');
  });

  it('reads rows from before jobs named their pictures, and keeps their pictures', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    const old = JSON.parse(readFileSync(new URL('../../tests/fixtures/jobs/version3-buoy.json', import.meta.url), 'utf8')) as never;
    await storage.put({ ...entry('old', 5), job: old, pictureId: 'p1' } as ShelfEntry, [picture]);
    await storage.put(pictured('gone', 1, 'p2'), [{ ...picture, id: 'p2' }]);
    expect((await storage.get('old'))?.job.pictures.map(({ id }) => id)).toEqual(['p1']);
    expect('pictureId' in (await storage.all()).entries[0]).toBe(false);
    await storage.purge(['gone']);
    expect([await storage.picture('p1'), await storage.picture('p2')]).toEqual([picture, undefined]);
  });

  it('leaves rows of a newer version stored but off the list', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    await storage.put({ ...entry('new', 5), job: { ...newJob('x'), version: JOB_VERSION + 1 } as never });
    await storage.put(entry('a', 1));
    expect((await storage.all()).entries.map(({ id }) => id)).toEqual(['a']);
    await expect(storage.get('new')).rejects.toThrow(/newerVersion/);
  });
});

describe('rows that a build has checked', () => {
  it('are listed by it as they are, and checked once by every other one', async () => {
    const name = `test-${Math.random()}`;
    const first = new DexieStorage(name, 'build 1');
    await first.put(entry('a', 1));
    expect((await first.all()).entries).toEqual([entry('a', 1)]);
    const inner = (first as unknown as { db: { entries: { get(id: string): Promise<object>; put(row: object): Promise<unknown> } } }).db.entries;
    // Changed behind its back: it is not looked at, until the job is opened.
    await inner.put({ ...(await inner.get('a')), job: { ...newJob('Job a'), layout: 7 } });
    expect((await first.all()).entries).toHaveLength(1);
    expect((await first.all()).damaged).toEqual([]);
    await expect(first.get('a')).rejects.toThrow(/badJob/);
    const second = new DexieStorage(name, 'build 2');
    expect((await second.all()).entries).toEqual([]);
    expect((await second.all()).damaged.map(({ id }) => id)).toEqual(['a']);
  });

  it('of another build are noted once they have passed, without what was written meanwhile being lost', async () => {
    const name = `test-${Math.random()}`;
    const old = new DexieStorage(name, 'build 1');
    await old.put(entry('a', 1));
    await old.put(entry('b', 2));
    const storage = new DexieStorage(name, 'build 2');
    const listing = storage.all();
    await storage.put(entry('b', 9, { stage: 'clean' }));
    expect((await listing).entries.map(({ id }) => id).sort()).toEqual(['a', 'b']);
    const inner = (storage as unknown as { db: { entries: { get(id: string): Promise<{ checkedBy?: string }> } } }).db.entries;
    await expect.poll(async () => (await inner.get('a')).checkedBy).toBe('build 2');
    expect(await storage.get('b')).toMatchObject({ updatedAt: 9, stage: 'clean' });
  });
});

describe('a full disk', () => {
  it('takes the kept results first, so that the job itself is saved', async () => {
    const storage = new DexieStorage(`test-${Math.random()}`);
    await storage.keep({ jobId: 'a', key: 'k', bytes: 3, usedAt: 1, value: 'much' });
    const inner = storage as unknown as { db: { entries: { put: (row: ShelfEntry) => unknown } } };
    const put = inner.db.entries.put.bind(inner.db.entries);
    let full = true;
    inner.db.entries.put = (row) => {
      if (!full) return put(row);
      full = false;
      throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
    };
    await storage.put(entry('a', 1));
    expect((await storage.get('a'))?.job.name).toBe('Job a');
    expect(await storage.kept('a')).toBeUndefined();
  });
});

describe('rows to drop', () => {
  it('leave no more than fits, and never a newer one for an older one of its size', () => {
    const rows = [5, 3, 9, 1, 7].map((usedAt) => ({ jobId: `j${usedAt}`, bytes: 10, usedAt }));
    expect(rowsToDrop(rows, 30).sort()).toEqual(['j1', 'j3']);
    expect(rowsToDrop(rows, 50)).toEqual([]);
    expect(rowsToDrop(rows, 9).length).toBe(5);
  });
});
