import bidiFactory from 'bidi-js';
import { AppError } from '../../core/errors/appError.ts';
import type { FontFace, GlyphCommand, ShapedGlyph } from '../../core/lettering/fontFace.ts';
import { glyphCurves } from '../../core/lettering/glyphCurves.ts';
import { boundsOf } from '../../core/outline/curves.ts';
import { say } from '../../core/words/say.ts';

/** What is used of the font library, which is loaded only when there is lettering. */
export interface FontLibrary {
  create(bytes: Uint8Array): LibraryFont | undefined;
}

interface LibraryFont {
  readonly unitsPerEm: number;
  readonly capHeight: number;
  readonly ascent: number;
  readonly descent: number;
  readonly familyName: string | null;
  layout(text: string, features?: undefined, script?: undefined, language?: undefined, direction?: 'ltr' | 'rtl'): { readonly glyphs: readonly LibraryGlyph[]; readonly positions: readonly { readonly xAdvance: number; readonly xOffset: number; readonly yOffset: number }[] };
  glyphForCodePoint(codePoint: number): LibraryGlyph;
  hasGlyphForCodePoint(codePoint: number): boolean;
}

interface LibraryGlyph {
  readonly id: number;
  readonly codePoints: readonly number[];
  readonly path: { readonly commands: readonly { readonly command: string; readonly args: readonly number[] }[] };
}

/** Larger font files are collections or hold scripts that lettering does not need, bytes. */
const MAX_BYTES = 30_000_000;
/** Share of the em that a capital has where the font does not say. */
const USUAL_CAPITAL = 0.7;

/**
 * A font file (TrueType, OpenType, WOFF, WOFF2) for lettering.
 * @param name what it is called; the file's own name for itself when absent.
 * @param more files of the same font with further letters: a stretch of text is set in the first that has them.
 * @throws AppError `badFont` for what is none, `fileTooLarge`.
 */
export function fontFace(library: FontLibrary, bytes: Uint8Array, file: string, name?: string, more: readonly Uint8Array[] = []): FontFace {
  if (bytes.length > MAX_BYTES) throw new AppError('fileTooLarge', { file, megabytes: Math.ceil(bytes.length / 1e6), limitMegabytes: MAX_BYTES / 1e6 });
  const guarded = <Value>(work: () => Value): Value => {
    try {
      return work();
    } catch (error) {
      throw new AppError('badFont', { file, reason: error instanceof Error ? error.message : String(error) }, error);
    }
  };
  const font: LibraryFont | undefined = guarded(() => library.create(bytes));
  if (font === undefined || font === null) throw new AppError('badFont', { file });
  const { unitsPerEm, ascent, descent, familyName } = guarded(() => ({ unitsPerEm: font.unitsPerEm, ascent: font.ascent, descent: font.descent, familyName: font.familyName }));
  if (!(unitsPerEm > 0)) throw new AppError('badFont', { file, reason: say('it does not say how large its letters are') });
  const fonts = [font, ...more.flatMap((each) => guarded(() => library.create(each)) ?? [])];
  const outlines = new Map<number, readonly GlyphCommand[]>();
  const outlineOf = (glyph: LibraryGlyph, id: number): readonly GlyphCommand[] => {
    let outline = outlines.get(id);
    if (outline === undefined) outlines.set(id, (outline = commandsOf(glyph)));
    return outline;
  };
  return {
    name: name ?? familyName ?? file,
    unitsPerEm,
    ascent,
    descent,
    capitalHeight: guarded(() => capitalOf(font, outlineOf)),
    shape: (line) =>
      guarded(() => {
        if (line === '') return [];
        return stretchesOf(line).flatMap((stretch) => inFonts(stretch, fonts).flatMap(({ text, font: at }) => shaped(fonts[at], text, stretch.direction).map(({ glyph, position, missing }): ShapedGlyph => {
          const id = glyph.id + at * MOST_GLYPHS;
          const { xAdvance, xOffset, yOffset } = position;
          // Files of one font may have grids of their own.
          const scale = unitsPerEm / fonts[at].unitsPerEm;
          return { id, advance: xAdvance * scale, xOffset: xOffset * scale, yOffset: yOffset * scale, outline: scaled(outlineOf(glyph, id), scale), isMissing: missing !== undefined, text: missing ?? String.fromCodePoint(...glyph.codePoints) };
        })));
      }),
  };
}

/** More than a font file can hold: each file's glyphs have numbers of their own. */
const MOST_GLYPHS = 65_536;

interface Shaped {
  readonly glyph: LibraryGlyph;
  readonly position: { readonly xAdvance: number; readonly xOffset: number; readonly yOffset: number };
  /** The character that it stands in for. */
  readonly missing: string | undefined;
}

