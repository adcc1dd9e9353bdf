import { offsetCurves, type OffsetCorners } from '../combine/offsetCurves.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { CurvesBuilder, depthOf, isOpenRing, ringCount, type Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';

/** An opening that would close keeps this share of its half width. */
const KEPT_OPEN = 0.35;
/** The half width of an opening is known so well, mm. */
const WITHIN_MM = 0.02;

/**
 * Outlines thicker or thinner by a distance. Openings that thickening would close stay open: they are narrowed no further than to a third of their width.
 * @param byMm outwards above 0.
 */
export function thickenCurves(library: PolygonLibrary, curves: Curves, byMm: number, corners: OffsetCorners = 'round'): Curves {
  const moved = offsetCurves(library, curves, byMm, corners);
  if (byMm <= 0) return moved;
  const kept = new CurvesBuilder();
  let any = false;
  for (let ring = 0; ring < ringCount(curves); ring++) {
    if (isOpenRing(curves, ring) || depthOf(curves, ring) % 2 === 0) continue;
    const opening = alone(curves, ring);
    if (ringCount(offsetCurves(library, opening, -byMm)) > 0) continue;
    const by = (1 - KEPT_OPEN) * halfWidthOf(library, opening, byMm);
    const left = by > WITHIN_MM ? offsetCurves(library, opening, -by) : opening;
    for (let k = 0; k < ringCount(left); k++) kept.copy(left, k, -1);
    any = true;
  }
  return any ? combineCurves(library, 'cutOut', moved, kept.build()) : moved;
}

/** One ring by itself, clockwise. */
function alone(curves: Curves, ring: number): Curves {
  const builder = new CurvesBuilder();
  builder.copy(curves, ring, -1);
  return nestRings(builder.build());
}

/** How far an outline can be moved inwards before nothing is left, by halving; it is known to be less than `mostMm`. */
function halfWidthOf(library: PolygonLibrary, curves: Curves, mostMm: number): number {
  let [least, most] = [0, mostMm];
  while (most - least > WITHIN_MM) {
    const middle = (least + most) / 2;
    if (ringCount(offsetCurves(library, curves, -middle)) > 0) least = middle;
    else most = middle;
  }
  return least;
}
