import type { FontFace } from './fontFace.ts';
import { DRAWN_CAPITAL_PX, glyphShapes, inkShapes, type GlyphShape, type InkShape } from './glyphShapes.ts';
import { AppError } from '../errors/appError.ts';
import type { Task } from '../task/task.ts';

/** A font, how alike it is to the letters of a picture, and how high a capital of it would be there. */
export interface FontGuess {
  readonly font: string;
  /** 0 to 1. */
  readonly score: number;
  readonly heightPx: number;
  /** What the letters say in it, as far as it is told: dots and commas are not, and letters that are alike may be taken for each other. */
  readonly text: string;
}

/** Stems as much thicker or thinner than the font's are tried. */
const WEIGHTS = [-0.15, 0.15];
/** Fonts that are tried in other weights too: the likeliest as they are. */
const TRIED = 16;
/** Of so many the size is measured more closely. */
const MEASURED = 6;
/** Sizes of letters are fitted so often, each time without those that lie further off than usual. */
const FIT_ROUNDS = 4;
/** A fit corrects a height by no more than this share. */
const MOST_CORRECTED = 0.12;
/** Letters further off than so many times the usual distance are taken for others than they are. */
const FAR_OFF = 2.5;
/** So many letters tell a font. */
const MOST_SHAPES = 40;
/** Bits lower than this share of the highest letter are dots and commas, which many fonts share. */
const LEAST_HEIGHT = 0.35;
/** A letter of less than so many px is noise. */
const LEAST_PX2 = 12;
/** What a box that is twice as broad counts beside cells that differ throughout. */
const ASPECT_WEIGHT = 0.25;
/** What a letter that is twice as high as the others say counts. */
const SIZE_WEIGHT = 0.35;
/** Cells that differ by so much on the average bring the score down to a third. */
const UNLIKE = 0.3;

/**
 * Ranks fonts by how alike their letters are to those of a picture, whatever is written: each bit of ink is held against every letter of a font, in three weights, by the ink in the cells of its box; letters of one text have
 * one size, which counts too.
 * @param share ink of each pixel, 0 to 255. @returns the likeliest first.
 * @throws AppError `nothingToCut` where there is no letter.
 */
export function* fontOf(share: Uint8Array, width: number, height: number, faces: readonly FontFace[]): Task<FontGuess[]> {
  const all = inkShapes(share, width, height, LEAST_PX2);
  const highest = Math.max(0, ...all.map(({ heightPx }) => heightPx));
  const letters = all.filter(({ heightPx }) => heightPx >= LEAST_HEIGHT * highest).slice(0, MOST_SHAPES);
  if (letters.length === 0) throw new AppError('nothingToCut');
  const guesses: Guess[] = [];
  for (const [k, face] of faces.entries()) {
    guesses.push(guessOf(face.name, letters, glyphShapes(face, 0)));
    yield (0.6 * (k + 1)) / faces.length;
  }
  const better = (a: Guess, b: Guess): number => b.score - a.score;
  guesses.sort(better);
  const byName = new Map(faces.map((face) => [face.name, face]));
  const tried = Math.min(TRIED, guesses.length);
  for (let k = 0; k < tried; k++) {
    const face = byName.get(guesses[k].font) as FontFace;
    for (const weight of WEIGHTS) {
      const guess = guessOf(face.name, letters, glyphShapes(face, weight));
      if (guess.score > guesses[k].score) guesses[k] = guess;
    }
    yield 0.6 + (0.4 * (k + 1)) / tried;
  }
  guesses.sort(better);
  return guesses.map(({ matched, ...guess }, k): FontGuess => {
    const face = byName.get(guess.font);
    if (k >= MEASURED || face === undefined) return guess;
    return { ...guess, heightPx: fittedHeight(letters, matched, glyphShapes(face, 0), guess.heightPx), text: readingOf(letters, matched, guess.heightPx) };
  });
}

/** A guess with the glyph that each letter was taken for. */
interface Guess extends FontGuess {
  readonly matched: readonly GlyphShape[];
}

/**
 * How high a capital is, from the sizes of all letters together: they are those of the glyphs times one factor, and as much broader and higher as the strokes came out thicker. Least squares of both over widths and
 * heights, without letters that were taken for others than they are.
 * @param plain the font's glyphs as they are. @param about what the letters say one by one, which stands where the fit is far from it.
 */
