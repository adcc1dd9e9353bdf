import { DifferenceTable } from '../colour/differenceTable.ts';
import { artXFromPicture, artYFromPicture, type Art } from '../raster/art.ts';
import { levelFromTolerance } from './liftMask.ts';
import { seedColour } from './reachLevels.ts';

/** Mixed pixels up to so many times the tolerance are covered by the part of it that they hold. */
const FADES_OVER = 1.6;

/**
 * Takes from what a stroke covers all that differs from the colour under its first point by more than a tolerance. `cover` is changed.
 * @param art what the stroke is on. @param colours where the colours are read: the art itself, or the picture that it came from. @param points of the stroke,
 * in picture pixels.
 */
export function keepWithin(cover: Uint8Array, art: Art, colours: Art, points: readonly number[], tolerance: number): void {
  const x0 = Math.floor(artXFromPicture(colours.frame, points[0]));
  const y0 = Math.floor(artYFromPicture(colours.frame, points[1]));
  if (x0 < 0 || y0 < 0 || x0 >= colours.width || y0 >= colours.height) {
    cover.fill(0);
    return;
  }
  const table = new DifferenceTable(seedColour(colours, x0, y0));
  const limit = levelFromTolerance(tolerance);
  const fade = Math.max(1, limit * (FADES_OVER - 1));
  const rgb = colours.colour.data;
  const step = colours.frame.scale / art.frame.scale;
  const left = artXFromPicture(colours.frame, art.frame.leftPx);
  const top = artYFromPicture(colours.frame, art.frame.topPx);
  for (let y = 0, i = 0; y < art.height; y++) {
    const row = Math.max(0, Math.min(colours.height - 1, Math.floor(top + (y + 0.5) * step))) * colours.width;
    for (let x = 0; x < art.width; x++, i++) {
      if (cover[i] === 0) continue;
      const c = (row + Math.max(0, Math.min(colours.width - 1, Math.floor(left + (x + 0.5) * step)))) * 4;
      const over = table.level(rgb[c], rgb[c + 1], rgb[c + 2]) - limit;
      if (over > 0) cover[i] = Math.round(cover[i] * Math.max(0, 1 - over / fade));
    }
  }
}
