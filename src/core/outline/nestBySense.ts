import { insideRing } from './checkCurves.ts';
import { boxOfPoints, CurvesBuilder, ringArea, type Bounds, type Curves } from './curves.ts';
import { flatten } from './flatten.ts';

/** Chords for telling what lies in what, in units of the coordinates. */
const CHORD = 0.02;
/** So many points of a ring are looked at: where two rings touch, single points may lie on either side. */
const LOOKED_AT = 25;

/**
 * Nests rings whose direction says already what they are: outlines clockwise on screen, holes the other way. Each lies in the smallest ring of the other kind that holds most of it; a hole in none is no hole
 * and left out. Rings come out parents first.
 */
export function nestBySense(curves: Curves): Curves {
  const rings = flatten(curves, CHORD);
  const { points, starts } = rings;
  const area = Array.from(curves.parent, (_, ring) => ringArea(curves, ring));
  const boxes = Array.from(curves.parent, (_, ring) => boxOfPoints(points, starts[ring], starts[ring + 1]));
  const bySize = Array.from(area.keys()).sort((a, b) => Math.abs(area[b]) - Math.abs(area[a]));
  const builder = new CurvesBuilder();
  const place = new Map<number, number>();
  for (const [at, ring] of bySize.entries()) {
    const around = lastIndex(bySize, at, (other) => area[other] > 0 !== area[ring] > 0 && place.has(other) && holds(boxes[other], boxes[ring]) && holdsMost(ring, other));
    if (around === undefined && area[ring] < 0) continue;
    place.set(ring, place.size);
    builder.copy(curves, ring, around === undefined ? -1 : (place.get(around) as number));
  }
  return builder.build();

  function holdsMost(ring: number, other: number): boolean {
    const count = starts[ring + 1] - starts[ring];
    const step = Math.max(1, Math.floor(count / LOOKED_AT));
    let inside = 0;
    let seen = 0;
    for (let k = starts[ring]; k < starts[ring + 1]; k += step, seen++) if (insideRing(rings, other, points[2 * k], points[2 * k + 1])) inside++;
    return 2 * inside > seen;
  }
}

/** The last of the first `count` for which something holds. */
function lastIndex(all: readonly number[], count: number, is: (value: number) => boolean): number | undefined {
  for (let k = count - 1; k >= 0; k--) if (is(all[k])) return all[k];
  return undefined;
}

/** Whether a box holds another, but for what chords cut off. */
const holds = (a: Bounds, b: Bounds): boolean => a.left <= b.left + CHORD && a.top <= b.top + CHORD && a.right >= b.right - CHORD && a.bottom >= b.bottom - CHORD;
