import type { PictureType } from './checkPicture.ts';

/** How far from the end of a file its end marker may stand: some programs append notes of their own. */
const TAIL_BYTES = 65_536;

/** Whether a picture file ends before its own end, by the marker or the length that its type carries. */
export function isCutShort(bytes: Uint8Array, type: PictureType): boolean {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  switch (type) {
    case 'png':
      return !tailHas(bytes, [0x49, 0x45, 0x4e, 0x44]);
    case 'jpg':
      return !tailHas(bytes, [0xff, 0xd9]);
    case 'gif':
      return !tailHas(bytes, [0x3b]);
    case 'webp':
      return view.getUint32(4, true) + 8 > bytes.length + 1;
    case 'bmp':
      return view.getUint32(2, true) > bytes.length;
    case 'heic':
      return boxesRunOver(view);
    case 'tiff':
      return tiffRunsOver(view);
  }
}

/** Whether the boxes of an ISO container (ISO/IEC 14496-12) go on after the end of the file. */
function boxesRunOver(view: DataView): boolean {
  let at = 0;
  while (at + 8 <= view.byteLength) {
    const short = view.getUint32(at);
    // 0 runs to the end of the file, 1 means that a long length follows.
    if (short === 0) return false;
    const length = short === 1 && at + 16 <= view.byteLength ? Number(view.getBigUint64(at + 8)) : short;
    if (length < 8) return true;
    at += length;
  }
  return at !== view.byteLength;
}

/** Tags of a TIFF directory (TIFF 6.0): where its strips or tiles lie and how long they are. */
const OFFSETS = [273, 324];
const LENGTHS = [279, 325];
const SHORT = 3;

/** Whether the first picture of a TIFF has strips or tiles, or a directory, that end after the file does. */
function tiffRunsOver(view: DataView): boolean {
  try {
    const little = view.getUint16(0) === 0x4949;
    const directory = view.getUint32(4, little);
    const count = view.getUint16(directory, little);
    let offsets: number[] = [];
    let lengths: number[] = [];
    for (let k = 0; k < count; k++) {
      const entry = directory + 2 + 12 * k;
      const tag = view.getUint16(entry, little);
      if (OFFSETS.includes(tag)) offsets = valuesOf(view, entry, little);
      if (LENGTHS.includes(tag)) lengths = valuesOf(view, entry, little);
    }
    return offsets.some((offset, k) => offset + (lengths[k] ?? 0) > view.byteLength);
  } catch (error) {
    // A directory or a list that lies outside of the file.
    if (error instanceof RangeError) return true;
    throw error;
  }
}

/** The whole numbers of a directory's entry: in the entry itself where they fit into four bytes, else where it points. */
function valuesOf(view: DataView, entry: number, little: boolean): number[] {
  const size = view.getUint16(entry + 2, little) === SHORT ? 2 : 4;
  const count = Math.min(view.getUint32(entry + 4, little), view.byteLength);
  const at = count * size <= 4 ? entry + 8 : view.getUint32(entry + 8, little);
  return Array.from({ length: count }, (_, k) => (size === 2 ? view.getUint16(at + 2 * k, little) : view.getUint32(at + 4 * k, little)));
}

function tailHas(bytes: Uint8Array, marker: readonly number[]): boolean {
  const first = Math.max(0, bytes.length - TAIL_BYTES);
  for (let i = bytes.length - marker.length; i >= first; i--) if (marker.every((value, k) => bytes[i + k] === value)) return true;
  return false;
}
