import { encode } from 'fast-png';
import type { Rgba8 } from '../../core/raster/raster.ts';

const SIGNATURE_AND_HEADER = 8 + 25;

/** A PNG file of the picture. With `pxPerMm` it states its physical resolution, so that it prints at its true size. */
export function writePng(picture: Rgba8, pxPerMm?: number): Uint8Array<ArrayBuffer> {
  const { width, height, data } = picture;
  const plain = encode({ width, height, data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength), channels: 4, depth: 8 }, { zlib: { level: 2 } });
  return pxPerMm === undefined ? new Uint8Array(plain) : withResolution(plain, pxPerMm);
}

/** The PNG file with its physical resolution stated. The file must not state one yet. */
export function withResolution(png: Uint8Array, pxPerMm: number): Uint8Array<ArrayBuffer> {
  const chunk = physChunk(Math.round(pxPerMm * 1000));
  const file = new Uint8Array(png.length + chunk.length);
  file.set(png.subarray(0, SIGNATURE_AND_HEADER));
  file.set(chunk, SIGNATURE_AND_HEADER);
  file.set(png.subarray(SIGNATURE_AND_HEADER), SIGNATURE_AND_HEADER + chunk.length);
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
