import { describe, expect, it } from 'vitest';
import { newJob } from '../core/job/newJob.ts';
import { copyName, daysWithoutCopy, jobsToCopy, readCopies, writeCopies, type Copies } from './folderCopies.ts';
import type { ShelfEntry } from './ports.ts';

const DAY = 24 * 3600 * 1000;
const entry = (id: string, updatedAt: number, name = `Job ${id}`): ShelfEntry => ({ id, job: newJob(name), createdAt: 1, updatedAt, stage: 'picture' });

/** A folder in memory, as the File System standard (WHATWG) has it: what is written is there when it is closed. */
function folderDouble(full = Infinity): { files: Map<string, number>; handle: FileSystemDirectoryHandle } {
  const files = new Map<string, number>();
  const handle = {
    getFileHandle: async (name: string) => ({
      createWritable: async () => {
        let size = 0;
        return {
          write: async (bytes: Uint8Array) => {
            if (files.size >= full) throw new DOMException('full', 'QuotaExceededError');
            size += bytes.length;
          },
          close: async () => void files.set(name, size),
        };
      },
    }),
    removeEntry: async (name: string) => {
      if (!files.delete(name)) throw new DOMException('gone', 'NotFoundError');
    },
  };
  return { files, handle: handle as unknown as FileSystemDirectoryHandle };
}
const archiveOf = async (id: string): Promise<Uint8Array<ArrayBuffer>> => new Uint8Array(id.length + 1);

describe('copies in a folder', () => {
  it('are made of what has none or an older one, and of nothing else', async () => {
    const { files, handle } = folderDouble();
    const told: number[] = [];
    const first = await writeCopies([entry('a', 1), entry('b', 2)], {}, handle, archiveOf, async (_, count) => void told.push(count));
    expect([...files.keys()]).toEqual(['Job a a.limner', 'Job b b.limner']);
    expect(told).toEqual([1, 2]);
    files.clear();
    await writeCopies([entry('a', 1), entry('b', 3)], first, handle, archiveOf, async () => undefined);
    expect([...files.keys()]).toEqual(['Job b b.limner']);
    expect(jobsToCopy([entry('a', 0)], first).map(({ id }) => id)).toEqual(['a']);
  });

  it('follow a new name, and forgive that the old file is gone', async () => {
    const { files, handle } = folderDouble();
    const first = await writeCopies([entry('a', 1), entry('b', 1)], {}, handle, archiveOf, async () => undefined);
    files.delete('Job b b.limner');
    await writeCopies([entry('a', 2, 'Regatta: “first/last”?'), entry('b', 2, 'Duck')], first, handle, archiveOf, async () => undefined);
    expect([...files.keys()]).toEqual(['Regatta- “first-last”- a.limner', 'Duck b.limner']);
  });

  it('that were written before the folder was full stay noted', async () => {
    const { handle } = folderDouble(1);
    let noted: Copies = {};
    await expect(writeCopies([entry('a', 1), entry('b', 1)], {}, handle, archiveOf, async (copies) => void (noted = copies))).rejects.toThrow('full');
    expect(jobsToCopy([entry('a', 1), entry('b', 1)], noted).map(({ id }) => id)).toEqual(['b']);
  });

  it('have names that every system takes', () => expect(copyName(entry('12345678-9', 1, '...'))).toBe('job 12345678.limner'));

  it.each([undefined, 'not json', '{"a":1}', '[]'])('of a note that cannot be read, %s, are none', (text) => expect(readCopies(text)).toEqual({}));
});

describe('the reminder', () => {
  const now = 1000 * DAY;
  const ask = (entries: readonly ShelfEntry[], copiedAt?: number, laterUntil?: number) => daysWithoutCopy(entries, { copiedAt, laterUntil, now });
  it('comes when work of a week has no copy', () => {
    expect(ask([entry('a', now - 8 * DAY)])).toBe(8);
    expect(ask([entry('a', now - 6 * DAY)])).toBeUndefined();
    expect(ask([entry('a', now - 8 * DAY)], now - 7 * DAY)).toBeUndefined();
    expect(ask([])).toBeUndefined();
    expect(ask([{ ...entry('demo', now - 8 * DAY), createdAt: now - 8 * DAY }])).toBeUndefined();
  });
  it('waits when it is told to, and does not trust a clock that has been wrong', () => {
    expect(ask([entry('a', now - 8 * DAY)], undefined, now + DAY)).toBeUndefined();
    expect(ask([entry('a', now - 8 * DAY)], undefined, now + 4000 * DAY)).toBe(8);
    expect(ask([entry('a', now - 8 * DAY)], now + 4000 * DAY)).toBe(8);
  });
});
