import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { Design } from '../assemble/design.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { mm } from '../units/length.ts';
import type { LayoutSettings } from './laySheet.ts';
import { finish } from '../task/task.ts';
import { nestedRoom } from './nestedRoom.ts';
import { nestedSheets } from './nestSheets.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const settings: LayoutSettings = { sheet: { widthMm: 200, heightMm: 150, marginMm: { left: 2, top: 2, right: 2, bottom: 2 }, origin: 'topLeft' }, mirrored: true, box: { on: false, marginMm: 0 }, copies: 1, gapMm: 2, arrange: 'nested' };
const star = figureCurves({ form: 'star', widthMm: 50, heightMm: 50, corners: 5, depth: 0.5, cornerMm: 0 });
const round = figureCurves({ form: 'round', widthMm: 30, heightMm: 30 });
const design = (...layers: (typeof star)[]) => ({ layers: layers.map((curves, k) => ({ filmId: `film-${k}`, curves })), widthMm: mm(50), heightMm: mm(50) });

const roomOf = (of: Design): number => finish(nestedRoom(library, of, settings));

describe('how many copies a sheet holds, nested', () => {
  it('is as many as lie on one sheet, and one more takes a second', () => {
    const room = roomOf(design(star));
    expect(room).toBeGreaterThanOrEqual(10);
    const sheets = (copies: number): number => nestedSheets(library, design(star), 'film-0', { ...settings, copies }).length;
    expect([sheets(room), sheets(room + 1)]).toEqual([1, 2]);
  });

  it('is that of the film that holds least, and none of what is larger than the sheet', () => {
    expect(roomOf(design(round, star))).toBe(roomOf(design(star)));
    expect(roomOf(design(figureCurves({ form: 'round', widthMm: 400, heightMm: 400 })))).toBe(0);
  });
});
