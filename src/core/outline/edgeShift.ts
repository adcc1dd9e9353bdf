/** Empty cells around the share map, so that looking across an edge never leaves the array. */
export const PAD = 5;

/** How far across an edge the ink is summed, in pixels to each side: soft edges are rarely wider. */
const REACH = 4;
/** A share this near to none or all counts as the end of the edge; 0.07 of 255. */
const NEAR = 18;

/**
 * Where an edge crosses between two pixel centres, as a distance in px from the centre of the ink-free one towards the other.
 *
 * An area-sampled edge says its place by its sum: the ink in the row of pixels across it, from where there is none to where there is nothing
 * else, is what lies behind the edge, exactly for a straight edge of any slope and nearly for a curved one; a symmetric blur does not change it
 * (the lowest of the grey moments of Tabatabai & Mitchell, "Edge location to subpixel values in digital imagery", IEEE PAMI 6(2), 1984,
 * doi:10.1109/TPAMI.1984.4767502). Where the edge has no such end within reach, as in strokes thinner than a pixel, linear interpolation is left.
 * @param cells padded share map; @param left index of the pixel without ink (below 128); @param across step to its neighbour with ink.
 */
export function edgeShift(cells: Uint8Array, left: number, across: number): number {
  let ink = 0;
  let before = 256;
  let i = left;
  let ended = false;
  for (let k = 0; k < REACH; k++, i -= across) {
    const value = cells[i];
    if (value > before) break;
    ink += value;
    before = value;
    if (value <= NEAR) {
      ended = true;
      break;
    }
  }
  if (ended) {
    ended = false;
    before = -1;
    i = left + across;
    for (let k = 0; k < REACH; k++, i += across) {
      const value = cells[i];
      if (value < before) break;
      ink -= 255 - value;
      before = value;
      if (value >= 255 - NEAR) {
        ended = true;
        break;
      }
    }
  }
  if (ended) return Math.max(-0.5, Math.min(1.5, 0.5 - ink / 255));
  const a = cells[left];
  return (127.5 - a) / (cells[left + across] - a);
}
