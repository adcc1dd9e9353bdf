import type { Affine } from '../core/geometry/affine.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { OfJob } from './protocol.ts';

export interface ProofRequest extends OfJob {
  /** One film out of place, mm at the finished size. */
  readonly shift?: { readonly filmId: string; readonly xMm: number; readonly yMm: number };
}

/** The films over each other, and where they differ from the clean art; reduced for the screen. */
export interface ProofView {
  readonly key: string;
  readonly composed: Rgba8;
  readonly difference: Rgba8;
  /** Share of the area that differs visibly, 0 to 1. */
  readonly differs: number;
  /** How far the art's edges lie from the curves, mm (root mean square); absent for one colour. */
  readonly strayMm?: number;
}

/** Pictures as they are printed, by the objects that they are of; reduced for the screen. */
export interface PrintsView {
  readonly key: string;
  readonly pictures: readonly { readonly id: string; readonly picture: Rgba8; /** From its px to the design's mm. */ readonly toDesign: Affine }[];
  /** What is to be said before it is printed. */
  readonly warnings: readonly string[];
}

/** The finished blank as a picture at a scale. */
export interface OnBlankView {
  readonly picture: Rgba8;
  readonly pxPerMm: number;
}

export interface NestRequest extends OfJob {
  readonly filmId: string;
  readonly seconds: number;
}

export interface OnBlankRequest extends OfJob {
  readonly sidePx: number;
  /** How far a round blank is turned, radians. */
  readonly turnRad?: number;
}
