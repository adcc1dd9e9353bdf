import { basename, extname } from 'node:path';
import * as fontkit from 'fontkit';
import { AppError } from '../src/core/errors/appError.ts';
import type { FontFace } from '../src/core/lettering/fontFace.ts';
import { fontNamed, SHIPPED_FONTS, type ShippedFont } from '../src/core/lettering/fonts.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { readBytes } from './files.ts';
import { packagePath, packageFile } from './packageFile.ts';

const ENDINGS = ['.ttf', '.otf', '.woff', '.woff2'];
const fileOf = ({ family, weight }: ShippedFont): string => `@fontsource/${family}/files/${family}-latin-${weight}-normal.woff2`;

export const fontFromBytes = (bytes: Uint8Array, file: string): FontFace => fontFace(fontkit as unknown as FontLibrary, bytes, file);

/** Where a shipped font lies. */
export const fontPath = (font: ShippedFont): string => packagePath(fileOf(font));

/** A shipped font by its name, or one from a file. @throws AppError `badValue`, `badFont`, `cannotRead`. */
export async function loadFont(wanted: string): Promise<FontFace> {
  const library = fontkit as unknown as FontLibrary;
  const shipped = fontNamed(wanted);
  if (shipped !== undefined) return fontFace(library, new Uint8Array(await packageFile(fileOf(shipped))), shipped.name, shipped.name);
  if (!ENDINGS.includes(extname(wanted).toLowerCase())) throw new AppError('badValue', { name: '--font', value: wanted, takes: `one of ${SHIPPED_FONTS.map(({ name }) => name).join(', ')}, or a file that ends in ${ENDINGS.join(', ')}` });
  return fontFace(library, await readBytes(wanted), basename(wanted));
}
