import type { JoinsNorthWest } from './crackArcs.ts';
import type { EdgePlaces } from './edgePlaces.ts';

/**
 * At a corner of pixels around which two tones alternate, the pair that the bilinear surface through the four shares joins (Nielson & Hamann, "The asymptotic decider", 1991,
 * doi:10.1109/VISUAL.1991.175782).
 */
export const saddleRule =
  (places: EdgePlaces, cells: Uint8Array, stride: number): JoinsNorthWest =>
  (vertex) => {
    // Shares of the tone that the north-west and south-east cells have not.
    places.between(cells[vertex - stride - 1], cells[vertex - stride]);
    const northWest = places.share(vertex - stride - 1);
    const northEast = places.share(vertex - stride);
    const southWest = places.share(vertex - 1);
    const southEast = places.share(vertex);
    const bend = northWest + southEast - northEast - southWest;
    return bend === 0 || (northWest * southEast - northEast * southWest) / bend < 127.5;
  };
