import { beforeEach, describe, expect, it } from 'vitest';
import { startedStores } from '../../tests/fixtures/startedStores.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { decodeFile } from '../../cli/decodeFile.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { tracedPart } from '../core/job/tracedPart.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { useKeeping } from './keeping.ts';
import { useSameAgain } from './sameAgain.ts';
import { useVersions } from './versions.ts';

const files = await discFiles();
let storage: MemoryStorage;
function started() {
  const engine = new LocalEngine(decodeFile, { tools: shapeTools });
  return startedStores({ engine, storage }, () => ({ versions: useVersions(), again: useSameAgain(), keeping: useKeeping() }));
}
beforeEach(() => {
  storage = new MemoryStorage();
});

describe('versions of a job', () => {
  it('go with it into a file and come in again, each with its note, its picture there', async () => {
    const { shelf, versions } = started();
    const entry = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
    await versions.load(entry.id);
    await versions.keep(entry.id, entry.job, ' as it came ');
    await versions.keep(entry.id, { ...entry.job, name: 'Disc, later' }, '');
    expect(versions.versions.map(({ note, job }) => [note, job.name])).toEqual([['', 'Disc, later'], ['as it came', entry.job.name]]);
    const { bytes } = (await shelf.archiveOf(entry.id))!;
    storage = new MemoryStorage();
    const other = started();
    const come = await other.shelf.addFile(new File([bytes], 'disc.limner'));
    await other.versions.load(come.id);
    expect(other.versions.versions.map(({ note, job }) => [note, job.name])).toEqual([['', 'Disc, later'], ['as it came', entry.job.name]]);
    expect((await other.versions.onBlank(other.versions.versions[1].job, 120)).width).toBeGreaterThan(60);
  });

  it('of the same state are one, with the newest note; one that is taken away can come back', async () => {
    const { shelf, versions } = started();
    const { id, job } = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
    await versions.load(id);
    await versions.keep(id, job, 'first');
    await versions.keep(id, structuredClone(job), 'as approved');
    expect(versions.versions.map(({ note }) => note)).toEqual(['as approved']);
    const [kept] = versions.versions;
    await versions.remove(kept);
    expect(versions.versions).toEqual([]);
    await versions.putBack(kept);
    expect(versions.versions).toEqual([kept]);
  });
});

describe('the same again, from the shelf', () => {
  it('is looked at before it is made: its measures and how many places are worse', async () => {
    const { shelf, again } = started();
    const entry = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
    await again.begin(entry.job);
    const before = again.before.value!;
    expect(before.widthMm).toBeCloseTo(tracedPart(entry.job).size.sizeMm, 3);
    await again.check({ widthMm: 1 });
    expect(again.after.value!.widthMm).toBeCloseTo(1, 3);
    // Too small to be weeded, where before it was only coarse.
    expect(again.after.value!.findings).toBeGreaterThan(0);
    const made = await shelf.putBeside(entry, again.made({ widthMm: 50, name: 'Disc, small' })!);
    expect(made.id).not.toBe(entry.id);
    expect(tracedPart(made.job).size.sizeMm).toBeCloseTo(50, 6);
    expect(shelf.entries.map(({ job }) => job.name)).toContain('Disc, small');
  });
});

describe('collections', () => {
  it('are named once each; a job in none has no list of them', async () => {
    const { shelf } = started();
    const { id } = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
    await shelf.collect(id, [' Regatta', 'Regatta', '', 'club shop']);
    expect(shelf.entries[0].job.collections).toEqual(['Regatta', 'club shop']);
    await shelf.collect(id, []);
    expect('collections' in shelf.entries[0].job).toBe(false);
  });
});

describe('the day of the copies', () => {
  it('is noted when all jobs are saved as one file', async () => {
    const { shelf, keeping } = started();
    await shelf.addFile(new File([files.png.slice()], 'disc.png'));
    await keeping.load();
    expect(keeping.copiedAt).toBeUndefined();
    expect((await keeping.asOneFile()).length).toBeGreaterThan(100);
    const again = started();
    await again.keeping.load();
    expect(Date.now() - again.keeping.copiedAt!).toBeLessThan(60_000);
  });
});
