import { AppError } from '../../core/errors/appError.ts';
import type { FontFace, GlyphCommand, ShapedGlyph } from '../../core/lettering/fontFace.ts';
import { glyphCurves } from '../../core/lettering/glyphCurves.ts';
import { boundsOf } from '../../core/outline/curves.ts';

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
  layout(text: string): { readonly glyphs: readonly LibraryGlyph[]; readonly positions: readonly { readonly xAdvance: number; readonly xOffset: number; readonly yOffset: number }[] };
  glyphForCodePoint(codePoint: number): LibraryGlyph;
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
 * @throws AppError `badFont` for what is none, `fileTooLarge`.
 */
export function fontFace(library: FontLibrary, bytes: Uint8Array, file: string, name?: string): FontFace {
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
  if (!(unitsPerEm > 0)) throw new AppError('badFont', { file, reason: 'it does not say how large its letters are' });
  const outlines = new Map<number, readonly GlyphCommand[]>();
  const outlineOf = (glyph: LibraryGlyph): readonly GlyphCommand[] => {
    let outline = outlines.get(glyph.id);
    if (outline === undefined) outlines.set(glyph.id, (outline = commandsOf(glyph)));
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
        const { glyphs, positions } = font.layout(line);
        return glyphs.map((glyph, k): ShapedGlyph => {
          const { xAdvance, xOffset, yOffset } = positions[k];
          return { id: glyph.id, advance: xAdvance, xOffset, yOffset, outline: outlineOf(glyph), isMissing: glyph.id === 0, text: String.fromCodePoint(...glyph.codePoints) };
        });
      }),
  };
}

/** The height of its H as it is drawn, which is what one measures; what the font says where it has none. */
function capitalOf(font: LibraryFont, outlineOf: (glyph: LibraryGlyph) => readonly GlyphCommand[]): number {
  const glyph = font.glyphForCodePoint(0x48);
  const box = glyph.id === 0 ? undefined : boundsOf(glyphCurves(outlineOf(glyph), 1));
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
