import type { PictureType } from './checkPicture.ts';

const INCH_PER_M = 0.0254;
/** Values outside are placeholders and slips, not resolutions. */
const plausible = (dpi: number): number | undefined => (dpi >= 10 && dpi <= 20_000 ? Math.round(dpi * 100) / 100 : undefined);

/**
 * Physical resolution that a file states, dots per inch: PNG `pHYs` (W3C PNG 3rd ed., 11.3.4.3), JFIF density (ITU-T T.871, 10.1), or the
 * resolution tags of an EXIF or TIFF directory (TIFF 6.0, section 8). Undefined when none is stated.
 */
export function statedDpi(bytes: Uint8Array, type: PictureType): number | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  try {
    if (type === 'png') return dpiOfPng(view);
    if (type === 'jpg') return dpiOfJpeg(view);
    if (type === 'tiff') return dpiOfDirectory(view, 0);
    if (type === 'bmp') return plausible(view.getInt32(38, true) * INCH_PER_M);
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    // A tag that points outside the file states nothing.
  }
  return undefined;
}

function dpiOfPng(view: DataView): number | undefined {
  for (let at = 8; at + 12 <= view.byteLength; ) {
    const length = view.getUint32(at);
    const name = view.getUint32(at + 4);
    if (name === 0x70485973) return view.getUint8(at + 16) === 1 ? plausible(view.getUint32(at + 8) * INCH_PER_M) : undefined;
    if (name === 0x49444154) return undefined;
    at += 12 + length;
  }
  return undefined;
}

function dpiOfJpeg(view: DataView): number | undefined {
  let fromJfif: number | undefined;
  for (let at = 2; at + 4 <= view.byteLength && view.getUint8(at) === 0xff; at += 2 + view.getUint16(at + 2)) {
    const marker = view.getUint8(at + 1);
    if (marker === 0xda) break;
    if (marker === 0xe0 && view.getUint32(at + 4) === 0x4a464946) {
      const unit = view.getUint8(at + 11);
      const density = view.getUint16(at + 12);
      if (unit === 1) fromJfif = plausible(density);
      if (unit === 2) fromJfif = plausible(density * 2.54);
    }
    if (marker === 0xe1 && view.getUint32(at + 4) === 0x45786966) {
      const fromExif = dpiOfDirectory(view, at + 10);
      if (fromExif !== undefined) return fromExif;
    }
  }
  return fromJfif;
}

/** Reads XResolution and ResolutionUnit from the first directory of a TIFF structure that starts at `base`. */
function dpiOfDirectory(view: DataView, base: number): number | undefined {
  const little = view.getUint16(base) === 0x4949;
  const directory = base + view.getUint32(base + 4, little);
  const count = Math.min(512, view.getUint16(directory, little));
  let value: number | undefined;
  let unit = 2;
  for (let k = 0; k < count; k++) {
    const entry = directory + 2 + 12 * k;
    const tag = view.getUint16(entry, little);
    if (tag === 0x011a) {
      const at = base + view.getUint32(entry + 8, little);
      value = view.getUint32(at, little) / view.getUint32(at + 4, little);
    }
    if (tag === 0x0128) unit = view.getUint16(entry + 8, little);
  }
  if (value === undefined) return undefined;
  if (unit === 2) return plausible(value);
  return unit === 3 ? plausible(value * 2.54) : undefined;
}
