import { encode } from 'fast-png';
import type { Rgba8 } from '../../core/raster/raster.ts';

const SIGNATURE_AND_HEADER = 8 + 25;

/** A PNG file of the picture. With `pxPerMm` it states its physical resolution, so that it prints at its true size. */
export function writePng(picture: Rgba8, pxPerMm?: number): Uint8Array<ArrayBuffer> {
  const { width, height, data } = picture;
  const plain = encode({ width, height, data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength), channels: 4, depth: 8 }, { zlib: { level: 2 } });
  return pxPerMm === undefined ? new Uint8Array(plain) : withResolution(plain, pxPerMm);
}

/** The PNG file with this physical resolution stated, and no other. */
export function withResolution(png: Uint8Array, pxPerMm: number): Uint8Array<ArrayBuffer> {
  const plain = withoutResolution(png);
  const chunk = physChunk(Math.round(pxPerMm * 1000));
  const file = new Uint8Array(plain.length + chunk.length);
  file.set(plain.subarray(0, SIGNATURE_AND_HEADER));
  file.set(chunk, SIGNATURE_AND_HEADER);
  file.set(plain.subarray(SIGNATURE_AND_HEADER), SIGNATURE_AND_HEADER + chunk.length);
  return file;
}

const PHYS = 0x70485973;
/** Length, name and checksum of a chunk, bytes. */
const CHUNK_FRAME = 12;

/** The PNG file without any statement of its physical resolution. */
export function withoutResolution(png: Uint8Array): Uint8Array<ArrayBuffer> {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  const kept: Uint8Array[] = [png.subarray(0, 8)];
  let at = 8;
  while (at + CHUNK_FRAME <= png.length) {
    const end = at + CHUNK_FRAME + view.getUint32(at);
    if (view.getUint32(at + 4) !== PHYS) kept.push(png.subarray(at, end));
    at = end;
  }
  const file = new Uint8Array(kept.reduce((sum, part) => sum + part.length, 0));
  let filled = 0;
  for (const part of kept) {
    file.set(part, filled);
    filled += part.length;
  }
  return file;
}

/** A `pHYs` chunk (W3C PNG 3rd ed., 11.3.4.3) for square pixels, pixels per metre. */
function physChunk(perMetre: number): Uint8Array {
  const chunk = new Uint8Array(21);
  const view = new DataView(chunk.buffer);
  view.setUint32(0, 9);
  chunk.set([0x70, 0x48, 0x59, 0x73], 4);
  view.setUint32(8, perMetre);
  view.setUint32(12, perMetre);
  chunk[16] = 1;
  view.setUint32(17, crc32(chunk.subarray(4, 17)));
  return chunk;
}

/** CRC-32 as PNG wants it (ISO 3309), bit by bit: seventeen bytes do not need a table. */
function crc32(bytes: Uint8Array): number {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = (crc & 1) === 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
}
