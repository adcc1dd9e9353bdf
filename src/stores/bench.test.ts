import { disposePinia, type Pinia } from 'pinia';
import { tracedPart } from '../core/job/tracedPart.ts';
import { jobWith, sizedJob } from '../../tests/fixtures/jobWith.ts';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import sharp from 'sharp';
import { nextTick, watch } from 'vue';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { startedStores } from '../../tests/fixtures/startedStores.ts';
import { until } from '../../tests/fixtures/until.ts';
import { AppError } from '../core/errors/appError.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import type { Engine, OnProgress, RunRequest, RunResult } from '../engine/protocol.ts';
import { LocalSignal } from '../storage/jobSignal.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import type { useBench } from './bench.ts';

const files = await discFiles();
const file = (name = 'disc.png'): File => new File([files.png.slice()], name);

/** The real engine in-process, with a hand on when thumbnails come and whether the worker is lost. */
class HeldEngine extends LocalEngine {
  late: OnProgress | undefined;
  loseNext = false;
  /** How many times opening a picture loses the engine. */
  loseOpening = 0;
  thumbnails: Promise<void> = Promise.resolve();
  opened = 0;
  /** Quality and first step of each run. */
  readonly asked: string[] = [];
  /** Called with what was asked when a run is done, before its answer goes out. */
  afterRun: (request: RunRequest) => Promise<void> = async () => undefined;

  override open: Engine['open'] = (bytes, name) => {
    this.opened++;
    if (this.loseOpening > 0) {
      this.loseOpening--;
      return Promise.reject(new AppError('workerLost'));
    }
    return super.open(bytes, name);
  };
  override async run(request: RunRequest, onProgress?: OnProgress): Promise<RunResult> {
    if (this.loseNext) {
      this.loseNext = false;
      throw new AppError('workerLost');
    }
    this.late = onProgress;
    this.asked.push(`${request.quality} ${tracedPart(request.job).recipe[0]?.id ?? 'none'}`);
    const result = await super.run(request, onProgress);
    await this.afterRun(request);
    return result;
  }
  override export: Engine['export'] = async (request) => {
    await this.thumbnails;
    return super.export(request);
  };
}

let engine: HeldEngine;
let storage: MemoryStorage;
let pinia: Pinia;

function start(signal = new LocalSignal()): Pick<ReturnType<typeof startedStores>, 'bench' | 'shelf'> {
  const started = startedStores({ engine, storage, signal });
  pinia = started.pinia;
  return started;
}

beforeEach(() => {
  engine = new HeldEngine(decodeFile);
  storage = new MemoryStorage();
});
afterEach(() => disposePinia(pinia));

