import { beforeAll, describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { codeOf } from '../../../tests/fixtures/errorCode.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { Curves } from '../outline/curves.ts';
import { finish } from '../task/task.ts';
import { layTogether, type JobFilm } from './together.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

const heart = figureCurves({ form: 'heart', widthMm: 60, heightMm: 55 });
const flag = figureCurves({ form: 'speech', widthMm: 80, heightMm: 40, at: 0.2, tailMm: 12 });
const navy = { name: 'Harbour navy', colour: '#22375f' };
const film = (job: number, change: Partial<JobFilm> = {}): JobFilm => ({ job, name: 'Regatta', film: navy, material: 'smooth', curves: heart, widthMm: 60, mirrored: true, copies: 1, ...change });
const settings = { sheet: { name: 'Roll', widthMm: 305, heightMm: 600, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' as const }, gapMm: 3, turns: 'free' as const, box: { on: true, marginMm: 4 } };
const lay = (films: readonly JobFilm[], change = {}) => finish(layTogether(library, films, { ...settings, ...change }, () => 1));

describe('several jobs on one roll', () => {
  it('share the sheets of a film, each with its copies and number, none over another', () => {
    const [only, ...more] = lay([film(1, { copies: 5 }), film(2, { curves: flag, widthMm: 80, copies: 4 })]);
    expect(more).toEqual([]);
    expect(only).toMatchObject({ film: navy, mirrored: true, jobs: [1, 2] });
    const counts = new Map<string, number>();
    for (const { placements, parts } of only.sheets) {
      const lying = placements.map(({ partId, at }) => transformCurves(parts.find(({ id }) => id === partId)?.curves as Curves, at));
      for (const { partId } of placements) counts.set(partId, (counts.get(partId) ?? 0) + 1);
      for (const [k, a] of lying.entries()) for (const b of lying.slice(k + 1)) expect(areaOf(combineCurves(library, 'common', a, b))).toBeLessThan(1e-3);
    }
    expect([...counts]).toEqual(expect.arrayContaining([['job-1', 5], ['job-2', 4]]));
  });

  it('stay apart where the film, its material or the side that is cut differs', () => {
    const laid = lay([film(1), film(2, { film: { name: 'Pennant red', colour: '#b3262e' } }), film(3, { material: 'glitter' }), film(4, { mirrored: false }), film(5)]);
    expect(laid.map(({ jobs }) => jobs)).toEqual([[1, 5], [2], [3], [4]]);
  });

  it('mirrors a job as it would be by itself', () => {
    const [mirrored] = lay([film(1, { curves: flag, widthMm: 80 })], { turns: 'none' });
    const [plain] = lay([film(1, { curves: flag, widthMm: 80, mirrored: false })], { turns: 'none' });
    const curvesOf = ({ sheets: [sheet] }: typeof mirrored): Curves => transformCurves(sheet.parts[0].curves, sheet.placements[0].at);
    expect(areaOf(combineCurves(library, 'cutOut', curvesOf(mirrored), curvesOf(plain)))).toBeGreaterThan(20);
    expect(areaOf(curvesOf(mirrored))).toBeCloseTo(areaOf(curvesOf(plain)), 1);
  });

  it('says when a part is larger than the sheet, and lays nothing where nothing is cut', () => {
    expect(codeOf(() => lay([film(1, { curves: figureCurves({ form: 'round', widthMm: 400, heightMm: 900 }), widthMm: 400 })]))).toBe('doesNotFit');
    expect(lay([])).toEqual([]);
  });
});
