import { writeOklab, type Rgb } from './oklab.ts';

/** One step of a stored difference: a tenth of the perceptual difference of `colourDifference`. */
export const LEVELS_PER_UNIT = 10;
/** Differences of this level (25.5) and more are all the same to a lift. */
export const MAX_LEVEL = 255;

const SLOTS = 1 << 16;

/**
 * Differences of many colours from one, in levels of a tenth, 0 to 255. Flat art repeats its colours and a photo its neighbours, so the
 * last 65,536 distinct answers are kept (direct mapped) and a pixel mostly costs one look-up.
 */
export class DifferenceTable {
  private readonly keys = new Int32Array(SLOTS).fill(-1);
  private readonly values = new Uint8Array(SLOTS);
  private readonly lab = new Float64Array(3);
  private readonly from = new Float64Array(3);

  constructor(reference: Rgb) {
    writeOklab(reference.r, reference.g, reference.b, this.from);
  }

  /** Level of the colour with the given channels (0 to 255 each). */
  level(r: number, g: number, b: number): number {
    const key = (r << 16) | (g << 8) | b;
    const slot = (Math.imul(key, 0x9e3779b1) >>> 16) & (SLOTS - 1);
    if (this.keys[slot] === key) return this.values[slot];
    writeOklab(r, g, b, this.lab);
    const dl = this.lab[0] - this.from[0];
    const da = this.lab[1] - this.from[1];
    const db = this.lab[2] - this.from[2];
    const level = Math.min(MAX_LEVEL, Math.round(Math.sqrt(dl * dl + da * da + db * db) * LEVELS_PER_UNIT));
    this.keys[slot] = key;
    this.values[slot] = level;
    return level;
  }
}
