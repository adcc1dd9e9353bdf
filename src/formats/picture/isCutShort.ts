import type { PictureType } from './checkPicture.ts';

/** How far from the end of a file its end marker may stand: some programs append notes of their own. */
const TAIL_BYTES = 65_536;

/** Whether a picture file ends before its own end, by the marker or the length that its type carries. TIFF has neither: false. */
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
      return false;
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

function tailHas(bytes: Uint8Array, marker: readonly number[]): boolean {
  const first = Math.max(0, bytes.length - TAIL_BYTES);
  for (let i = bytes.length - marker.length; i >= first; i--) if (marker.every((value, k) => bytes[i + k] === value)) return true;
  return false;
}
