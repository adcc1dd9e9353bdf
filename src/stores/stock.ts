import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { asAppError, type AppError } from '../core/errors/appError.ts';
import { stockSchema, USUAL_STOCK, type StockFilm } from '../core/film/stock.ts';
import { useServices } from './services.ts';

const NOTE = 'stock';

/** The films that lie on the workshop's shelf: the same for all jobs, kept in the browser. */
export const useStock = defineStore('stock', () => {
  const { storage } = useServices();
  const films = shallowRef<readonly StockFilm[]>(USUAL_STOCK);
  const error = shallowRef<AppError>();
  let loading: Promise<void> | undefined;

  /** Reads the shelf once; what is stored and no longer passes is left alone and the usual films are shown. */
  const load = (): Promise<void> => (loading ??= read());
  async function read(): Promise<void> {
    try {
      const text = await storage.note(NOTE);
      if (text === undefined) return;
      const parsed = stockSchema.safeParse(JSON.parse(text));
      if (parsed.success) films.value = parsed.data;
    } catch (caught) {
      if (!(caught instanceof SyntaxError)) error.value = asAppError(caught, 'storageFailed');
    }
  }

  /** What is shown is kept; what could not be kept is shown all the same, with why. */
  async function save(next: readonly StockFilm[]): Promise<void> {
    try {
      await storage.setNote(NOTE, JSON.stringify(next));
      error.value = undefined;
    } catch (caught) {
      error.value = asAppError(caught, 'storageFailed');
    }
    films.value = next;
  }

  const add = (name: string, colour: string): Promise<void> => save([...films.value, { id: `stock-${Date.now().toString(36)}-${films.value.length}`, name, colour }]);
  const change = (id: string, to: Partial<Omit<StockFilm, 'id'>>): Promise<void> => save(films.value.map((film) => (film.id === id ? { ...film, ...to } : film)));
  const remove = (id: string): Promise<void> => save(films.value.filter((film) => film.id !== id));
  return { films, error, load, save, add, change, remove };
});
