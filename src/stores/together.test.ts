import { unzipSync } from 'fflate';
import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { createApp } from 'vue';
import { decodeFile } from '../../cli/decodeFile.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { newJob } from '../core/job/newJob.ts';
import { withProcess } from '../core/edit/withProcess.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { provideServices } from './services.ts';
import { useShelf } from './shelf.ts';
import { useTogether } from './together.ts';

const files = await discFiles();
const file = (name: string): File => new File([files.png.slice()], name);
let storage: MemoryStorage;
let pinia: Pinia;
function start() {
  const app = createApp({});
  provideServices(app, { engine: new LocalEngine(decodeFile, { tools: shapeTools }), storage });
  pinia = createPinia();
  app.use(pinia);
  setActivePinia(pinia);
  return app.runWithContext(() => ({ together: useTogether(), shelf: useShelf() }));
}
beforeEach(() => (storage = new MemoryStorage()));
afterEach(() => disposePinia(pinia));

describe('several jobs together', () => {
  it('share sheets of the film that both have, and are told when something changed since', async () => {
    const { together, shelf } = start();
    const [a, b] = [await shelf.addFile(file('buoy.png'), { pattern: newJob('Pattern') }), await shelf.addFile(file('oar.png'), { pattern: newJob('Pattern') })];
    together.pick(a.id, 2);
    together.pick(b.id, 1);
    await together.lay();
    expect(together.error).toBeUndefined();
    const shared = together.laid.filter(({ jobs }) => jobs.length === 2);
    expect(shared).toHaveLength(1);
    expect(shared[0].sheets.flatMap(({ placements }) => placements.map(({ partId }) => partId)).sort()).toEqual(['job-1', 'job-1', 'job-2']);
    expect(together.isCurrent).toBe(true);
    const svgs = Object.values(unzipSync(together.zip())).map((bytes) => new TextDecoder().decode(bytes));
    expect(svgs.some((svg) => svg.includes('Job 1: ') && svg.includes('Job 2: '))).toBe(true);
    together.pick(b.id, 4);
    expect(together.isCurrent).toBe(false);
    together.pick(b.id, 0);
    expect(together.picked).toEqual([{ entryId: a.id, copies: 2 }]);
  }, 60_000);

  it('offers only what is cut of film, and says when a job does not fit', async () => {
    const { together, shelf } = start();
    const cut = await shelf.addFile(file('buoy.png'));
    await shelf.addFile(file('mug.png'), { pattern: withProcess(newJob('Mug', 'waterslide'), 'waterslide') });
    expect(together.choices.map(({ id }) => id)).toEqual([cut.id]);
    together.pick(cut.id, 1);
    together.settings = { ...together.settings, sheet: { ...together.settings.sheet, widthMm: 60, heightMm: 60 } };
    await together.lay();
    expect(together.error?.code).toBe('doesNotFit');
    expect([together.laid, together.share]).toEqual([[], undefined]);
  }, 60_000);
});
