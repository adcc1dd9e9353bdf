import { inverseOf, placed, type Affine } from '../../core/geometry/affine.ts';
import { bent, unbent, type Fan } from '../../core/geometry/fan.ts';

type Point = { readonly x: number; readonly y: number };

/** Where places of the design lie on the sheet that is looked at, and back, mm. */
export interface PlaceOnSheet {
  readonly to: (x: number, y: number) => Point;
  readonly from: (x: number, y: number) => Point;
}

/** @param at of the first copy, from the mm of what is cut. @param fan how the design was bent for its blank. */
export function placeOnSheet(at: Affine, fan: Fan | undefined): PlaceOnSheet {
  const home = inverseOf(at);
  if (fan === undefined) return { to: (x, y) => placed(at, x, y), from: (x, y) => placed(home, x, y) };
  return {
    to: (x, y) => {
      const on = bent(fan, x, y);
      return placed(at, on.x, on.y);
    },
    from: (x, y) => {
      const on = placed(home, x, y);
      return unbent(fan, on.x, on.y);
    },
  };
}
