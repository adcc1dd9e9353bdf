import { unzipSync } from 'fflate';
import { tracedPart } from '../core/job/tracedPart.ts';
import { jobWith, sizedJob } from '../../tests/fixtures/jobWith.ts';
import { createPinia, disposePinia, setActivePinia, type Pinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { createApp } from 'vue';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { paintedArt, WHITE } from '../../tests/fixtures/shapes.ts';
import type { Job } from '../core/job/job.ts';
import { newJob } from '../core/job/newJob.ts';
import type { Recipe } from '../core/clean/recipe.ts';
import { LocalEngine } from '../engine/localEngine.ts';
import { writePng } from '../formats/picture/writePng.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { outcomeWords } from '../stages/batch/outcomeWords.ts';
import { useBatch } from './batch.ts';
import { asNewSteps, useRecipes } from './recipes.ts';
import { provideServices } from './services.ts';
import { useShelf } from './shelf.ts';

const files = await discFiles();
const file = (name: string, bytes: Uint8Array<ArrayBuffer> = files.png): File => new File([bytes.slice()], name);
const base = { enabled: true, v: 1 } as const;
const RECIPE: Recipe = [
  { kind: 'areaLift', id: 'a', ...base, at: { xPx: 1, yPx: 1 }, tolerance: 5, enclosed: false, soft: true },
  { kind: 'sweep', id: 's', ...base, speckMm2: 1, pinholeMm2: 1 },
];
const OUTSIDE: Recipe = [{ kind: 'crop', id: 'c', ...base, rect: { xPx: 900, yPx: 900, widthPx: 10, heightPx: 10 } }, ...RECIPE];

let storage: MemoryStorage;
let pinia: Pinia;
function start() {
  const app = createApp({});
  provideServices(app, { engine: new LocalEngine(decodeFile), storage });
  pinia = createPinia();
  app.use(pinia);
  setActivePinia(pinia);
  return app.runWithContext(() => ({ batch: useBatch(), shelf: useShelf(), recipes: useRecipes() }));
}
beforeEach(() => (storage = new MemoryStorage()));
afterEach(() => disposePinia(pinia));

describe('a recipe on many pictures', () => {
  it('cleans jobs and files, gives new jobs the pattern’s size and layout, and tells what was passed over', async () => {
    const { batch, shelf } = start();
    const one = await shelf.addFile(file('buoy.png'));
    const pattern: Job = { ...sizedJob(newJob('Pattern'), 55), place: { xMm: 1, yMm: 2 } };
    await batch.run(OUTSIDE, [{ entryId: one.id }, { file: file('oar.jpg', files.jpg) }, { file: file('broken.png', files.png.slice(0, 60)) }, { entryId: 'gone' }], pattern);
    expect(batch.outcomes.map(({ name, error }) => [name, error?.code])).toEqual([['Buoy', undefined], ['Oar', undefined], ['broken.png', 'truncated'], ['', 'badJob']]);
    expect(outcomeWords(batch.outcomes[0], OUTSIDE)).toContain('crop skipped: The crop lies outside');
    expect(outcomeWords(batch.outcomes[2], OUTSIDE)).toContain('breaks off before its end');
    const oar = shelf.entries.find(({ job }) => job.name === 'Oar')!;
    expect([tracedPart(oar.job).size.sizeMm, oar.job.place, tracedPart(oar.job).recipe.map(({ kind }) => kind)]).toEqual([55, undefined, ['crop', 'areaLift', 'sweep']]);
    // Steps are the job's own: a change in one leaves the others alone.
    const ids = shelf.entries.flatMap(({ job }) => tracedPart(job).recipe.map(({ id }) => id));
    expect(new Set(ids).size).toBe(ids.length);
    expect(shelf.entries).toHaveLength(2);
  });

  it('is put back: jobs as they were, new ones off the shelf', async () => {
    const { batch, shelf } = start();
    const one = await shelf.addFile(file('buoy.png'));
    await batch.run(RECIPE, [{ entryId: one.id }, { file: file('oar.png') }], undefined);
    // 80 px on the width of a shirt.
    expect(outcomeWords(batch.outcomes[0], RECIPE)).toBe('1 place to look at in the cut check');
    await batch.putBack();
    expect(shelf.entries.map(({ job }) => [job.name, tracedPart(job).recipe])).toEqual([['Buoy', tracedPart(one.job).recipe]]);
  });

  it('stops after the picture under way and keeps what is done', async () => {
    const { batch, shelf } = start();
    const running = batch.run(RECIPE, [{ file: file('a.png') }, { file: file('b.png') }, { file: file('c.png') }], undefined);
    batch.stop();
    await running;
    expect([batch.outcomes.length, batch.running]).toEqual([1, false]);
    expect(tracedPart((await storage.get(shelf.entries[0].id))!.job).recipe).toHaveLength(2);
  });

  it('hands over the sheet of every film, and tells what the cut check found', async () => {
    const { batch } = start();
    const flags = paintedArt(90, 60, (x, y) => (y < 10 || y > 50 || x < 10 || x > 80 ? WHITE : x < 45 ? { r: 179, g: 38, b: 46 } : { r: 36, g: 80, b: 154 }));
    const pattern = jobWith(newJob('Pattern'), { separation: { way: 'flat', count: 'auto', meet: 'inset' } });
    const sized = (sizeMm: number): Job => sizedJob(pattern, sizeMm);
    await batch.run([], [{ file: file('flags.png', writePng(flags.colour)) }], sized(25));
    expect(outcomeWords(batch.outcomes[0], [])).toBe('ready to cut');
    const zip = unzipSync(await batch.files(() => undefined));
    expect(Object.keys(zip).sort()).toEqual([expect.stringMatching(/^Flags-1-(red|blue)\.svg$/), expect.stringMatching(/^Flags-2-(red|blue)\.svg$/), 'Flags.png']);
    // On a metre the picture is too coarse.
    const roomy: Job = { ...sized(900), layout: { ...pattern.layout, sheet: { ...pattern.layout.sheet, widthMm: 2000, heightMm: 2000 } } };
    await batch.run([], [{ file: file('flags.png', writePng(flags.colour)) }], roomy);
    expect(outcomeWords(batch.outcomes[0], [])).toBe('1 place to look at in the cut check');
  });

  it('hands all cut files over in one zip, names told apart, and none for what cannot be cut', async () => {
    const { batch } = start();
    const huge = sizedJob(newJob('Pattern'), 50);
    await batch.run(RECIPE, [{ file: file('buoy.png') }, { file: file('buoy.png') }], huge);
    const shares: number[] = [];
    const zip = unzipSync(await batch.files((share) => shares.push(share)));
    expect(Object.keys(zip).sort()).toEqual(['Buoy 2.png', 'Buoy 2.svg', 'Buoy.png', 'Buoy.svg']);
    expect(shares).toEqual([0.5, 1]);
    const wide = sizedJob(huge, 5000);
    await batch.run(RECIPE, [{ file: file('buoy.png') }], wide);
    expect(outcomeWords(batch.outcomes[0], RECIPE)).toContain('The sheet is too small');
    expect(Object.keys(unzipSync(await batch.files(() => undefined)))).toEqual([]);
  });
});

describe('kept recipes', () => {
  it('replace one of the same name, and give steps of their own', async () => {
    const { recipes } = start();
    await recipes.keep('Scans', RECIPE);
    await recipes.keep('Scans', OUTSIDE);
    expect(recipes.all.map(({ name, recipe }) => [name, recipe.length])).toEqual([['Scans', 3]]);
    const [a, b] = [asNewSteps(RECIPE), asNewSteps(RECIPE)];
    expect(a[0].id).not.toBe(b[0].id);
    expect({ ...a[0], id: '' }).toEqual({ ...RECIPE[0], id: '' });
    const gone = await recipes.remove(recipes.all[0].id);
    expect([gone?.name, await storage.recipes()]).toEqual(['Scans', []]);
  });
});
