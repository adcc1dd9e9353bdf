import { THIN_CELLS } from '../isoline.ts';
import type { JoinsNorthWest } from './crackArcs.ts';
import type { EdgePlaces } from './edgePlaces.ts';

/**
 * At a corner of pixels around which two tones alternate, a thin line of one of them goes through; the grey of its pixels, each of which it only partly covers,
 * would break it into beads. Elsewhere it is the pair that the bilinear surface through the four shares joins (Nielson & Hamann, "The asymptotic decider",
 * 1991, doi:10.1109/VISUAL.1991.175782).
 */
export const saddleRule =
  (places: EdgePlaces, cells: Uint8Array, stride: number): JoinsNorthWest =>
  (vertex) => {
    const first = cells[vertex - stride - 1];
    const second = cells[vertex - stride];
    const [ofFirst, ofSecond] = [cellsAround(cells, stride, vertex, first), cellsAround(cells, stride, vertex, second)];
    if (ofFirst <= THIN_CELLS !== ofSecond <= THIN_CELLS) return ofFirst <= THIN_CELLS;
    // Shares of the tone that the north-west and south-east cells have not.
    places.between(first, second);
    const northWest = places.share(vertex - stride - 1);
    const northEast = places.share(vertex - stride);
    const southWest = places.share(vertex - 1);
    const southEast = places.share(vertex);
    const bend = northWest + southEast - northEast - southWest;
    return bend === 0 || (northWest * southEast - northEast * southWest) / bend < 127.5;
  };

function cellsAround(cells: Uint8Array, stride: number, vertex: number, label: number): number {
  let count = 0;
  for (let row = -2; row < 2; row++) for (let i = vertex + row * stride - 2, last = i + 4; i < last; i++) if (cells[i] === label) count++;
  return count;
}
