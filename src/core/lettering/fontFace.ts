/** A glyph that a text became: where it stands after the one before, in units of the font with y up. */
export interface ShapedGlyph {
  /** How far the next one is along the line. */
  readonly advance: number;
  readonly xOffset: number;
  readonly yOffset: number;
  /** Known by its font for as long as that lives. */
  readonly id: number;
  /** Its outline, units of the font, y up. */
  readonly outline: readonly GlyphCommand[];
  /** Whether the font has no glyph for the character: what stands there is a stand-in. */
  readonly isMissing: boolean;
  /** Characters of the text that it is for. */
  readonly text: string;
}

/** A step of a glyph's outline: where to, with one handle or two where it is curved. */
export type GlyphCommand =
  | { readonly step: 'move' | 'line'; readonly x: number; readonly y: number }
  | { readonly step: 'quadratic'; readonly x1: number; readonly y1: number; readonly x: number; readonly y: number }
  | { readonly step: 'cubic'; readonly x1: number; readonly y1: number; readonly x2: number; readonly y2: number; readonly x: number; readonly y: number }
  | { readonly step: 'close' };

/** A font as lettering needs it; a library reads the file. */
export interface FontFace {
  readonly name: string;
  readonly unitsPerEm: number;
  /** Height of a capital H, units. */
  readonly capitalHeight: number;
  /** How far a line reaches above and below its foot, units; below is negative. */
  readonly ascent: number;
  readonly descent: number;
  /** Ligatures, kerning and marks of one line of text, in reading order from left to right. */
  shape(line: string): readonly ShapedGlyph[];
}
