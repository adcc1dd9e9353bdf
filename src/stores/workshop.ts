import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { asAppError, type AppError } from '../core/errors/appError.ts';
import { readWorkshop, USUAL_WORKSHOP, workshopSchema, writeWorkshop, type Workshop } from '../core/workshop/workshop.ts';
import { useServices } from './services.ts';
import { useStock } from './stock.ts';

const NOTE = 'workshop';

/** What the workshop has beside its films: materials, machines and blanks, the same for all jobs, kept in the browser. */
export const useWorkshop = defineStore('workshop', () => {
  const { storage } = useServices();
  const stock = useStock();
  const shelves = shallowRef<Workshop>(USUAL_WORKSHOP);
  const error = shallowRef<AppError>();
  let loading: Promise<void> | undefined;

  /** Reads the shelves once; what is stored and no longer passes is left alone and the usual ones are shown. */
  const load = (): Promise<void> => (loading ??= Promise.all([read(), stock.load()]).then(() => undefined));
  async function read(): Promise<void> {
    try {
      const text = await storage.note(NOTE);
      if (text === undefined) return;
      const parsed = workshopSchema.safeParse(JSON.parse(text));
      if (parsed.success) shelves.value = parsed.data;
    } catch (caught) {
      if (!(caught instanceof SyntaxError)) error.value = asAppError(caught, 'storageFailed');
    }
  }

  /** What is shown is kept; what could not be kept is shown all the same, with why. */
  async function save(next: Workshop): Promise<void> {
    try {
      await storage.setNote(NOTE, JSON.stringify(next));
      error.value = undefined;
    } catch (caught) {
      error.value = asAppError(caught, 'storageFailed');
    }
    shelves.value = next;
  }

  /** All of it as one file. */
  const asFile = (): string => writeWorkshop({ format: 'limner-workshop', version: 1, films: [...stock.films], ...shelves.value });
  /** Takes all of a file in place of what is there. @throws AppError `badWorkshop`; nothing is changed then. */
  async function take(text: string, fileName: string): Promise<void> {
    const { films, format: _format, version: _version, ...rest } = readWorkshop(text, fileName);
    await stock.save(films);
    await save(rest);
  }
  return { shelves, error, load, save, asFile, take };
});
