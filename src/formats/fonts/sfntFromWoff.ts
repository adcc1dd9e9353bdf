import { unzlibSync } from 'fflate';

const WOFF = 0x774f4646;
const HEADER = 44;
const ENTRY = 20;
/** No table of a font that is shipped is larger, bytes. */
const MAX_TABLE_BYTES = 4_000_000;
const MAX_TABLES = 64;

/**
 * Unpacks a WOFF font file to the plain one that it holds (W3C WOFF File Format 1.0). Checksums are taken over as they stand.
 * @throws RangeError when it is not a whole WOFF file.
 */
export function sfntFromWoff(woff: Uint8Array): Uint8Array<ArrayBuffer> {
  const view = new DataView(woff.buffer, woff.byteOffset, woff.byteLength);
  if (view.byteLength < HEADER || view.getUint32(0) !== WOFF) throw new RangeError('not a WOFF file');
  const count = view.getUint16(12);
  if (count === 0 || count > MAX_TABLES) throw new RangeError(`a font has no ${count} tables`);
  const tables = Array.from({ length: count }, (_, k) => tableAt(view, woff, HEADER + k * ENTRY));
  const padded = (length: number): number => (length + 3) & ~3;
  const start = 12 + 16 * count;
  const out = new Uint8Array(start + tables.reduce((sum, { data }) => sum + padded(data.length), 0));
  const to = new DataView(out.buffer);
  // The directory's search fields follow from the number of tables (OpenType, "Table Directory").
  const power = Math.floor(Math.log2(count));
  to.setUint32(0, view.getUint32(4));
  to.setUint16(4, count);
  to.setUint16(6, 16 << power);
  to.setUint16(8, power);
  to.setUint16(10, 16 * count - (16 << power));
  let at = start;
  for (const [k, { tag, checksum, data }] of tables.entries()) {
    const entry = 12 + 16 * k;
    to.setUint32(entry, tag);
    to.setUint32(entry + 4, checksum);
    to.setUint32(entry + 8, at);
    to.setUint32(entry + 12, data.length);
    out.set(data, at);
    at += padded(data.length);
  }
  return out;
}

function tableAt(view: DataView, woff: Uint8Array, entry: number): { tag: number; checksum: number; data: Uint8Array } {
  const [tag, offset, packed, length, checksum] = [0, 4, 8, 12, 16].map((field) => view.getUint32(entry + field));
  if (length > MAX_TABLE_BYTES || offset + packed > woff.length) throw new RangeError('a table lies outside the file');
  const part = woff.subarray(offset, offset + packed);
  const data = packed === length ? part : unzlibSync(part, { out: new Uint8Array(length) });
  if (data.length !== length) throw new RangeError('a table is not as long as it says');
  return { tag, checksum, data };
}
