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
