import { imageSize } from 'image-size';
import { AppError } from '../../core/errors/appError.ts';
import { MAX_PIXELS, MAX_SIDE_PX } from '../../core/raster/raster.ts';
import { isCutShort } from './isCutShort.ts';

export type PictureType = 'png' | 'jpg' | 'webp' | 'gif' | 'bmp' | 'tiff' | 'heic';
const TYPES: readonly string[] = ['png', 'jpg', 'webp', 'gif', 'bmp', 'tiff', 'heic'] satisfies readonly PictureType[];

/** Largest file that is read, bytes. */
export const MAX_FILE_BYTES = 150_000_000;

/** What the head of a picture file says. */
export interface PictureHead {
  readonly type: PictureType;
  /** As stored: before any turn by EXIF. */
  readonly widthPx: number;
  readonly heightPx: number;
}

/** @throws AppError `emptyFile` or `fileTooLarge` by the size alone, before anything is read into memory. */
export function checkFileSize(bytes: number, file: string): void {
  if (bytes === 0) throw new AppError('emptyFile', { file });
  if (bytes > MAX_FILE_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes / 1e6), limitMegabytes: MAX_FILE_BYTES / 1e6 });
}

/**
 * Reads only the head of a picture file and decides whether its pixels may be decoded: known type, whole, and within the limits of memory.
 * @throws AppError `emptyFile`, `fileTooLarge`, `notAPicture`, `truncated`, `pictureTooLarge` or `pictureTooSmall`.
 */
export function checkPicture(bytes: Uint8Array, file: string): PictureHead {
  checkFileSize(bytes.length, file);
  const head = readHead(bytes, file);
  if (head.widthPx > MAX_SIDE_PX || head.heightPx > MAX_SIDE_PX || head.widthPx * head.heightPx > MAX_PIXELS) {
    throw new AppError('pictureTooLarge', { file, width: head.widthPx, height: head.heightPx, limitMegapixels: MAX_PIXELS / 1e6 });
  }
  if (isCutShort(bytes, head.type)) throw new AppError('truncated', { file });
  if (head.widthPx < 2 || head.heightPx < 2) throw new AppError('pictureTooSmall', { file, width: head.widthPx, height: head.heightPx });
  return head;
}

function readHead(bytes: Uint8Array, file: string): PictureHead {
  let found: ReturnType<typeof imageSize>;
  try {
    found = imageSize(bytes);
  } catch (error) {
    throw new AppError(looksLikePicture(bytes) ? 'truncated' : 'notAPicture', { file }, error);
  }
  const { type, width, height } = found;
  // Two names of one container, by the brand that stands first in it.
  if (type === 'heif') return { type: 'heic', widthPx: width, heightPx: height };
  if (type === undefined || !TYPES.includes(type)) throw new AppError('notAPicture', { file });
  if (!(width >= 1) || !(height >= 1)) throw new AppError('truncated', { file });
  return { type: type as PictureType, widthPx: width, heightPx: height };
}

/** Whether the first bytes are those of a known picture type, so that a head that cannot be read was cut short. */
function looksLikePicture(bytes: Uint8Array): boolean {
  const signatures = [[0x89, 0x50, 0x4e, 0x47], [0xff, 0xd8, 0xff], [0x47, 0x49, 0x46, 0x38], [0x42, 0x4d], [0x52, 0x49, 0x46, 0x46], [0x49, 0x49, 0x2a, 0], [0x4d, 0x4d, 0, 0x2a]];
  // The ISO container names itself after the length of its first box.
  if (String.fromCharCode(...bytes.subarray(4, 8)) === 'ftyp') return true;
  return signatures.some((signature) => signature.every((value, i) => bytes[i] === value));
}
