import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { DesignLayer } from './design.ts';
import { holeCurves, withEyelets, type HolesSettings } from './madeFromAll.ts';

const library = await loadPolygons();
const board = (widthMm: number, heightMm: number, x = 0, y = 0): Curves => transformCurves(figureCurves({ form: 'rectangle', widthMm, heightMm }), translation(x, y));
const all: DesignLayer[] = [{ filmId: 'low', curves: board(80, 60, 10, 5) }, { filmId: 'high', curves: board(20, 20, 30, 20) }];
const base: HolesSettings = { where: 'places', diameterMm: 4, fromTopMm: 0, fromSideMm: 0 };
function middles(settings: HolesSettings): string[] {
  const curves = holeCurves(settings, all);
  return Array.from({ length: ringCount(curves) }, (_, ring) => {
    const { coords, coordStart } = curves;
    const own = coords.subarray(coordStart[ring], coordStart[ring + 1]);
    const [xs, ys] = [own.filter((__, k) => k % 2 === 0), own.filter((__, k) => k % 2 === 1)];
    return `${Math.round((Math.min(...xs) + Math.max(...xs)) / 2)},${Math.round((Math.min(...ys) + Math.max(...ys)) / 2)}`;
  }).sort();
}

describe('holes through all films', () => {
  it('are where they are said to be, measured from the edges of everything', () => {
    expect(middles({ ...base, where: 'pair', fromTopMm: 6, fromSideMm: 8 })).toEqual(['18,11', '82,11']);
    const at = (mirrored: 'none' | 'across' | 'down' | 'both'): string[] => middles({ ...base, places: [{ fromLeftMm: 12, fromTopMm: 9, mirrored }] });
    expect(at('none')).toEqual(['22,14']);
    expect(at('across')).toEqual(['22,14', '78,14']);
    expect(at('down')).toEqual(['22,14', '22,56']);
    expect(at('both')).toEqual(['22,14', '22,56', '78,14', '78,56']);
    expect(middles(base)).toEqual([]);
  });

  it('have film around them that reaches beyond the edge', () => {
    const holes = holeCurves({ ...base, places: [{ fromLeftMm: 40, fromTopMm: -3, mirrored: 'none' }] }, all);
    const eyed = withEyelets(library, all[0].curves, holes, 3);
    expect(boundsOf(eyed)?.top).toBeCloseTo(5 - 3 - 2 - 3, 3);
    expect(areaOf(eyed)).toBeGreaterThan(80 * 60);
    expect(ringCount(eyed)).toBe(1);
  });
});
