import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { Design } from '../assemble/design.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { newJob } from '../job/newJob.ts';
import { withFilmByItself, withLayoutOf } from '../layout/layoutFor.ts';
import type { Layout } from '../layout/layout.ts';
import { SHEETS } from '../layout/sheetStock.ts';
import { mm } from '../units/length.ts';
import { sheetsOf } from './sheetsOf.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const heart = figureCurves({ form: 'heart', widthMm: 120, heightMm: 100 });
const design: Design = { layers: [{ filmId: 'navy', curves: heart }, { filmId: 'gold', curves: heart }], widthMm: mm(120), heightMm: mm(100) };
const fresh = newJob('Hearts');
const laid = (layout: Layout): ReturnType<typeof sheetsOf> => sheetsOf({ ...fresh, layout }, { design }, library);

describe('sheets of several films', () => {
  it('are alike, so that they line up', () => {
    const [navy, gold] = laid({ ...fresh.layout, copies: 2 });
    expect({ ...gold, filmId: 'navy' }).toEqual(navy);
  });

  it('are of another size, without a box and with other copies for a film that is laid out by itself', () => {
    const own = withLayoutOf(withFilmByItself({ ...fresh.layout, weedLines: { on: true, everyMm: 40, awayMm: 1 } }, 'gold', true), 'gold', { sheet: SHEETS[3], box: { on: false, marginMm: 6 }, copies: 2, weedLines: { on: false, everyMm: 40, awayMm: 1 } });
    const [navy, gold] = laid(own);
    expect([navy.widthMm, navy.placements.length, navy.boxes.length, navy.weedLines !== undefined]).toEqual([fresh.layout.sheet.widthMm, 1, 1, true]);
    expect([gold.widthMm, gold.placements.length, gold.boxes.length, gold.weedLines]).toEqual([SHEETS[3].widthMm, 2, 0, undefined]);
  });

  it('are nested for one film alone', () => {
    const own = withLayoutOf(withFilmByItself({ ...fresh.layout, copies: 3 }, 'gold', true), 'gold', { arrange: 'nested', copies: 12 });
    const sheets = laid(own);
    expect(sheets.filter(({ filmId }) => filmId === 'navy')).toHaveLength(1);
    expect(sheets.filter(({ filmId }) => filmId === 'gold').reduce((sum, { placements }) => sum + placements.length, 0)).toBe(12);
  });
});
