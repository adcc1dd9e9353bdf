import { withAlpha, type Art } from '../raster/art.ts';
import { labelRegions, type Regions } from '../raster/labelRegions.ts';
import { spareRegions, type Find, type Places } from './finds.ts';

export interface SweepResult {
  readonly art: Art;
  /** How many went. */
  readonly specks: number;
  readonly pinholes: number;
  /** Those that went and those that were spared, in art pixels. */
  readonly finds: readonly Find[];
}

/** From this alpha up a pixel counts as there: half covered. */
const THERE = 128;

/**
 * Clears connected bits of art smaller than `speckPx2` and fills clear pinholes smaller than `pinholePx2` (areas in px²; 0 leaves them).
 * Filled pixels get back the picture's own colour. Doing it twice changes nothing more.
 * @param spared places, in art pixels, of specks and pinholes that stay.
 */
export function sweepSpecks(art: Art, speckPx2: number, pinholePx2: number, spared: Places = []): SweepResult {
  const { width, height } = art;
  const alpha = art.alpha.slice();
  const there = new Uint8Array(alpha.length);
  for (let i = 0; i < there.length; i++) if (alpha[i] >= THERE) there[i] = 1;

  // Filling first: a speck inside a pinhole becomes part of what surrounds it.
  const clear = labelRegions(there, width, height, 0, false);
  const pinholes = smallOnes(clear, pinholePx2, false);
  const found = spareRegions(clear, pinholes, width, 'pinhole', spared);
  eachRun(clear, pinholes, (start, end) => {
    alpha.fill(255, start, end);
    there.fill(1, start, end);
  });

  const solid = labelRegions(there, width, height, 1, true);
  const specks = smallOnes(solid, speckPx2, true);
  const finds = [...found, ...spareRegions(solid, specks, width, 'speck', spared)];
  eachRun(solid, specks, (start, end) => {
    alpha.fill(0, start, end);
    clearRim(art, alpha, there, start, end);
  });
  return { art: withAlpha(art, alpha), specks: countOf(specks), pinholes: countOf(pinholes), finds };
}

/** The faint rim of a speck goes with it: the half-clear pixels next to the run. */
function clearRim(art: Art, alpha: Uint8Array, there: Uint8Array, start: number, end: number): void {
  const { width } = art;
  const column = start % width;
  const before = column > 0 ? 1 : 0;
  const after = column + end - start < width ? 1 : 0;
  for (const shift of [-width, 0, width]) {
    if (start + shift < 0 || end + shift > alpha.length) continue;
    for (let i = start - before + shift; i < end + after + shift; i++) if (there[i] === 0) alpha[i] = 0;
  }
}

function smallOnes(regions: Regions, limitPx2: number, borderToo: boolean): Uint8Array {
  const is = new Uint8Array(regions.count);
  for (let k = 0; k < regions.count; k++) {
    if (regions.area[k] >= limitPx2) continue;
    if (!borderToo && regions.touchesBorder[k] !== 0) continue;
    is[k] = 1;
  }
  return is;
}

function countOf(chosen: Uint8Array): number {
  let count = 0;
  for (let k = 0; k < chosen.length; k++) count += chosen[k];
  return count;
}

function eachRun(regions: Regions, chosen: Uint8Array, visit: (start: number, end: number) => void): void {
  const { runStart, runEnd, regionOfRun } = regions;
  for (let run = 0; run < runStart.length; run++) if (chosen[regionOfRun[run]] !== 0) visit(runStart[run], runEnd[run]);
}
