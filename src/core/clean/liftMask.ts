import { DifferenceTable, LEVELS_PER_UNIT, MAX_LEVEL } from '../colour/differenceTable.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { fillRegions, labelRegions } from '../raster/labelRegions.ts';
import { BAND } from '../raster/raster.ts';
import { byRows, within, type Task } from '../task/task.ts';
import { CLOSED_OFF, enclosedAreas } from './enclosedAreas.ts';
import { spareRegions, type Find, type Places } from './finds.ts';
import type { ReachLevels } from './reachLevels.ts';

/** Level up to which a tolerance reaches; at least 0, at most what `reachLevels` tells apart. */
export const levelFromTolerance = (tolerance: number): number => Math.max(0, Math.min(MAX_LEVEL - 1, Math.round(tolerance * LEVELS_PER_UNIT)));

/** 1 where an area lift of the given tolerance reaches. */
export function* areaMask(reach: ReachLevels, tolerance: number): Task<Uint8Array> {
  const limit = levelFromTolerance(tolerance);
  const { levels } = reach;
  const mask = new Uint8Array(levels.length);
  yield* byRows(Math.ceil(mask.length / BAND), (k) => maskBand(levels, mask, limit, k * BAND, Math.min(mask.length, (k + 1) * BAND)));
  return mask;
}

function maskBand(levels: Uint8Array, mask: Uint8Array, limit: number, from: number, to: number): void {
  for (let i = from; i < to; i++) mask[i] = levels[i] <= limit ? 1 : 0;
}

/** 1 where the art is within `tolerance` of a colour, anywhere. */
export function* nearTo(art: Art, colour: Rgb, tolerance: number): Task<Uint8Array> {
  const limit = levelFromTolerance(tolerance);
  const table = new DifferenceTable(colour);
  const rgb = art.colour.data;
  const { alpha, width, height } = art;
  const mask = new Uint8Array(alpha.length);
  const maskRow = (y: number): void => {
    for (let i = y * width, c = 4 * i; i < (y + 1) * width; i++, c += 4) if (alpha[i] !== 0 && table.level(rgb[c], rgb[c + 1], rgb[c + 2]) <= limit) mask[i] = 1;
  };
  yield* byRows(height, maskRow);
  return mask;
}

/**
 * Adds to `mask` every closed-off area of the lifted colour (counters of letters, gaps between arms) but those that are spared. Gives all of them, in art
 * pixels, and the pixels of about that colour which stay: spared ones and light details.
 */
export function* addEnclosed(
  art: Art,
  mask: Uint8Array,
  lifted: Rgb,
  tolerance: number,
  spared: Places = [],
): Task<{ readonly finds: Find[]; readonly stays: Uint8Array }> {
  const alike = yield* within(nearTo(art, lifted, tolerance), 0, 0.2);
  for (let i = 0; i < mask.length; i++) if (mask[i] !== 0) alike[i] = 0;
  yield 0.25;
  const regions = labelRegions(alike, art.width, art.height, 1, false);
  yield 0.3;
  const light = yield* within(nearTo(art, lifted, (MAX_LEVEL - 1) / LEVELS_PER_UNIT), 0.3, 0.5);
  for (let i = 0; i < mask.length; i++) if (mask[i] !== 0) light[i] = 0;
  const kinds = yield* within(enclosedAreas(art, regions, light, mask), 0.55, 0.95);
  const chosen = kinds.map((kind) => (kind === CLOSED_OFF ? 1 : 0));
  const finds = spareRegions(regions, chosen, art.width, 'enclosed', spared);
  fillRegions(regions, chosen, mask);
  const stay = kinds.map((kind, k) => (kind !== 0 && chosen[k] === 0 ? 1 : 0));
  return { finds, stays: fillRegions(regions, stay, new Uint8Array(mask.length)) };
}
