import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { daysWithoutCopy, jobsToCopy, readCopies, writeCopies, type Copies } from '../storage/folderCopies.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';

const COPIED_AT = 'copiedAt';
const LATER = 'copyLater';
const COPIES = 'copies';
const WEEK_MS = 7 * 24 * 3600 * 1000;

/** What a folder of copies needs before it can be written to: there is none, the browser asks once more after a new start, nothing; or the browser has no folders. */
export type FolderState = 'impossible' | 'none' | 'ask' | 'ready';

type Permitted = FileSystemDirectoryHandle & { queryPermission?(how: { mode: 'readwrite' }): Promise<PermissionState>; requestPermission?(how: { mode: 'readwrite' }): Promise<PermissionState> };
type Picker = { showDirectoryPicker?(options: { id: string; mode: 'readwrite' }): Promise<FileSystemDirectoryHandle> };
const picker = (): Picker => (typeof window === 'undefined' ? {} : (window as Picker));

/** How safe the jobs are: what they take, whether the browser may drop them, and when copies were made. */
export const useKeeping = defineStore('keeping', () => {
  const { storage } = useServices();
  const shelf = useShelf();
  /** What all of Limner takes in this browser, and what it may take, bytes; undefined where the browser does not say. */
  const usedBytes = ref<number>();
  const roomBytes = ref<number>();
  /** Whether the browser has promised not to drop the jobs when the disk is short. */
  const isPersisted = ref<boolean>();
  const copiedAt = ref<number>();
  const laterUntil = ref<number>();
  const folder = shallowRef<Permitted>();
  const folderState = ref<FolderState>('none');
  const copies = shallowRef<Copies>({});
  const copying = ref(false);

  const uncopied = computed(() => jobsToCopy(shelf.entries, copies.value).length);
  /** For how many days there has been work without a copy, when that is worth a word. */
  const overdueDays = computed(() => daysWithoutCopy(shelf.entries, { copiedAt: copiedAt.value, laterUntil: laterUntil.value, now: Date.now() }));

  const numberNoted = async (name: string): Promise<number | undefined> => {
    const value = Number(await storage.note(name));
    return Number.isFinite(value) && value > 0 ? value : undefined;
  };

  async function load(): Promise<void> {
    [copiedAt.value, laterUntil.value] = await Promise.all([numberNoted(COPIED_AT), numberNoted(LATER)]);
    copies.value = readCopies(await storage.note(COPIES));
    folder.value = await storage.folder();
    await lookAtFolder();
    await measure();
  }

  async function lookAtFolder(): Promise<void> {
    if (picker().showDirectoryPicker === undefined) folderState.value = 'impossible';
    else if (folder.value === undefined) folderState.value = 'none';
    else folderState.value = (await folder.value.queryPermission?.({ mode: 'readwrite' })) === 'granted' ? 'ready' : 'ask';
  }

  async function measure(): Promise<void> {
    const manager = typeof navigator === 'undefined' ? undefined : navigator.storage;
    if (manager?.estimate === undefined) return;
    const { usage, quota } = await manager.estimate();
    [usedBytes.value, roomBytes.value] = [usage, quota];
    isPersisted.value = await manager.persisted();
  }

  /** Asks the browser to keep the jobs whatever comes. Browsers answer by themselves or ask the person. */
  async function askToPersist(): Promise<boolean> {
    isPersisted.value = await navigator.storage.persist();
    return isPersisted.value;
  }

  async function noteCopied(): Promise<void> {
    copiedAt.value = Date.now();
    await storage.setNote(COPIED_AT, String(copiedAt.value));
  }

  /** No word of copies for a week. */
  async function later(): Promise<void> {
    laterUntil.value = Date.now() + WEEK_MS;
    await storage.setNote(LATER, String(laterUntil.value));
  }

  /** All jobs as one file, and the day is noted. */
  async function asOneFile(): Promise<Uint8Array<ArrayBuffer>> {
    const bytes = await shelf.archiveOfAll(shelf.entries.map(({ id }) => id));
    await noteCopied();
    return bytes;
  }

  /** Has a folder chosen and writes all jobs into it. @returns whether one was chosen. */
  async function chooseFolder(): Promise<boolean> {
    const chosen = await picker().showDirectoryPicker?.({ id: 'limner-copies', mode: 'readwrite' }).catch((error: unknown) => {
      if (error instanceof DOMException && error.name === 'AbortError') return undefined;
      throw error;
    });
    if (chosen === undefined) return false;
    folder.value = chosen;
    await storage.setFolder(chosen);
    await noteCopies({});
    await lookAtFolder();
    await copyToFolder();
    return true;
  }

  /** The folder is used no more; what lies in it stays. */
  async function leaveFolder(): Promise<void> {
    folder.value = undefined;
    await storage.setFolder(undefined);
    await lookAtFolder();
  }

  async function noteCopies(next: Copies): Promise<void> {
    copies.value = next;
    await storage.setNote(COPIES, JSON.stringify(next));
  }

  /** Writes what has changed into the folder. @param mayAsk whether the browser may ask for the folder once more, which it does only at a click. */
  async function copyToFolder(mayAsk = true): Promise<void> {
    const into = folder.value;
    if (into === undefined || copying.value) return;
    if (folderState.value === 'ask' && mayAsk) folderState.value = (await into.requestPermission?.({ mode: 'readwrite' })) === 'granted' ? 'ready' : 'ask';
    if (folderState.value !== 'ready') return;
    copying.value = true;
    try {
      await writeCopies(shelf.entries, copies.value, into, async (id) => (await shelf.archiveOf(id))?.bytes, noteCopies);
      await noteCopied();
    } finally {
      copying.value = false;
    }
  }

  return { usedBytes, roomBytes, isPersisted, copiedAt, folder, folderState, copying, uncopied, overdueDays, load, measure, askToPersist, later, asOneFile, chooseFolder, leaveFolder, copyToFolder };
});
