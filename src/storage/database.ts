import { Dexie, type Table } from 'dexie';
import type { OutlineFile } from '../formats/archive/outlineFiles.ts';
import type { KeptRow } from './keptRows.ts';
import type { NamedRecipe, PictureFile } from './ports.ts';
import type { StoredEntry, StoredVersion } from './storedRows.ts';

interface Note {
  readonly name: string;
  readonly value: string;
}

interface Thumbnail {
  readonly id: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

type ResultSize = Pick<KeptRow, 'jobId' | 'bytes' | 'usedAt'>;

/** The browser's database: its tables, and how those of older versions become the present ones. */
export class Database extends Dexie {
  entries!: Table<StoredEntry, string>;
  pictures!: Table<PictureFile, string>;
  notes!: Table<Note, string>;
  recipes!: Table<NamedRecipe, string>;
  results!: Table<KeptRow, string>;
  /** What each row of `results` takes, so that room is made without reading them. */
  resultSizes!: Table<ResultSize, string>;
  /** Small pictures, which all jobs are listed without. */
  thumbnails!: Table<Thumbnail, string>;
  versions!: Table<StoredVersion, string>;
  /** Long outlines, which lie beside their jobs and versions. */
  outlines!: Table<OutlineFile, string>;
  folders!: Table<{ readonly name: string; readonly handle: FileSystemDirectoryHandle }, string>;

  constructor(name: string) {
    super(name);
    this.version(1).stores({ entries: 'id, updatedAt, pictureId', pictures: 'id', notes: 'name' });
    this.version(2).stores({ recipes: 'id' });
    this.version(3).stores({ results: 'jobId', resultSizes: 'jobId' });
    this.version(4).stores({ entries: 'id, updatedAt' });
    this.version(5).stores({ versions: 'id, jobId', folders: 'name' });
    this.version(6)
      .stores({ thumbnails: 'id' })
      .upgrade(async (transaction) => {
        const thumbnails = transaction.table<Thumbnail, string>('thumbnails');
        await transaction.table<StoredEntry & { thumbnail?: Uint8Array<ArrayBuffer> }, string>('entries').toCollection().modify((row) => {
          if (row.thumbnail !== undefined) void thumbnails.put({ id: row.id, bytes: row.thumbnail });
          delete row.thumbnail;
        });
      });
    this.version(7).stores({ outlines: 'id', entries: 'id, updatedAt, *outlineIds', versions: 'id, jobId, *outlineIds' });
  }
}
