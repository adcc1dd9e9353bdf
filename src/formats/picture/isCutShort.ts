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
    case 'tiff':
      return false;
  }
}

function tailHas(bytes: Uint8Array, marker: readonly number[]): boolean {
  const first = Math.max(0, bytes.length - TAIL_BYTES);
  for (let i = bytes.length - marker.length; i >= first; i--) if (marker.every((value, k) => bytes[i + k] === value)) return true;
  return false;
}
