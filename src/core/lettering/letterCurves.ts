import { joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { AppError } from '../errors/appError.ts';
import { followedBy, rotation, translation, type Affine } from '../geometry/affine.ts';
import { boundsOf, CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { FontFace, ShapedGlyph } from './fontFace.ts';
import { glyphCurves } from './glyphCurves.ts';
import { DEFAULT_LETTERING, type Lettering } from './lettering.ts';

/** A text as outlines. */
export interface LetteredText {
  /** mm; the foot of the first line begins at 0, 0, or the circle has its middle there. */
  readonly curves: Curves;
  /** Characters that the font does not have, each once. */
  readonly missing: readonly string[];
  /** Of a text that another part gives its place: where each of its letters is, on straight lines. It is neither joined nor thickened yet. */
  readonly letters?: readonly SetLetter[];
}

/** A letter of a text on straight lines, mm. */
export interface SetLetter {
  /** Its outlines, in a row. */
  readonly firstRing: number;
  readonly rings: number;
  /** The middle of its room, and its foot. */
  readonly xMm: number;
  readonly footMm: number;
  /** How broad its room is, and how far its middle is along its line from the line's middle. */
  readonly advanceMm: number;
  readonly fromMiddleMm: number;
  /** Lines that follow below its own. */
  readonly linesBelow: number;
}

interface PlacedGlyph {
  readonly glyph: ShapedGlyph;
  /** Where its own origin stands: along its line, and above its foot, mm. */
  readonly xMm: number;
  readonly upMm: number;
  /** How far the line goes on with it, mm. */
  readonly advanceMm: number;
}

/**
 * Sets a text in a font: glyphs with their ligatures and kerning, spaced, in lines or around a circle, one outline each unless they are joined. The curves are those of the font: quadratic ones are the cubics that draw
 * the same.
 * @throws AppError `nothingToCut` for a text that shows nothing.
 */
export function letterCurves(library: PolygonLibrary, face: FontFace, lettering: Lettering): LetteredText {
  const { mostWidthMm, whenWider, text } = lettering;
  const onTwo = whenWider === 'twoLines' && mostWidthMm !== undefined ? inTwoLines(text) : undefined;
  if (onTwo === undefined || mostWidthMm === undefined) return lettersOf(library, face, lettering);
  const { mostWidthMm: _most, ...free } = lettering;
  const asIs = lettersOf(library, face, free);
  const box = boundsOf(asIs.curves);
  return box === undefined || box.right - box.left <= mostWidthMm ? asIs : lettersOf(library, face, { ...lettering, text: onTwo });
}

/** A text of one line broken at the blank that is nearest to its middle; undefined where there is none. */
function inTwoLines(text: string): string | undefined {
  const blanks = text.includes('\n') ? [] : [...text.trim().matchAll(/\s+/g)];
  const trimmed = text.trim();
  if (blanks.length === 0) return undefined;
  const off = ({ index, 0: { length } }: RegExpExecArray): number => Math.abs(index - (trimmed.length - index - length));
  const { index, 0: blank } = blanks.reduce((best, each) => (off(each) < off(best) ? each : best));
  return `${trimmed.slice(0, index)}\n${trimmed.slice(index + blank.length)}`;
}

function lettersOf(library: PolygonLibrary, face: FontFace, lettering: Lettering): LetteredText {
  const { heightMm, lineSpacing = DEFAULT_LETTERING.lineSpacing, around } = lettering;
  const scale = heightMm / face.capitalHeight;
  const lines = lettering.text.replace(/\r\n?/g, '\n').split('\n').map((line) => placedLine(face, line, scale, lettering));
  const glyphs = new Map<number, Curves>();
  const outlineOf = ({ id, outline }: ShapedGlyph): Curves => {
    let curves = glyphs.get(id);
    if (curves === undefined) glyphs.set(id, (curves = joinOverlaps(library, glyphCurves(outline, scale))));
    return curves;
  };
  const longest = Math.max(...lines.map(widthOf));
  const builder = new CurvesBuilder();
  const letters: SetLetter[] = [];
  let rings = 0;
  for (const [k, line] of lines.entries()) {
    const downMm = k * lineSpacing * heightMm;
    for (const placed of line) {
      const where = around === undefined ? onLine(placed, lettering, line, longest, downMm) : onCircle(placed, line, around, (around.side === 'top' ? lines.length - 1 - k : k) * lineSpacing * heightMm, heightMm);
      const own = transformCurves(outlineOf(placed.glyph), where);
      for (let ring = 0; ring < ringCount(own); ring++) builder.copy(own, ring, own.parent[ring] < 0 ? -1 : rings + own.parent[ring]);
      const toMiddle = placed.advanceMm / 2;
      letters.push({ firstRing: rings, rings: ringCount(own), xMm: where.e + toMiddle, footMm: downMm, advanceMm: placed.advanceMm, fromMiddleMm: placed.xMm + toMiddle - widthOf(line) / 2, linesBelow: lines.length - 1 - k });
      rings += ringCount(own);
    }
  }
  if (rings === 0) throw new AppError('nothingToCut');
  const missing = [...new Set(lines.flat().flatMap(({ glyph }) => (glyph.isMissing ? [glyph.text] : [])))];
  if (lettering.along !== undefined || lettering.into !== undefined) return { curves: builder.build(), missing, letters };
  const set = finishLetters(library, fitted(builder.build(), lettering), lettering);
  if (ringCount(set) === 0) throw new AppError('nothingToCut');
  return { curves: set, missing };
}

/** A line's glyphs one after the other. */
function placedLine(face: FontFace, line: string, scale: number, { heightMm, spacing = DEFAULT_LETTERING.spacing }: Lettering): PlacedGlyph[] {
  const placed: PlacedGlyph[] = [];
  let xMm = 0;
  for (const glyph of face.shape(line)) {
    const advanceMm = glyph.advance * scale + spacing * heightMm;
    placed.push({ glyph, xMm: xMm + glyph.xOffset * scale, upMm: glyph.yOffset * scale, advanceMm });
    xMm += advanceMm;
  }
  return placed;
}

/** How long a line is, without the spacing after its last letter. */
const widthOf = (line: readonly PlacedGlyph[]): number => (line.length === 0 ? 0 : line[line.length - 1].xMm + line[line.length - 1].advanceMm);

function onLine({ xMm, upMm }: PlacedGlyph, { align = DEFAULT_LETTERING.align }: Lettering, line: readonly PlacedGlyph[], longest: number, downMm: number): Affine {
  const free = longest - widthOf(line);
  const shift = align === 'left' ? 0 : align === 'right' ? free : free / 2;
  return translation(xMm + shift, downMm - upMm);
}

/** Each glyph stands upright on the circle at its own middle; the line's middle is at the top, or at the bottom, where it reads from the left as well. */
function onCircle({ xMm, upMm, advanceMm }: PlacedGlyph, line: readonly PlacedGlyph[], { diameterMm, side }: NonNullable<Lettering['around']>, outMm: number, heightMm: number): Affine {
  const radius = diameterMm / 2 + outMm;
  const middle = xMm + advanceMm / 2;
  const angle = (middle - widthOf(line) / 2) / radius;
  if (side === 'top') return followedBy(translation(xMm - middle, -radius - upMm), rotation(angle, 0, 0));
  // Along the bottom the tops of the letters point inwards: their feet lie as far out as their heads do at the top.
  return followedBy(translation(xMm - middle, radius + heightMm - upMm), rotation(-angle * (radius / (radius + heightMm)), 0, 0));
}

/** Narrowed or spread to a width, or made no wider than one. */
function fitted(curves: Curves, { widthMm, mostWidthMm, whenWider = 'smaller' }: Lettering): Curves {
  const box = boundsOf(curves);
  const now = box === undefined ? 0 : box.right - box.left;
  if (!(now > 0)) return curves;
  const across = widthMm !== undefined ? widthMm / now : mostWidthMm !== undefined && mostWidthMm < now ? mostWidthMm / now : 1;
  if (across === 1) return curves;
  return transformCurves(curves, { a: across, b: 0, c: 0, d: widthMm === undefined && whenWider !== 'narrower' ? across : 1, e: 0, f: 0 });
}

/** Joins and thickens letters that are in their places, as their text says. */
export function finishLetters(library: PolygonLibrary, curves: Curves, { join, thickenMm = 0 }: Pick<Lettering, 'join' | 'thickenMm'>): Curves {
  const joined = join === true || thickenMm !== 0 ? joinOverlaps(library, curves) : curves;
  return offsetCurves(library, joined, thickenMm);
}
