import { disposePinia, type Pinia } from 'pinia';
import { nextTick } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { startedStores } from '../../tests/fixtures/startedStores.ts';
import { until } from '../../tests/fixtures/until.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import type { Engine } from '../engine/protocol.ts';
import { LocalSignal } from '../storage/jobSignal.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import type { ShelfEntry } from '../storage/ports.ts';

const files = await discFiles();

/** Writes one row after the other, as a database does, and waits where it is told to. */
class SlowStorage extends MemoryStorage {
  gate: Promise<void> = Promise.resolve();
  private last: Promise<void> = Promise.resolve();

  override put(...row: Parameters<MemoryStorage['put']>): Promise<void> {
    const { gate } = this;
    return (this.last = this.last.then(() => gate).then(() => super.put(...row)));
  }
}

/** Makes thumbnails when it is let to. */
class HeldEngine extends LocalEngine {
  thumbnails: Promise<void> = Promise.resolve();

  override export: Engine['export'] = async (request) => {
    await this.thumbnails;
    return super.export(request);
  };
}

function held(): { promise: Promise<void>; release: () => void } {
  let release = (): void => undefined;
  const promise = new Promise<void>((resolve) => (release = resolve));
  return { promise, release };
}

let pinia: Pinia;
afterEach(() => disposePinia(pinia));

async function started() {
  const [engine, storage] = [new HeldEngine(decodeFile), new SlowStorage()];
  const { bench, shelf, pinia: made } = startedStores({ engine, storage, signal: new LocalSignal() });
  pinia = made;
  const { id } = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
  await bench.open(id);
  await until(() => bench.result !== undefined);
  const name = (words: string): void => bench.commit('Name', { ...bench.job!, name: words });
  const stored = async (): Promise<string> => ((await storage.get(id)) as ShelfEntry).job.name;
  return { bench, engine, storage, name, stored };
}

describe('a job on the bench', () => {
  it('is told to be saved only when what changed while it was written is saved too', async () => {
    const { bench, storage, name, stored } = await started();
    const writing = held();
    storage.gate = writing.promise;
    name('Older');
    const first = bench.saveNow();
    name('Newer');
    await nextTick();
    writing.release();
    await first;
    expect([bench.saving, await stored()]).toEqual([true, 'Older']);
    await until(() => !bench.saving);
    expect(await stored()).toBe('Newer');
  });

  /** A change that is undone while it is being written. */
  async function undoneWhileWritten() {
    const all = await started();
    all.name('Before');
    await all.bench.saveNow();
    const writing = held();
    all.storage.gate = writing.promise;
    all.name('Changed');
    const first = all.bench.saveNow();
    all.bench.undo();
    await nextTick();
    return { ...all, first, release: writing.release };
  }

  it('is saved as it is shown when a change is undone while it is being written', async () => {
    const { bench, stored, first, release } = await undoneWhileWritten();
    release();
    await first;
    expect([bench.job?.name, bench.saving, await stored()]).toEqual(['Before', true, 'Changed']);
    await until(() => !bench.saving);
    expect(await stored()).toBe('Before');
  });

  it('is so too when the writing takes longer than the wait after a change', async () => {
    const { bench, stored, first, release } = await undoneWhileWritten();
    const second = bench.saveNow();
    await nextTick();
    expect(bench.saving).toBe(true);
    release();
    await Promise.all([first, second]);
    expect([bench.saving, await stored()]).toEqual([false, 'Before']);
  });

  it('is not written over by a thumbnail of what it was before it was changed and changed back', async () => {
    const { bench, engine, storage, name, stored } = await started();
    const making = held();
    engine.thumbnails = making.promise;
    name('First');
    await bench.saveNow();
    name('Second');
    await bench.saveNow();
    const writing = held();
    storage.gate = writing.promise;
    bench.undo();
    const back = bench.saveNow();
    making.release();
    await new Promise((resolve) => setTimeout(resolve, 60));
    writing.release();
    await back;
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect([bench.job?.name, await stored()]).toEqual(['First', 'First']);
  });

  it('is not written over by a thumbnail when another tab has saved it meanwhile and that is not yet told', async () => {
    const { bench, engine, storage, name, stored } = await started();
    const making = held();
    engine.thumbnails = making.promise;
    name('Here');
    await bench.saveNow();
    const row = (await storage.get(bench.entry!.id)) as ShelfEntry;
    await storage.put({ ...row, job: { ...row.job, name: 'Elsewhere' } });
    making.release();
    await new Promise((resolve) => setTimeout(resolve, 120));
    expect(await stored()).toBe('Elsewhere');
  });
});