describe('bench', () => {
  it('opens the picture once more when the engine is lost meanwhile, and lets one try again when that fails too', async () => {
    const { bench, shelf } = start();
    const { id } = await shelf.addFile(file());
    engine.loseOpening = 1;
    await bench.open(id);
    expect(bench.picture).toBeDefined();
    bench.close();
    engine.loseOpening = 2;
    await expect(bench.open(id)).rejects.toMatchObject({ code: 'workerLost' });
    expect([bench.job?.name, bench.picture, bench.pictureFailed]).toEqual(['Disc', undefined, true]);
    await bench.reopenPicture();
    await until(() => bench.result?.cut !== undefined);
    expect(bench.pictureFailed).toBe(false);
  });

  it('shows what the engine made of the job, and again after each change', async () => {
    const { bench, shelf } = start();
    await bench.open((await shelf.addFile(file())).id);
    await until(() => bench.result?.cut !== undefined);
    expect(bench.job?.name).toBe('Disc');
    const before = bench.result;
    bench.commit('Size', sizedJob(bench.job!, 33));
    await until(() => bench.result !== before && bench.busy === undefined);
    expect(bench.result?.cut?.design.widthMm).toBeCloseTo(33, 6);
    bench.undo();
    await until(() => Math.abs((bench.result?.cut?.design.widthMm ?? 0) - before!.cut!.design.widthMm) < 1e-6);
  });

  it('is not busy for ever when a word of progress arrives after the result', async () => {
    const { bench, shelf } = start();
    await bench.open((await shelf.addFile(file())).id);
    await until(() => bench.result !== undefined && bench.busy === undefined);
    engine.late?.(0.9);
    await nextTick();
    expect(bench.busy).toBeUndefined();
  });

  it('shows the newest of two changes of a large picture, although the older one is half done', async () => {
    const { bench, shelf } = start();
    const large = new Uint8Array(await sharp({ create: { width: 1400, height: 1300, channels: 3, background: '#fff' } }).composite([{ input: Buffer.from('<svg width="800" height="800"><circle cx="400" cy="400" r="300" fill="#123"/></svg>') }]).png().toBuffer());
    await bench.open((await shelf.addFile(new File([large], 'large.png'))).id);
    await until(() => bench.result?.quality === 'final');
    const withLevels = (id: string) => jobWith(bench.job!, { recipe: [{ kind: 'levels', id, enabled: true, v: 1, points: 'auto', gamma: 1, saturation: 1, invert: false }] });
    const isSecondMade = new Promise<void>((made) => {
      engine.afterRun = async ({ quality, job }) => {
        if (tracedPart(job).recipe[0]?.id !== 'first') return;
        // The whole run of the first change is done late, on a fast machine too.
        if (quality !== 'preview') return isSecondMade;
        // The second change comes just when the first one's reduced run is done.
        bench.commit('Second', withLevels('second'));
        await nextTick();
        made();
      };
    });
    const shown: string[] = [];
    const stop = watch(() => bench.result, (result) => result?.quality === 'final' && shown.push(result.clean.steps[0]?.id));
    bench.commit('First', withLevels('first'));
    await until(() => bench.result?.quality === 'final' && bench.result.clean.steps[0]?.id === 'second');
    stop();
    expect(engine.asked).toContain('preview first');
    expect(shown).toEqual(['second']);
  });

  it('shows the whole picture sharp again when a reduced run has come between and its pixels are left out', async () => {
    const { bench, shelf } = start();
    const large = new Uint8Array(await sharp({ create: { width: 1400, height: 1300, channels: 3, background: '#fff' } }).composite([{ input: Buffer.from('<svg width="800" height="800"><circle cx="400" cy="400" r="300" fill="#123"/></svg>') }]).png().toBuffer());
    await bench.open((await shelf.addFile(new File([large], 'large.png'))).id);
    await until(() => bench.isCurrent);
    const sharpKey = bench.cleanView?.key;
    const part = tracedPart(bench.job!);
    // Nothing that the clean art follows from changes.
    bench.commit('Corners', jobWith(bench.job!, { outline: { ...part.outline, cornerDeg: part.outline.cornerDeg + 5 } }));
    await until(() => bench.isCurrent);
    expect(bench.cleanView?.key).toBe(sharpKey);
    expect(bench.cleanView?.pixels.width).toBe(1400);
  });

  it('saves the job at once and its thumbnail when the engine finds time', async () => {
    const { bench, shelf } = start();
    const { id, thumbnail } = await shelf.addFile(file());
    await bench.open(id);
    await until(() => bench.result !== undefined);
    let release = (): void => undefined;
    engine.thumbnails = new Promise((resolve) => (release = resolve));
    bench.commit('Name', { ...jobWith(bench.job!, { recipe: [{ kind: 'colourLift', id: 'a', enabled: true, v: 1, colour: '#ffffff', tolerance: 5, soft: true }] }), name: 'Saved' });
    await bench.saveNow();
    expect((await storage.get(id))?.job.name).toBe('Saved');
    expect(await storage.thumbnail(id)).toEqual(thumbnail);
    release();
    await until(() => bench.entry?.thumbnail?.length !== thumbnail?.length);
    expect((await storage.get(id))?.job.name).toBe('Saved');
  });

  it('a thumbnail that comes late does not bring an older job back', async () => {
    const { bench, shelf } = start();
    const { id } = await shelf.addFile(file());
    await bench.open(id);
    await until(() => bench.result !== undefined);
    let release = (): void => undefined;
    engine.thumbnails = new Promise((resolve) => (release = resolve));
    bench.commit('Name', { ...bench.job!, name: 'Older' });
    await bench.saveNow();
    bench.commit('Name', { ...bench.job!, name: 'Newer' });
    release();
    await bench.saveNow();
    await new Promise((resolve) => setTimeout(resolve, 60));
    expect((await storage.get(id))?.job.name).toBe('Newer');
  });

  it('opens the picture again when the worker was lost', async () => {
    const { bench, shelf } = start();
    await bench.open((await shelf.addFile(file())).id);
    await until(() => bench.result !== undefined && bench.busy === undefined);
    const opened = engine.opened;
    const before = bench.result;
    engine.loseNext = true;
    bench.commit('Size', sizedJob(bench.job!, 44));
    await until(() => bench.result !== before);
    expect(engine.opened).toBe(opened + 1);
    expect(bench.result?.cut?.design.widthMm).toBeCloseTo(44, 6);
  });
});

