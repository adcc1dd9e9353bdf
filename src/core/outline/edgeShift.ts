/** Empty cells around the share map, so that looking across an edge never leaves the array. */
export const PAD = 8;

/** How far across an edge the ink is summed, in pixels to each side: soft edges are rarely wider. */
const REACH = 4;
/** How far a stroke or gap that is thinner than its own blur is followed to its other side, pixels. */
const THIN_REACH = 6;
/** A share this near to none or all counts as the end of the edge; 0.07 of 255. */
const NEAR = 18;

/**
 * Where an edge crosses between two pixel centres, as a distance in px from the centre of the ink-free one towards the other.
 *
 * An area-sampled edge says its place by its sum: the ink in the row of pixels across it, from where there is none to where there is nothing
 * else, is what lies behind the edge, exactly for a straight edge of any slope and nearly for a curved one; a symmetric blur does not change it
 * (the lowest of the grey moments of Tabatabai & Mitchell, "Edge location to subpixel values in digital imagery", IEEE PAMI 6(2), 1984,
 * doi:10.1109/TPAMI.1984.4767502). A stroke so thin that no pixel is all ink still has its whole ink as its width and its centroid as its
 * middle, and so has a thin gap: that gives both of its edges. Where neither holds, linear interpolation is left.
 * @param cells padded share map; @param left index of the pixel without ink (below 128); @param across step to its neighbour with ink.
 */
export function edgeShift(cells: Uint8Array, left: number, across: number): number {
  let ink = 0;
  let before = 256;
  let i = left;
  let clearOut = false;
  for (let k = 0; k < REACH; k++, i -= across) {
    const value = cells[i];
    if (value > before) break;
    ink += value;
    before = value;
    if (value <= NEAR) {
      clearOut = true;
      break;
    }
  }
  let fullIn = false;
  before = -1;
  i = left + across;
  for (let k = 0; k < REACH; k++, i += across) {
    const value = cells[i];
    if (value < before) break;
    ink -= 255 - value;
    before = value;
    if (value >= 255 - NEAR) {
      fullIn = true;
      break;
    }
  }
  if (clearOut && fullIn) return Math.max(-0.5, Math.min(1.5, 0.5 - ink / 255));
  const thin = clearOut ? thinStroke(cells, left, across) : fullIn ? thinGap(cells, left + across, across) : NaN;
  if (thin > -1 && thin < 2) return thin;
  const a = cells[left];
  return (127.5 - a) / (cells[left + across] - a);
}

/** Near edge of a stroke that never becomes all ink, from its whole ink and its centroid; NaN when it does not end within reach. */
function thinStroke(cells: Uint8Array, left: number, across: number): number {
  let sum = 0;
  let moment = 0;
  for (let k = 0, i = left; k > -REACH; k--, i -= across) {
    const value = cells[i];
    sum += value;
    moment += value * k;
    if (value <= NEAR) break;
  }
  let falling = false;
  let before = 0;
  for (let k = 1, i = left + across; k <= THIN_REACH; k++, i += across) {
    const value = cells[i];
    if (value < before) falling = true;
    else if (falling && value > before) return NaN;
    sum += value;
    moment += value * k;
    before = value;
    if (falling && value <= NEAR) return moment / sum - sum / 510;
  }
  return NaN;
}

/** Edge towards the ink of a gap that never becomes quite clear, by the same sums of what is missing. `right` is the first pixel with ink. */
function thinGap(cells: Uint8Array, right: number, across: number): number {
  let sum = 0;
  let moment = 0;
  for (let k = 1, i = right; k < REACH + 1; k++, i += across) {
    const missing = 255 - cells[i];
    sum += missing;
    moment += missing * k;
    if (missing <= NEAR) break;
  }
  let falling = false;
  let before = 0;
  for (let k = 0, i = right - across; k > -THIN_REACH; k--, i -= across) {
    const missing = 255 - cells[i];
    if (missing < before) falling = true;
    else if (falling && missing > before) return NaN;
    sum += missing;
    moment += missing * k;
    before = missing;
    if (falling && missing <= NEAR) return moment / sum + sum / 510;
  }
  return NaN;
}
