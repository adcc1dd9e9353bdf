import { basename, extname } from 'node:path';
import * as fontkit from 'fontkit';
import { AppError } from '../src/core/errors/appError.ts';
import type { FontFace } from '../src/core/lettering/fontFace.ts';
import { fontNamed, hasLetters, SHIPPED_FONTS, type ShippedFont } from '../src/core/lettering/fonts.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { readBytes } from './files.ts';
import { packagePath, packageFile } from './packageFile.ts';

const ENDINGS = ['.ttf', '.otf', '.woff', '.woff2'];
const fileOf = ({ family, weight }: ShippedFont, subset = 'latin'): string => `@fontsource/${family}/files/${family}-${subset}-${weight}-normal.woff2`;
/** What the files with further letters are called after. */
const SUBSETS = ['latin-ext', 'cyrillic', 'cyrillic-ext', 'greek', 'greek-ext', 'vietnamese', 'hebrew', 'arabic', 'devanagari', 'math', 'symbols'];

export const fontFromBytes = (bytes: Uint8Array, file: string): FontFace => fontFace(fontkit as unknown as FontLibrary, bytes, file);

/** Where a shipped font lies. */
export const fontPath = (font: ShippedFont): string => packagePath(fileOf(font));

/** One of them; undefined for what its package does not have. */
async function readSubset(font: ShippedFont, subset: string): Promise<Uint8Array | undefined> {
  try {
    return new Uint8Array(await packageFile(fileOf(font, subset)));
  } catch {
    // Not every font has every one of them.
    return undefined;
  }
}

/** The files of a shipped font with further letters. */
async function furtherLetters(font: ShippedFont): Promise<Uint8Array[]> {
  const files = await Promise.all(SUBSETS.map((subset) => readSubset(font, subset)));
  return files.flatMap((file) => file ?? []);
}

/** A shipped font by its name, or one from a file. @param text that it is wanted for: where its first file lacks letters of it, the others are read too. @throws AppError `badValue`, `badFont`, `cannotRead`. */
export async function loadFont(wanted: string, text = ''): Promise<FontFace> {
  const library = fontkit as unknown as FontLibrary;
  const shipped = fontNamed(wanted);
  if (shipped !== undefined) {
    const bytes = new Uint8Array(await packageFile(fileOf(shipped)));
    const face = fontFace(library, bytes, shipped.name, shipped.name);
    return hasLetters(face, text) ? face : fontFace(library, bytes, shipped.name, shipped.name, await furtherLetters(shipped));
  }
  if (!ENDINGS.includes(extname(wanted).toLowerCase())) throw new AppError('badValue', { name: '--font', value: wanted, takes: `one of ${SHIPPED_FONTS.map(({ name }) => name).join(', ')}, or a file that ends in ${ENDINGS.join(', ')}` });
  return fontFace(library, await readBytes(wanted), basename(wanted));
}
