import { readFile, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import { checkFileSize } from '../src/formats/picture/checkPicture.ts';
import type { DecodedPicture, DecodeOptions } from '../src/formats/picture/decodedPicture.ts';
import { decodeFile } from './decodeFile.ts';

/** Reads a file whole. @throws AppError `cannotRead`, or by its size. */
export async function readBytes(path: string): Promise<Uint8Array<ArrayBuffer>> {
  const file = basename(path);
  try {
    const info = await stat(path);
    if (!info.isFile()) throw new AppError('cannotRead', { file, message: 'it is not a file' });
    checkFileSize(info.size, file);
    return new Uint8Array(await readFile(path));
  } catch (error) {
    if (error instanceof AppError) throw error;
    throw new AppError('cannotRead', { file, message: reasonOf(error) }, error);
  }
}

/** @throws AppError `badJob` when it is not JSON. */
export async function readJson(path: string): Promise<unknown> {
  const text = new TextDecoder().decode(await readBytes(path));
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new AppError('badJob', { file: basename(path), reason: 'it is not JSON' }, error);
  }
}

export const readPicture = async (path: string, options?: DecodeOptions): Promise<DecodedPicture> => decodeFile(await readBytes(path), basename(path), options);

const REASONS: Readonly<Record<string, string>> = {
  ENOENT: 'there is no such file',
  EACCES: 'permission denied',
  EISDIR: 'it is a folder',
  ENOTDIR: 'a part of its path is not a folder',
  EEXIST: 'a file is in the way of its folder',
  ENOSPC: 'the disk is full',
  EROFS: 'the disk is read-only',
};

/** Why the system refused, in words. */
export function reasonOf(error: unknown): string {
  const code = error instanceof Error && 'code' in error ? String(error.code) : '';
  return REASONS[code] ?? (error instanceof Error ? error.message : String(error));
}
