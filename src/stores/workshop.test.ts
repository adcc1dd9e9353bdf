import { createPinia, setActivePinia } from 'pinia';
import { createApp } from 'vue';
import { beforeEach, describe, expect, it } from 'vitest';
import { codeOf } from '../../tests/fixtures/errorCode.ts';
import { AppError } from '../core/errors/appError.ts';
import { USUAL_STOCK } from '../core/film/stock.ts';
import { readWorkshop, USUAL_WORKSHOP, USUAL_WORKSHOP_FILE, workshopFileSchema, writeWorkshop } from '../core/workshop/workshop.ts';
import type { Engine } from '../engine/protocol.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { completedRow, fieldsOf, freshRow, rowWords, SHELF_NAMES, type ShelfName } from '../stages/workshop/shelves.ts';
import { valueAt, withValue } from '../stages/workshop/shelfFields.ts';
import { provideServices } from './services.ts';
import { useStock } from './stock.ts';
import { useWorkshop } from './workshop.ts';

let storage: MemoryStorage;
function fresh() {
  const app = createApp({});
  const pinia = createPinia();
  app.use(pinia);
  provideServices(app, { engine: {} as Engine, storage });
  setActivePinia(pinia);
  return app.runWithContext(() => ({ workshop: useWorkshop(), stock: useStock() }));
}
beforeEach(() => {
  storage = new MemoryStorage();
});

describe('the workshop', () => {
  it('is the usual one until it is changed, and is found again', async () => {
    const { workshop } = fresh();
    await workshop.load();
    expect(workshop.shelves).toEqual(USUAL_WORKSHOP);
    const [first, ...others] = workshop.shelves.materials;
    await workshop.save({ ...workshop.shelves, materials: [{ ...first, least: { ...first.least, stripMm: 1.1 } }, ...others] });
    const again = fresh();
    await again.workshop.load();
    expect(again.workshop.shelves.materials[0].least.stripMm).toBe(1.1);
  });

  it('goes to another shop as a file and comes back the same, films and all', async () => {
    const { workshop, stock } = fresh();
    await workshop.load();
    await stock.add('Quay brick', '#8a4434');
    const text = workshop.asFile();
    storage = new MemoryStorage();
    const other = fresh();
    await other.workshop.load();
    await other.workshop.take(text, 'quay.json');
    expect(other.stock.films).toEqual([...USUAL_STOCK, expect.objectContaining({ name: 'Quay brick' })]);
    expect(JSON.parse(other.workshop.asFile())).toEqual(JSON.parse(text));
  });

  it('says what is wrong with a file and stays as it is', async () => {
    const { workshop } = fresh();
    await workshop.load();
    for (const text of ['', '{', '{"format":"limner-job"}', JSON.stringify({ ...USUAL_WORKSHOP_FILE, machines: [{ id: 'x' }] }), JSON.stringify({ ...USUAL_WORKSHOP_FILE, extra: 1 })]) {
      await expect(workshop.take(text, 'broken.json')).rejects.toMatchObject({ code: 'badWorkshop' });
    }
    expect(codeOf(() => readWorkshop('[]', 'broken.json'))).toBe('badWorkshop');
    expect(workshop.shelves).toEqual(USUAL_WORKSHOP);
    expect(readWorkshop(writeWorkshop(USUAL_WORKSHOP_FILE), 'own.json')).toEqual(USUAL_WORKSHOP_FILE);
  });

  it('is the usual one when what is stored is none, and says when it could not be kept', async () => {
    await storage.setNote('workshop', '{"materials":7}');
    const { workshop } = fresh();
    await workshop.load();
    expect(workshop.shelves).toEqual(USUAL_WORKSHOP);
    storage.setNote = () => Promise.reject(new AppError('storageFull'));
    await workshop.save({ ...workshop.shelves, machines: [] });
    expect([workshop.error?.code, workshop.shelves.machines]).toEqual(['storageFull', []]);
  });
});

describe('the shelves of the workshop as forms', () => {
  const names = Object.keys(SHELF_NAMES) as ShelfName[];
  it('have a field for every value, whose entries still pass when they are changed to their ends', () => {
    for (const shelf of names) {
      for (const row of USUAL_WORKSHOP_FILE[shelf]) {
        let now = completedRow(row);
        expect(rowWords(now, 'mm', USUAL_WORKSHOP_FILE.materials).name).not.toBe('');
        for (const { fields } of fieldsOf(shelf, USUAL_WORKSHOP_FILE.materials)) {
          for (const { path, kind, least, choices, isOf, none } of fields) {
            if (isOf?.(now) === false) continue;
            const value = kind === 'text' ? 'New name' : kind === 'colour' ? '#123456' : kind === 'switch' ? true : kind === 'choice' ? Object.keys(choices ?? {}).at(-1) : none !== undefined ? undefined : least;
            now = completedRow(withValue(now, path, value));
            expect(workshopFileSchema.safeParse({ ...USUAL_WORKSHOP_FILE, [shelf]: [now] }).success, `${shelf} ${path.join('.')} ${String(value)}`).toBe(true);
            if (value !== undefined) expect(valueAt(now, path)).toBe(value);
          }
        }
      }
    }
  });

  it('add an entry like the one that is chosen, also where there is none', () => {
    for (const shelf of names) {
      for (const like of [undefined, USUAL_WORKSHOP_FILE[shelf][1]]) {
        const row = freshRow(shelf, 'own-1', like);
        expect(workshopFileSchema.safeParse({ ...USUAL_WORKSHOP_FILE, [shelf]: [row] }).success, shelf).toBe(true);
      }
    }
  });
});
