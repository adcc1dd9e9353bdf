import 'fake-indexeddb/auto';
import { Dexie } from 'dexie';
import { describe, expect, it } from 'vitest';
import { holdOutlines } from '../core/edit/paletteEdits.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import { tracedPart, withPart } from '../core/job/tracedPart.ts';
import { DexieStorage } from './dexieStorage.ts';
import type { ShelfEntry } from './ports.ts';

/** A job with an outline held by hand of some thousand nodes, or of a few. */
function heldJob(by: number, nodes = 4000): Job {
  const job = newJob('Pennants');
  const path = `M0 0${Array.from({ length: nodes }, (_, k) => `C${k % 9}.25 ${k} ${k}.5 ${by} 3 ${k + 1}`).join('')}Z`;
  return withPart(job, holdOutlines(tracedPart(job), [{ film: job.films[0].id, from: 'mark', path }]));
}
const entry = (id: string, job: Job, updatedAt = 1): ShelfEntry => ({ id, job, createdAt: 1, updatedAt, stage: 'separate' });

/** A storage and what lies in its tables. */
function storage(build?: string) {
  const name = `outlines-${Math.random()}`;
  const table = async (which: string): Promise<{ id: string; job?: unknown; outlineIds?: string[] }[]> => {
    const db = await new Dexie(name).open();
    const rows = await db.table<{ id: string }>(which).toArray();
    db.close();
    return rows;
  };
  return { of: new DexieStorage(name, build), another: (as?: string) => new DexieStorage(name, as), table, outlines: async () => (await table('outlines')).map(({ id }) => id) };
}

describe('a long outline held by hand', () => {
  it('lies beside its job as bytes under its hash, and comes back with it', async () => {
    const { of, table, outlines } = storage();
    await of.put(entry('a', heldJob(7)));
    const [row] = await table('entries');
    expect(JSON.stringify(row).length).toBeLessThan(5000);
    expect(await outlines()).toEqual(row.outlineIds);
    expect(row.outlineIds).toEqual([expect.stringMatching(/^[0-9a-f]{64}$/)]);
    expect(await of.get('a')).toEqual(entry('a', heldJob(7)));
    expect((await of.all()).entries).toEqual([entry('a', heldJob(7))]);
  });

  it('stays in its job when it is short', async () => {
    const { of, table, outlines } = storage();
    await of.put(entry('a', heldJob(7, 20)));
    expect([await outlines(), (await table('entries'))[0].job]).toEqual([[], heldJob(7, 20)]);
  });

  it('is written once for jobs and versions that share it, and goes with the last of them', async () => {
    const { of, outlines } = storage();
    await of.put(entry('a', heldJob(7)));
    await of.put(entry('b', { ...heldJob(7), name: 'Copy' }));
    const [shared] = await outlines();
    await of.putVersion({ id: 'v', jobId: 'a', at: 5, note: 'before', job: heldJob(7) });
    await of.put(entry('a', heldJob(8), 2));
    expect((await outlines()).length).toBe(2);
    await of.put(entry('a', heldJob(9), 3));
    expect((await outlines()).length).toBe(2);
    await of.purge(['b']);
    expect(await outlines()).toContain(shared);
    expect((await of.versions('a')).map(({ job }) => job)).toEqual([heldJob(7)]);
    await of.removeVersion('v');
    expect(await outlines()).not.toContain(shared);
    await of.purge(['a']);
    expect(await outlines()).toEqual([]);
  });

  it('is put in the order of the calls, however long it takes to pack', async () => {
    const { of } = storage();
    await Promise.all([of.put(entry('a', heldJob(7, 30_000))), of.put(entry('a', heldJob(8, 2), 2))]);
    expect(await of.get('a')).toEqual(entry('a', heldJob(8, 2), 2));
    await Promise.all([of.put(entry('a', heldJob(9, 30_000), 3)), of.keepThumbnail('a', new Uint8Array([7])), of.purge(['a'])]);
    expect([await of.get('a'), await of.thumbnail('a')]).toEqual([undefined, undefined]);
  });

  it('of a row from before is put beside it once a build has checked it', async () => {
    const { of, another, outlines } = storage();
    await of.put(entry('a', heldJob(7)));
    const db = await new Dexie((of as unknown as { db: Dexie }).db.name).open();
    await db.table('entries').put(entry('a', heldJob(7)));
    await db.table('outlines').clear();
    db.close();
    expect((await another('next').all()).entries).toEqual([entry('a', heldJob(7))]);
    await expect.poll(outlines).toHaveLength(1);
    expect(await another('next').get('a')).toEqual(entry('a', heldJob(7)));
  });

  it('that is lost makes its job a damaged one that says so, and no other', async () => {
    const { of, another } = storage('one');
    await of.put(entry('a', heldJob(7)));
    await of.put(entry('b', newJob('Whole')));
    const db = await new Dexie((of as unknown as { db: Dexie }).db.name).open();
    await db.table('outlines').clear();
    db.close();
    const { entries, damaged } = await another('one').all();
    expect([entries.map(({ id }) => id), damaged.map(({ id, name, reason }) => [id, name, reason.details['reason']])]).toEqual([['b'], [['a', 'Pennants', 'an outline that belongs to it is missing']]]);
    await expect(another('one').get('a')).rejects.toMatchObject({ code: 'badJob' });
  });
});
