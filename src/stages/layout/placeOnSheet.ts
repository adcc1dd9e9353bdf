import type { RectMm } from '../../core/geometry/rectMm.ts';
import { followedBy, inverseOf, mirrorAbout, placed, translation, type Affine } from '../../core/geometry/affine.ts';
import { bent, unbent, type Fan } from '../../core/geometry/fan.ts';

type Point = { readonly x: number; readonly y: number };

/** Where places of the design lie on the sheet that is looked at, and back, mm. */
export interface PlaceOnSheet {
  readonly to: (x: number, y: number) => Point;
  readonly from: (x: number, y: number) => Point;
  /** Whether a place of the design lies on another sheet. */
  readonly isElsewhere: (x: number, y: number) => boolean;
}

export interface LyingOnSheet {
  /** Of the first copy, from the mm of what is cut. */
  readonly at: Affine;
  /** How the design was bent for its blank. */
  readonly fan?: Fan | undefined;
  /** Width of what is cut, where it was mirrored before it was laid. */
  readonly mirroredMm?: number | undefined;
  /** The tile that the sheet is. */
  readonly tile?: RectMm | undefined;
}

export function placeOnSheet({ at, fan, mirroredMm, tile }: LyingOnSheet): PlaceOnSheet {
  const onFilm = (x: number, y: number): Point => (fan === undefined ? { x, y } : bent(fan, x, y));
  // A tile counts from its own corner.
  const before = mirroredMm !== undefined ? mirrorAbout(mirroredMm / 2) : translation(-(tile?.xMm ?? 0), -(tile?.yMm ?? 0));
  const there = followedBy(before, at);
  const home = inverseOf(there);
  return {
    to: (x, y) => {
      const on = onFilm(x, y);
      return placed(there, on.x, on.y);
    },
    from: (x, y) => {
      const on = placed(home, x, y);
      return fan === undefined ? on : unbent(fan, on.x, on.y);
    },
    isElsewhere: (x, y) => {
      const on = onFilm(x, y);
      return tile !== undefined && (on.x < tile.xMm || on.y < tile.yMm || on.x > tile.xMm + tile.widthMm || on.y > tile.yMm + tile.heightMm);
    },
  };
}