function fittedHeight(letters: readonly InkShape[], matched: readonly GlyphShape[], plain: readonly GlyphShape[], about: number): number {
  const pairs = letters.flatMap((letter, k) => {
    const glyph = plain.find(({ character, part }) => character === matched[k].character && part === matched[k].part);
    return glyph === undefined ? [] : [{ from: glyph.heightPx, to: letter.heightPx }, { from: glyph.widthPx, to: letter.widthPx }];
  });
  let used = pairs;
  let factor: number | undefined;
  for (let round = 0; round < FIT_ROUNDS && used.length >= 4; round++) {
    const count = used.length;
    const [mx, my] = [used.reduce((sum, { from }) => sum + from, 0) / count, used.reduce((sum, { to }) => sum + to, 0) / count];
    const spread = used.reduce((sum, { from }) => sum + (from - mx) ** 2, 0);
    if (spread < count) return about;
    factor = used.reduce((sum, { from, to }) => sum + (from - mx) * (to - my), 0) / spread;
    const off = pairs.map(({ from, to }) => Math.abs(to - my - (factor as number) * (from - mx)));
    const usual = middleOf(off);
    used = pairs.filter((_, k) => off[k] <= FAR_OFF * usual + 0.05);
  }
  const fitted = (factor ?? 0) * DRAWN_CAPITAL_PX;
  return Math.abs(fitted - about) <= MOST_CORRECTED * about ? fitted : about;
}

/** A gap of this share of a capital's height parts words. */
const SPACE = 0.24;

/** The characters of matched letters line by line, from left to right. */
function readingOf(letters: readonly InkShape[], matched: readonly GlyphShape[], capitalPx: number): string {
  const found = letters.map((letter, k) => ({ ...letter, character: matched[k].character, middle: letter.topPx + letter.heightPx / 2 })).sort((a, b) => a.middle - b.middle);
  const lines: (typeof found)[] = [];
  for (const letter of found) {
    const line = lines[lines.length - 1];
    const at = line === undefined ? undefined : line.reduce((sum, { middle }) => sum + middle, 0) / line.length;
    if (at === undefined || letter.middle - at > 0.7 * capitalPx) lines.push([letter]);
    else line.push(letter);
  }
  return lines.map((line) => wordsOf(line.sort((a, b) => a.leftPx - b.leftPx), capitalPx)).join('\n');
}

function wordsOf(line: readonly { readonly character: string; readonly leftPx: number; readonly widthPx: number }[], capitalPx: number): string {
  let text = '';
  let end = line[0].leftPx;
  for (const { character, leftPx, widthPx } of line) {
    if (leftPx - end > SPACE * capitalPx) text += ' ';
    text += character;
    end = leftPx + widthPx;
  }
  return text;
}

function guessOf(font: string, letters: readonly InkShape[], glyphs: readonly GlyphShape[]): Guess {
  if (glyphs.length === 0) return { font, score: 0, heightPx: 0, text: '', matched: [] };
  // First each letter by itself, which tells the size; then by the size as well.
  const alone = letters.map((letter) => best(letter, glyphs, undefined));
  const capital = middleOf(alone.map(({ glyph }, k) => (letters[k].heightPx / glyph.heightPx) * DRAWN_CAPITAL_PX));
  const together = letters.map((letter) => best(letter, glyphs, capital));
  const heightPx = middleOf(together.map(({ glyph }, k) => (letters[k].heightPx / glyph.heightPx) * DRAWN_CAPITAL_PX));
  const weights = letters.map(({ heightPx: own }) => own);
  const off = together.reduce((sum, { off: own }, k) => sum + own * weights[k], 0) / weights.reduce((sum, each) => sum + each, 0);
  return { font, score: Math.exp(-off / UNLIKE), heightPx, text: '', matched: together.map(({ glyph }) => glyph) };
}

function best(letter: InkShape, glyphs: readonly GlyphShape[], capital: number | undefined): { glyph: GlyphShape; off: number } {
  let found = { glyph: glyphs[0], off: Infinity };
  for (const glyph of glyphs) {
    let off = ASPECT_WEIGHT * Math.abs(Math.log2(letter.aspect / glyph.aspect));
    if (capital !== undefined) off += SIZE_WEIGHT * Math.abs(Math.log2((letter.heightPx / glyph.heightPx) * (DRAWN_CAPITAL_PX / capital)));
    if (off >= found.off) continue;
    off += differenceOf(letter.cells, glyph.cells, found.off - off);
    if (off < found.off) found = { glyph, off };
  }
  return found;
}

/** Mean difference of two shapes' cells; broken off once it is more than enough. */
function differenceOf(a: Float32Array, b: Float32Array, enough: number): number {
  const most = enough * a.length;
  let sum = 0;
  for (let i = 0; i < a.length; i++) {
    sum += Math.abs(a[i] - b[i]);
    if (sum > most) return Infinity;
  }
  return sum / a.length;
}

const middleOf = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1];
