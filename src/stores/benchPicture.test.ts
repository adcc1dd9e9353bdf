import { disposePinia, type Pinia } from 'pinia';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { nextTick } from 'vue';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { startedStores } from '../../tests/fixtures/startedStores.ts';
import { until } from '../../tests/fixtures/until.ts';
import { AppError } from '../core/errors/appError.ts';
import { explain } from '../core/errors/explain.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import type { Engine } from '../engine/protocol.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';

const files = await discFiles();
const file = (name = 'disc.png'): File => new File([files.png.slice()], name);

let engine: Engine;
let storage: MemoryStorage;
let pinia: Pinia;

function start(): Pick<ReturnType<typeof startedStores>, 'bench' | 'shelf'> {
  const started = startedStores({ engine, storage });
  pinia = started.pinia;
  return started;
}
beforeEach(() => {
  engine = new LocalEngine(decodeFile);
  storage = new MemoryStorage();
});
afterEach(() => disposePinia(pinia));

describe('a picture that made room for others in the engine', () => {
  it('is opened again for what is asked about the job', async () => {
    const sizes = engine.workingSize;
    let [isMissing, opened] = [false, 0];
    const open = engine.open.bind(engine);
    engine.open = (...args) => {
      opened++;
      return open(...args);
    };
    engine.workingSize = (of) => {
      if (!isMissing) return sizes(of);
      isMissing = false;
      return Promise.reject(new AppError('pictureMissing'));
    };
    const { bench, shelf } = start();
    await bench.open((await shelf.addFile(file())).id);
    await until(() => bench.result?.cut !== undefined && bench.busy === undefined);
    [isMissing, opened] = [true, 0];
    const of = bench.ofJob();
    const { blockers } = await bench.workingSize(of ?? expect.unreachable());
    expect([opened, Array.isArray(blockers)]).toEqual([1, true]);
  });
});

describe('another picture', () => {
  const other = (): File => new File([files.jpg.slice()], 'oar.jpg');
  /** Lets the engine wait with the next picture until it is let go. */
  function waiting(): () => void {
    let go = (): void => undefined;
    const gate = new Promise<void>((resolve) => (go = resolve));
    const open = engine.open.bind(engine);
    engine.open = async (bytes, name) => {
      const opened = await open(bytes, name);
      if (name === 'oar.jpg') await gate;
      return opened;
    };
    return go;
  }

  it('goes to the job that it was for, also when another one lies on the bench by the time it is read', async () => {
    const { bench, shelf } = start();
    const a = await shelf.addFile(file('a.png'));
    const b = await shelf.addFile(file('b.png'));
    await bench.open(a.id);
    const go = waiting();
    const given = bench.setPicture(other());
    await new Promise((resolve) => setTimeout(resolve, 20));
    await bench.open(b.id);
    go();
    await given;
    expect([bench.entry?.id, bench.pictureInfo?.fileName, bench.pictureInfo?.id]).toEqual([b.id, 'b.png', b.job.pictures[0].id]);
    expect((await storage.get(a.id))?.job.pictures[0].fileName).toBe('oar.jpg');
    expect((await storage.get(b.id))?.job).toEqual(b.job);
  });

  it('is taken back by undo, with its file', async () => {
    const { bench, shelf } = start();
    const { id, job: { pictures: [{ id: pictureId }] } } = await shelf.addFile(file('a.png'));
    await bench.open(id);
    await bench.setPicture(other());
    expect(bench.pictureInfo?.id).not.toBe(pictureId);
    bench.undo();
    await nextTick();
    expect([bench.pictureInfo?.fileName, bench.pictureInfo?.id]).toEqual(['a.png', pictureId]);
    await bench.saveNow();
    expect(await storage.get(id)).toMatchObject({ job: { pictures: [{ id: pictureId, fileName: 'a.png' }] } });
  });

  it('of a job that was opened in passing is not shown in its place', async () => {
    const { bench, shelf } = start();
    const a = await shelf.addFile(file('a.png'));
    const b = await shelf.addFile(file('b.png'));
    await Promise.all([bench.open(a.id), bench.open(b.id)]);
    expect([bench.entry?.id, bench.job?.name]).toEqual([b.id, 'B']);
  });
});

describe('a run that fails', () => {
  it('stands as failed until one succeeds: no cut of other settings is shown, and the step is named', async () => {
    const { bench, shelf } = start();
    const { id } = await shelf.addFile(file());
    await bench.open(id);
    await until(() => bench.result?.cut !== undefined);
    const run = engine.run.bind(engine);
    engine.run = () => Promise.reject(new AppError('unexpected', { message: 'x', at: 'doing “Sweep”', change: 'Switch off or change the step “Sweep”' }));
    const job = bench.job!;
    bench.commit('Size', sizedJob(job, 90));
    await until(() => bench.result?.problem !== undefined);
    expect([bench.result?.cut, bench.result?.problem?.code]).toEqual([undefined, 'unexpected']);
    expect(explain(bench.result!.problem!).todo).toContain('Switch off or change the step “Sweep”');
    engine.run = run;
    bench.undo();
    await until(() => bench.result?.cut !== undefined);
    expect(bench.result?.problem).toBeUndefined();
  });
});
