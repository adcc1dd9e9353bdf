import { joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Curves } from '../outline/curves.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { joinCurves } from '../outline/transformCurves.ts';

/** Below this, a choke or a distance is none, mm. */
const NONE_MM = 1e-6;

const whole = (library: PolygonLibrary, layers: readonly { readonly curves: Curves }[]): Curves => joinOverlaps(library, joinCurves(layers.map(({ curves }) => curves)));

/** The white shape below a motif's ink: all that is inked, so much smaller all around that none of it shows beside the ink. @param layers what is inked, mm. */
export function whiteBack(library: PolygonLibrary, layers: readonly { readonly curves: Curves }[], chokeMm: number): Curves {
  const inked = whole(library, layers);
  return chokeMm > NONE_MM ? offsetCurves(library, inked, -chokeMm) : inked;
}

/** The line around a motif that a cutter follows: its outermost edge so far outside, without openings; pieces that come near to each other are cut as one. */
export function motifContour(library: PolygonLibrary, layers: readonly { readonly curves: Curves }[], awayMm: number): Curves {
  const outer = withoutOpenings(whole(library, layers));
  return awayMm > NONE_MM ? withoutOpenings(offsetCurves(library, outer, awayMm)) : outer;
}
