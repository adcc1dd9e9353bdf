import { disposePinia, type Pinia } from 'pinia';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { startedStores } from '../../tests/fixtures/startedStores.ts';
import { until } from '../../tests/fixtures/until.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import type { Engine } from '../engine/protocol.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { bytesOf } from '../core/task/bytesOf.ts';
import { KeptResults } from './keptResult.ts';

const files = await discFiles();

/** The real engine, which opens nothing until it is let. */
class SlowEngine extends LocalEngine {
  mayOpen: Promise<void> = Promise.resolve();
  readonly ran: string[] = [];
  override open: Engine['open'] = async (...args) => {
    await this.mayOpen;
    return super.open(...args);
  };
  override run: Engine['run'] = (request, onProgress) => {
    this.ran.push(request.quality);
    return super.run(request, onProgress);
  };
}

let engine: SlowEngine;
let storage: MemoryStorage;
let pinia: Pinia;

function start(): Pick<ReturnType<typeof startedStores>, 'bench' | 'shelf'> {
  const started = startedStores({ engine, storage });
  pinia = started.pinia;
  return started;
}

/** A job that was shown once and put away, and the hand that lets its picture open again. */
async function putAway() {
  const { bench, shelf } = start();
  const { id } = await shelf.addFile(new File([files.png.slice()], 'disc.png'));
  await bench.open(id);
  await until(() => bench.result?.cut !== undefined && bench.isCurrent);
  const before = { result: bench.result!, pixels: bench.cleanView!.pixels };
  bench.close();
  await until(() => storage.hasKept(id));
  let letOpen = (): void => undefined;
  engine.mayOpen = new Promise((resolve) => (letOpen = resolve));
  engine.ran.length = 0;
  return { bench, shelf, id, before, letOpen };
}

beforeEach(() => {
  engine = new SlowEngine(decodeFile);
  storage = new MemoryStorage();
});
afterEach(() => disposePinia(pinia));

describe('a job that was shown before', () => {
  it('stands there whole before its picture is read, and is made anew only behind it', async () => {
    const { bench, id, before, letOpen } = await putAway();
    const opening = bench.open(id);
    await until(() => bench.result !== undefined);
    expect(bench.isCurrent).toBe(true);
    expect(bench.result?.cut).toEqual(before.result.cut);
    expect(bench.picture?.widthPx).toBe(bench.pictureInfo?.widthPx);
    expect(Buffer.compare(Buffer.from(bench.cleanView!.pixels.data), Buffer.from(before.pixels.data))).toBe(0);
    expect(engine.ran).toEqual([]);
    const shown = bench.result;
    letOpen();
    await opening;
    await until(() => engine.ran.length > 0);
    expect([bench.result === shown, bench.busy, engine.ran]).toEqual([true, undefined, ['final']]);
  });

  it('follows a change, also one that comes before its picture is read', async () => {
    const { bench, id, letOpen } = await putAway();
    const opening = bench.open(id);
    await until(() => bench.result !== undefined);
    bench.commit('Size', sizedJob(bench.job!, 33));
    expect(bench.isCurrent).toBe(false);
    letOpen();
    await opening;
    await until(() => bench.isCurrent);
    expect(bench.result?.cut?.design.widthMm).toBeCloseTo(33, 6);
  });

  it('lets a closer look and a file wait for the picture instead of failing', async () => {
    const { bench, id, letOpen } = await putAway();
    const opening = bench.open(id);
    await until(() => bench.result !== undefined);
    const { pictureKey } = bench.picture!;
    const looked = bench.region({ pictureKey, cleanKey: bench.result!.clean.key, xPx: 0, yPx: 0, widthPx: 8, heightPx: 8, outWidth: 4, outHeight: 4 });
    const saved = bench.exportFile({ pictureKey, job: bench.job!, kind: 'svg' });
    letOpen();
    await opening;
    expect((await looked).width).toBe(4);
    expect((await saved).length).toBeGreaterThan(100);
  });

  it('is made anew when it was changed elsewhere meanwhile', async () => {
    const { bench, id, letOpen } = await putAway();
    const row = (await storage.get(id))!;
    await storage.put({ ...row, job: sizedJob(row.job, 44) });
    letOpen();
    await bench.open(id);
    expect(bench.result).toBeUndefined();
    await until(() => bench.result?.cut !== undefined);
    expect(bench.result?.cut?.design.widthMm).toBeCloseTo(44, 6);
  });
});

describe('kept results', () => {
  it('hold for the program that made them and for the same settings, whatever the job is called', async () => {
    const { id } = await putAway();
    const row = (await storage.get(id))!;
    const read = (build: string | undefined, job = row.job) => new KeptResults(storage, build).read(id, Promise.resolve({ ...row, job }));
    expect(await read('tested')).toBeDefined();
    expect(await read('tested', { ...row.job, name: 'Another name', keywords: ['disc'] })).toBeDefined();
    expect(await read('another build')).toBeUndefined();
    expect(await read(undefined)).toBeUndefined();
    expect(await read('tested', { ...row.job, process: 'stencil' })).toBeUndefined();
  });

  it('know what they take', () => {
    expect(bytesOf({ a: new Float64Array(100), b: [new Uint8Array(50)] })).toBeGreaterThan(850);
    expect(bytesOf({ a: new Float64Array(100), b: [new Uint8Array(50)] })).toBeLessThan(900);
    expect(bytesOf('boats')).toBe(5);
  });
});
