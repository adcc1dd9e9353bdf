import { create } from 'qrcode';

/** A square code that scanners read (ISO/IEC 18004): dark and light modules, row by row, without the quiet zone around it. */
export interface QrCode {
  readonly size: number;
  readonly dark: Uint8Array;
}

/** Modules that stay light around a code. */
export const QUIET = 4;

/** The code of a text, with a quarter of it to spare for creases and stains. */
export function qrCode(text: string): QrCode {
  const { modules } = create(text, { errorCorrectionLevel: 'Q' });
  return { size: modules.size, dark: modules.data.map((value) => (value === 0 ? 0 : 1)) as Uint8Array };
}