function shaped(font: LibraryFont, text: string, direction: 'ltr' | 'rtl' | undefined): Shaped[] {
  const { glyphs, positions } = font.layout(text, undefined, undefined, undefined, direction);
  // The library gives one stand-in for all that is missing, which knows the first of them alone.
  const missing = [...text].filter((sign) => !font.hasGlyphForCodePoint(codeOf(sign)));
  if (direction === 'rtl') missing.reverse();
  return glyphs.map((glyph, k) => ({ glyph, position: positions[k], missing: glyph.id === 0 ? (missing.shift() ?? '') : undefined }));
}

const codeOf = (sign: string): number => sign.codePointAt(0) as number;

/** The parts of a stretch that one file has the letters for, as they stand from left to right. */
function inFonts({ text, direction }: Stretch, fonts: readonly LibraryFont[]): { text: string; font: number }[] {
  if (fonts.length === 1) return [{ text, font: 0 }];
  const parts: { text: string; font: number }[] = [];
  for (const sign of text) {
    const last = parts.at(-1);
    // Marks and what no file has stay with the letters before them.
    const found = last !== undefined && fonts[last.font].hasGlyphForCodePoint(codeOf(sign)) && !/\p{L}/u.test(sign) ? last.font : fonts.findIndex((font) => font.hasGlyphForCodePoint(codeOf(sign)));
    const font = found < 0 ? (last?.font ?? 0) : found;
    if (last === undefined || last.font !== font) parts.push({ text: sign, font });
    else last.text += sign;
  }
  return direction === 'rtl' ? parts.reverse() : parts;
}

function scaled(outline: readonly GlyphCommand[], by: number): readonly GlyphCommand[] {
  if (by === 1) return outline;
  return outline.map((command) => Object.fromEntries(Object.entries(command).map(([key, value]) => [key, typeof value === 'number' ? value * by : value])) as unknown as GlyphCommand);
}

interface Stretch {
  readonly text: string;
  readonly direction?: 'ltr' | 'rtl' | undefined;
}

/** Scripts that are written from right to left, and signs that turn the direction. */
const FROM_THE_RIGHT = /[\u0590-\u08ff\u200f\u202b\u202e\u2067\ufb1d-\ufdff\ufe70-\ufefc\u{10800}-\u{10fff}\u{1e800}-\u{1efff}]/u;

/** The stretches of a line that run one way, as they stand from left to right (Unicode Standard Annex #9, rules L2 and L4; the levels are the library's). */
function stretchesOf(line: string): Stretch[] {
  if (!FROM_THE_RIGHT.test(line)) return [{ text: line }];
  const bidi = (levelsOfWriting ??= bidiFactory());
  const { levels } = bidi.getEmbeddingLevels(line);
  const stretches: { text: string; level: number }[] = [];
  for (let k = 0; k < line.length; k++) {
    const last = stretches.at(-1);
    const sign = (levels[k] % 2 === 1 ? bidi.getMirroredCharacter(line[k]) : null) ?? line[k];
    if (last === undefined || levels[k] !== levels[k - 1]) stretches.push({ text: sign, level: levels[k] });
    else last.text += sign;
  }
  for (let level = Math.max(...levels); level > 0; level--) reverseRuns(stretches, level);
  return stretches.map(({ text, level }) => ({ text, direction: level % 2 === 1 ? 'rtl' : 'ltr' }));
}
let levelsOfWriting: ReturnType<typeof bidiFactory> | undefined;

/** Turns each row of stretches of a level, or a higher one, around. */
function reverseRuns(stretches: { level: number }[], level: number): void {
  for (let from = 0; from < stretches.length; from++) {
    if (stretches[from].level < level) continue;
    let to = from;
    while (to + 1 < stretches.length && stretches[to + 1].level >= level) to++;
    stretches.splice(from, to - from + 1, ...stretches.slice(from, to + 1).reverse());
    from = to;
  }
}

/** The height of its H as it is drawn, which is what one measures; what the font says where it has none. */
function capitalOf(font: LibraryFont, outlineOf: (glyph: LibraryGlyph, id: number) => readonly GlyphCommand[]): number {
  const glyph = font.glyphForCodePoint(0x48);
  const box = glyph.id === 0 ? undefined : boundsOf(glyphCurves(outlineOf(glyph, glyph.id), 1));
  if (box !== undefined && box.bottom > box.top) return box.bottom - box.top;
  return font.capHeight > 0 ? font.capHeight : USUAL_CAPITAL * font.unitsPerEm;
}

function commandsOf({ path }: LibraryGlyph): GlyphCommand[] {
  return path.commands.map(({ command, args }): GlyphCommand => {
    if (!args.every((value) => Math.abs(value) < 1e6)) throw new RangeError('a glyph reaches beyond all bounds');
    const [a, b, c, d, e, f] = args;
    switch (command) {
      case 'moveTo':
        return { step: 'move', x: a, y: b };
      case 'lineTo':
        return { step: 'line', x: a, y: b };
      case 'quadraticCurveTo':
        return { step: 'quadratic', x1: a, y1: b, x: c, y: d };
      case 'bezierCurveTo':
        return { step: 'cubic', x1: a, y1: b, x2: c, y2: d, x: e, y: f };
      default:
        return { step: 'close' };
    }
  });
}
