import { wordsOf, type Rgba8 } from '../raster/raster.ts';

export interface Look {
  /** Distinct colours among the pixels looked at. */
  readonly colours: number;
  /** Tones that cover at least a 250th of its flat places, near ones counted as one. */
  readonly realColours: number;
  readonly hasClear: boolean;
}

const SAMPLES = 300_000;
/** A tone counts from this share of the flat pixels on. */
const LEAST_SHARE = 0.004;
/** Colours nearer than this in every channel are one tone: what JPEG and sensor noise spread. */
const NEAR = 28;

/** Counts the colours of a picture: all of them, and those that a person would name. Looks at up to 300,000 pixels, evenly spread. */
export function lookAt(picture: Rgba8): Look {
  const words = wordsOf(picture);
  const step = Math.max(1, Math.floor(words.length / SAMPLES));
  const distinct = new Set<number>();
  const cells = new Map<number, number>();
  let flat = 0;
  let hasClear = false;
  for (let i = 0; i < words.length; i += step) {
    const word = words[i];
    if (word >>> 24 < 128) {
      hasClear = true;
      continue;
    }
    distinct.add(word & 0xffffff);
    // Mixed pixels along an edge are no tone of their own: only flat places count.
    if (!isNear(word, words[i + 1] ?? word) || !isNear(word, words[i + picture.width] ?? word)) continue;
    flat++;
    const cell = ((word >>> 3) & 0x1f) | (((word >>> 11) & 0x1f) << 5) | (((word >>> 19) & 0x1f) << 10);
    cells.set(cell, (cells.get(cell) ?? 0) + 1);
  }
  return { colours: distinct.size, realColours: mergedTones(cells, flat), hasClear };
}

/** Whether two pixels are alike in every channel but for noise. */
function isNear(a: number, b: number): boolean {
  return (
    Math.abs((a & 255) - (b & 255)) <= NEAR && Math.abs(((a >> 8) & 255) - ((b >> 8) & 255)) <= NEAR && Math.abs(((a >> 16) & 255) - ((b >> 16) & 255)) <= NEAR
  );
}

/** Takes the fullest cell of the colour cube, counts all near ones to it, and so on down. */
function mergedTones(cells: Map<number, number>, total: number): number {
  const order = [...cells].sort((a, b) => b[1] - a[1]);
  const centres: { r: number; g: number; b: number; count: number }[] = [];
  for (const [cell, count] of order) {
    const r = (cell & 0x1f) * 8;
    const g = ((cell >> 5) & 0x1f) * 8;
    const b = (cell >> 10) * 8;
    const near = centres.find((c) => Math.abs(c.r - r) <= NEAR && Math.abs(c.g - g) <= NEAR && Math.abs(c.b - b) <= NEAR);
    if (near === undefined) centres.push({ r, g, b, count });
    else near.count += count;
  }
  return centres.filter((c) => c.count >= total * LEAST_SHARE).length;
}