describe('two tabs', () => {
  const sized = (bench: ReturnType<typeof useBench>, sizeMm: number) => sizedJob(bench.job!, sizeMm);

  /** Two tabs with the same job open. */
  async function twoTabs() {
    const [here, there] = LocalSignal.joined(2);
    const one = start(here);
    const { id } = await one.shelf.addFile(file());
    const first = pinia;
    const two = start(there);
    // They share the test's one engine, whose newest run wins: one after the other.
    await one.bench.open(id);
    await until(() => one.bench.result !== undefined);
    await two.bench.open(id);
    await until(() => two.bench.result !== undefined);
    return { id, one, two, first };
  }

  it('take over what the other saved, and undo brings one’s own back', async () => {
    const { id, one, two, first } = await twoTabs();

    one.bench.commit('Size', sized(one.bench, 33));
    await one.bench.saveNow();
    await until(() => two.bench.part?.size.sizeMm === 33);
    two.bench.commit('Size', sized(two.bench, 44));
    await two.bench.saveNow();
    await until(() => one.bench.part?.size.sizeMm === 44);
    expect([one.bench.undoLabel, tracedPart((await storage.get(id))!.job).size.sizeMm]).toEqual(['Changed in another tab', 44]);
    one.bench.undo();
    expect(one.bench.part?.size.sizeMm).toBe(33);
    disposePinia(first);
  });

  it('do not tell each other of what is the same, so that neither saves for ever', async () => {
    const { one, two, first } = await twoTabs();
    let saves = 0;
    const put = storage.put.bind(storage);
    storage.put = (...args) => {
      saves++;
      return put(...args);
    };
    one.bench.commit('Size', sized(one.bench, 33));
    await until(() => two.bench.part?.size.sizeMm === 33);
    // Longer than a save waits for the next change: had the other tab saved in turn, it would have by now.
    await new Promise((resolve) => setTimeout(resolve, 1500));
    // The job and its thumbnail, from the tab that changed it.
    expect(saves).toBeLessThanOrEqual(2);
    disposePinia(first);
  });
});

describe('shelf', () => {
  it('keeps nothing of a file that cannot be read, and says which one', async () => {
    const { shelf } = start();
    await expect(shelf.addFile(new File(['no picture at all, only a few words'], 'note.txt'))).rejects.toMatchObject({ code: 'notAPicture', details: { file: 'note.txt' } });
    expect((await storage.all()).entries).toEqual([]);
  });

  it('duplicates, renames, deletes and brings back', async () => {
    const { shelf } = start();
    const { id } = await shelf.addFile(file('duck-race.png'));
    const copy = await shelf.duplicate(id);
    expect(copy?.job.name).toBe('Duck race, copy');
    await shelf.rename(id, '  Small ducks ');
    expect((await storage.get(id))?.job.name).toBe('Small ducks');
    await shelf.remove(id);
    expect(shelf.entries.map((entry) => entry.id)).toEqual([copy?.id]);
    await shelf.restore(id);
    expect(shelf.entries).toHaveLength(2);
    await shelf.remove(id);
    await shelf.purgeDeleted();
    expect(await storage.get(id)).toBeUndefined();
    expect(await storage.picture(copy!.job.pictures[0].id)).toBeDefined();
  });

  it('removes nothing for good that another tab can still bring back', async () => {
    const [one, two] = LocalSignal.joined(2);
    const here = start(one);
    const { id } = await here.shelf.addFile(file());
    await here.shelf.remove(id);
    const first = pinia;
    const there = start(two);
    await there.shelf.load();
    await there.shelf.purgeDeleted();
    expect(await storage.get(id)).toBeDefined();
    await here.shelf.restore(id);
    expect((await storage.get(id))?.deletedAt).toBeUndefined();
    disposePinia(first);
  });

  it('opens a job from its archive as it was', async () => {
    const { bench, shelf } = start();
    const { id } = await shelf.addFile(file());
    await bench.open(id);
    const archive = await shelf.archiveOf(id);
    const again = await shelf.addFile(new File([archive!.bytes], archive!.fileName));
    expect(again.job).toEqual((await storage.get(id))?.job);
    expect(again.id).not.toBe(id);
  });
});
