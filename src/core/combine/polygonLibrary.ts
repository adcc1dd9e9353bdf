/** Closed rings of points in mm, each point with a mark; points that were not handed in have mark 0. */
export interface MarkedRings {
  readonly points: Float64Array;
  readonly marks: Int32Array;
  /** Ring k: points starts[k] to starts[k + 1] (exclusive). */
  readonly starts: Int32Array;
}

/** How two outlines are put together: both as one, the first without the second, or what is in both. */
export type CombineKind = 'join' | 'cutOut' | 'common';

/** What combines polygons: a well-kept library behind a port, so that the core loads none. */
export interface PolygonLibrary {
  /** What winds around a place at all is inside; holes run against their outlines. Points lie on a lattice of 10⁴ to a mm. */
  combine(kind: CombineKind, subject: MarkedRings, clip: MarkedRings): MarkedRings;
  /** What rings wind around clockwise, counted over all of them; loops that wind the other way are left out. */
  settle(rings: MarkedRings): MarkedRings;
}
