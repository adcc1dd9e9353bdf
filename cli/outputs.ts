import { mkdir, rename, rm, stat, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import { reasonOf } from './files.ts';

let written = 0;

/** Where a command writes: never over what it reads, a file whole or not at all, and never two results to one name. */
export class Outputs {
  private constructor(
    /** Device and number of each file that is read. */
    private readonly inputs: ReadonlyMap<string, string>,
    private readonly force: boolean,
  ) {}

  /** @param inputs files that the command reads. @param force writes over them all the same. */
  static async of(inputs: readonly string[], force = false): Promise<Outputs> {
    const known = await Promise.all(inputs.map(async (path): Promise<[string, string] | undefined> => {
      const mark = await fileMark(path);
      return mark === undefined ? undefined : [mark, path];
    }));
    return new Outputs(new Map(known.filter((each) => each !== undefined)), force);
  }

  /** Makes a folder and tries whether one can write there: before the first picture, not after the last. @throws AppError `cannotWrite`. */
  async prepare(folder: string): Promise<void> {
    await makeFolder(folder);
    const trial = join(folder, temporaryName('trial'));
    try {
      await writeFile(trial, '');
      await rm(trial);
    } catch (error) {
      throw new AppError('cannotWrite', { file: folder, message: reasonOf(error) }, error);
    }
  }

  /** @throws AppError `wouldOverwrite` when a file is one of those that are read. Links to it count. */
  async check(path: string): Promise<void> {
    if (this.force) return;
    const mark = await fileMark(path);
    if (mark !== undefined && this.inputs.has(mark)) throw new AppError('wouldOverwrite', { file: path });
  }

  /** Writes a file, its folder too: beside its place first, then put there in one go. @throws AppError `cannotWrite`, `wouldOverwrite`. */
  async write(path: string, content: Uint8Array | string): Promise<void> {
    await this.check(path);
    await makeFolder(dirname(path));
    const beside = join(dirname(path), temporaryName(basename(path)));
    try {
      await writeFile(beside, content);
      await rename(beside, path);
    } catch (error) {
      await rm(beside, { force: true }).catch(() => undefined);
      throw new AppError('cannotWrite', { file: path, message: reasonOf(error) }, error);
    }
  }
}

const temporaryName = (name: string): string => `.${name}.${process.pid}-${written++}.part`;

const fileMark = (path: string): Promise<string | undefined> =>
  stat(path).then(
    ({ dev, ino }) => `${dev} ${ino}`,
    () => undefined,
  );

/** Makes a folder and those above it, one at a time: asked for all at once, some file systems never answer. */
async function makeFolder(folder: string): Promise<void> {
  const found = await stat(folder).catch(() => undefined);
  if (found?.isDirectory() === true) return;
  const above = dirname(folder);
  if (above !== folder) await makeFolder(above);
  try {
    await mkdir(folder);
  } catch (error) {
    if (error instanceof Error && 'code' in error && error.code === 'EEXIST' && (await stat(folder)).isDirectory()) return;
    throw new AppError('cannotWrite', { file: folder, message: reasonOf(error) }, error);
  }
}
