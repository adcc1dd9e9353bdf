import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { rackCheck } from './rackCheck.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const square = (at: number) => transformCurves(figureCurves({ form: 'rectangle', widthMm: 20, heightMm: 20 }), translation(at, 0));
const layers = [{ filmId: 'low', curves: square(0) }, { filmId: 'high', curves: square(15) }];
const films = (takesFilm: boolean, colour = '#b3262e') => [{ id: 'low', colour: '#22375f', takesFilm }, { id: 'high', colour, takesFilm: true }];

describe('what lies on what', () => {
  it('tells film on one that takes none, where and how much of it', () => {
    expect(rackCheck({ layers }, films(true), '#ffffff', library)).toEqual([]);
    const [found, ...more] = rackCheck({ layers }, films(false), '#ffffff', library);
    expect(more).toEqual([]);
    expect(found).toMatchObject({ kind: 'holdsNone', filmId: 'high', size: expect.closeTo(100, 0) as number });
    expect(found.xMm).toBeGreaterThan(15);
    expect(found.xMm).toBeLessThan(20);
    expect(rackCheck({ layers: [layers[0], { filmId: 'high', curves: square(30) }] }, films(false), '#ffffff', library)).toEqual([]);
  });

  it('tells a film that is like its blank, light on light and dark on dark', () => {
    expect(rackCheck({ layers }, films(true, '#fdfbf7'), '#ffffff').map(({ kind, filmId }) => [kind, filmId])).toEqual([['likeBlank', 'high']]);
    expect(rackCheck({ layers }, films(true), '#23365c').map(({ filmId }) => filmId)).toEqual(['low']);
    expect(rackCheck({ layers }, films(true), '#c9a675')).toEqual([]);
  });
});
