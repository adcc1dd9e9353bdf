import { DifferenceTable, LEVELS_PER_UNIT } from '../colour/differenceTable.ts';
import { colourDifference, type Rgb } from '../colour/oklab.ts';
import { coverageOf } from '../outline/coverage.ts';
import type { Curves } from '../outline/curves.ts';
import type { Art } from '../raster/art.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';

/** Differences from this on are seen without looking for them (OKLab × 100); one is just visible between large areas side by side. */
export const VISIBLE = 2.5;

export interface ProofFilm {
  readonly colour: Rgb;
  /** In art px. */
  readonly curves: Curves;
}

export interface Proof {
  /** The films over each other, clear where none lies and nothing is. */
  readonly composed: Rgba8;
  /** Where that differs from the art visibly: from clear over yellow to red. */
  readonly difference: Rgba8;
  /** Share of the area that differs visibly, 0 to 1. */
  readonly differs: number;
}

/**
 * Lays films over each other, lowest first, and compares them with the art that they were taken from.
 * @param ground what shows where no film lies; where the art itself is clear there, both are clear.
 */
export function proofOf(art: Art, films: readonly ProofFilm[], ground: Rgb): Proof {
  const { width, height } = art;
  const composed = new Uint8Array(width * height * 4);
  for (let i = 0; i < width * height; i++) composed.set([ground.r, ground.g, ground.b, art.alpha[i] < 128 ? 0 : 255], 4 * i);
  for (const { colour, curves } of films) layOver(composed, coverageOf(curves, width, height), colour);
  const difference = new Uint8Array(width * height * 4);
  const tables = new Map([ground, ...films.map(({ colour }) => colour)].map((colour) => [keyOf(colour.r, colour.g, colour.b), new DifferenceTable(colour)]));
  let differing = 0;
  for (let i = 0; i < width * height; i++) {
    const off = differenceAt(art, composed, i, ground, tables);
    if (off < VISIBLE) continue;
    differing++;
    // Yellow for what is just seen, red for what stands out.
    const strong = Math.min(1, (off - VISIBLE) / 20);
    difference.set([235, Math.round(190 * (1 - strong)), 40, 255], 4 * i);
  }
  return { composed: makeRgba8(width, height, composed), difference: makeRgba8(width, height, difference), differs: differing / (width * height) };
}

function layOver(composed: Uint8Array, coverage: Uint8Array, { r, g, b }: Rgb): void {
  for (let i = 0, j = 0; i < coverage.length; i++, j += 4) {
    const cover = coverage[i];
    if (cover === 0) continue;
    composed[j] += ((r - composed[j]) * cover) / 255;
    composed[j + 1] += ((g - composed[j + 1]) * cover) / 255;
    composed[j + 2] += ((b - composed[j + 2]) * cover) / 255;
    composed[j + 3] = Math.max(composed[j + 3], cover);
  }
}

/** Difference of the two at a pixel, each over the ground where it is clear. Where one film covers all of a pixel, answers come from that film's table. */
function differenceAt({ colour: { data }, alpha }: Art, composed: Uint8Array, i: number, ground: Rgb, tables: ReadonlyMap<number, DifferenceTable>): number {
  const j = 4 * i;
  const over = (value: number, below: number): number => Math.round(below + ((value - below) * alpha[i]) / 255);
  const r = over(data[j], ground.r);
  const g = over(data[j + 1], ground.g);
  const b = over(data[j + 2], ground.b);
  const table = tables.get(keyOf(composed[j], composed[j + 1], composed[j + 2]));
  return table === undefined
    ? colourDifference({ r, g, b }, { r: composed[j], g: composed[j + 1], b: composed[j + 2] })
    : table.level(r, g, b) / LEVELS_PER_UNIT;
}

const keyOf = (r: number, g: number, b: number): number => (r << 16) | (g << 8) | b;
