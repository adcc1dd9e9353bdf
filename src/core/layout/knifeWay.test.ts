import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { cutPlanOf } from './cutPlan.ts';
import { knifeWay } from './knifeWay.ts';
import { laySheet } from './laySheet.ts';

const FILM = { id: 'a', name: 'Navy', colour: '#22375f' };
const settings = { sheet: { widthMm: 300, heightMm: 200, marginMm: { left: 0, top: 0, right: 0, bottom: 0 }, origin: 'topLeft' as const }, mirrored: false, box: { on: false, marginMm: 0 }, copies: 1, gapMm: 0 };
const planOf = (curves: Parameters<typeof transformCurves>[0], widthMm: number, heightMm: number) => cutPlanOf(laySheet({ layers: [{ filmId: 'a', curves }], widthMm: mm(widthMm), heightMm: mm(heightMm) }, 'a', settings), FILM);
const square = figureCurves({ form: 'rectangle', widthMm: 100, heightMm: 100 });
const pace = { speedMmS: 400, accelerationMmS2: 1000, liftS: 0.1 };

describe('the way of the tool', () => {
  it('takes as long as sides from rest to rest do', () => {
    // 100 mm at 100 mm/s with 1000 mm/s²: 1.1 s a side; down and up once.
    const way = knifeWay(planOf(square, 100, 100), { speedMmS: 100, passes: 1, tool: 'knife' }, pace);
    expect(way.cutMm).toBeCloseTo(400, 6);
    expect(way.lifts).toBe(1);
    expect(way.atS[way.atS.length - 1]).toBeCloseTo(4 * 1.1 + 0.1, 6);
    // Halfway along the first side, half of its time is gone.
    expect(Array.from(way.atS)).toEqual([...way.atS].sort((a, b) => a - b));
    // Too short to reach the speed: 2 √(s / a).
    const small = knifeWay(planOf(figureCurves({ form: 'rectangle', widthMm: 4, heightMm: 4 }), 4, 4), { speedMmS: 400, passes: 1, tool: 'knife' }, pace);
    expect(small.atS[small.atS.length - 1]).toBeCloseTo(4 * 2 * Math.sqrt(4 / 1000) + 0.1, 6);
  });

  it('goes around once more for each pass without lifting, and every cut is on it', () => {
    const two = planOf(joinCurves([square, transformCurves(square, translation(150, 0))]), 250, 100);
    const way = knifeWay(two, { speedMmS: 100, passes: 3, tool: 'knife' }, pace);
    expect(way.cutMm).toBeCloseTo(2 * 3 * 400, 6);
    expect(way.lifts).toBe(2);
    expect(way.travelMm).toBeGreaterThan(49);
    expect(knifeWay(two, { speedMmS: 100, passes: 3, tool: 'pen' }, pace).cutMm).toBeCloseTo(800, 6);
  });

  it('is faster around a round than around as many corners', () => {
    const round = knifeWay(planOf(figureCurves({ form: 'round', widthMm: 100, heightMm: 100 }), 100, 100), { speedMmS: 100, passes: 1, tool: 'knife' }, pace);
    expect(round.cutMm).toBeCloseTo(Math.PI * 100, 0);
    expect(round.atS[round.atS.length - 1]).toBeCloseTo(round.cutMm / 100 + 0.1 + 0.1 + 2 * Math.sqrt(round.travelMm / 1000), 1);
  });
});
