import { createPinia, setActivePinia } from 'pinia';
import { createApp } from 'vue';
import { beforeEach, describe, expect, it } from 'vitest';
import { AppError } from '../core/errors/appError.ts';
import { USUAL_STOCK } from '../core/film/stock.ts';
import type { Engine } from '../engine/protocol.ts';
import { MemoryStorage } from '../storage/memoryStorage.ts';
import { provideServices } from './services.ts';
import { useStock } from './stock.ts';

let storage: MemoryStorage;
function fresh(): ReturnType<typeof useStock> {
  const app = createApp({});
  const pinia = createPinia();
  app.use(pinia);
  provideServices(app, { engine: {} as Engine, storage });
  setActivePinia(pinia);
  return app.runWithContext(() => useStock());
}
beforeEach(() => {
  storage = new MemoryStorage();
});

describe('the films on the shelf', () => {
  it('are the usual ones until they are changed, and are found again', async () => {
    const stock = fresh();
    await stock.load();
    expect(stock.films).toEqual(USUAL_STOCK);
    await stock.add('Quay brick', '#8a4434');
    await stock.change(stock.films[0].id, { name: 'Snow' });
    await stock.remove(stock.films[1].id);
    const again = fresh();
    await again.load();
    expect(again.films.map(({ name }) => name)).toEqual(['Snow', ...USUAL_STOCK.slice(2).map(({ name }) => name), 'Quay brick']);
    expect(new Set(again.films.map(({ id }) => id)).size).toBe(again.films.length);
  });

  it('are the usual ones when what is stored is none', async () => {
    for (const text of ['{', '[{"id":1}]', '"films"']) {
      await storage.setNote('stock', text);
      const stock = fresh();
      await stock.load();
      expect(stock.films).toEqual(USUAL_STOCK);
    }
  });

  it('say when they could not be kept, and stay as they were left', async () => {
    const stock = fresh();
    await stock.load();
    storage.setNote = () => Promise.reject(new AppError('storageFull'));
    await stock.add('Quay brick', '#8a4434');
    expect(stock.error?.code).toBe('storageFull');
    expect(stock.films.at(-1)?.name).toBe('Quay brick');
  });
});
