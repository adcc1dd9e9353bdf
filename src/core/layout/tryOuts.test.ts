import { describe, expect, it } from 'vitest';
import { figureCurves } from '../figure/figureCurves.ts';
import { boundsOf } from '../outline/curves.ts';
import { joinCurves, lengthOf } from '../outline/transformCurves.ts';
import { mm } from '../units/length.ts';
import { curvesOfRole, cutPlanOf } from './cutPlan.ts';
import { laySheet } from './laySheet.ts';
import { penDrawing, testCut } from './tryOuts.ts';

const FILM = { id: 'a', name: 'Navy', colour: '#22375f' };

describe('trying a film out', () => {
  it('is a small cut of corners and small curves in a box, all within it and apart from each other', () => {
    const { runs, widthMm } = testCut(FILM);
    expect(runs.map(({ role }) => role)).toEqual(['cut', 'cut', 'cut', 'cut', 'box']);
    const boxes = runs.map(({ curves }) => boundsOf(curves) ?? expect.unreachable());
    const frame = boxes[4];
    expect([frame.left, frame.right, widthMm]).toEqual([2, 28, 30]);
    for (const [k, a] of boxes.slice(0, 4).entries()) {
      expect(a.left > frame.left && a.top > frame.top && a.right < frame.right && a.bottom < frame.bottom).toBe(true);
      for (const b of boxes.slice(k + 1, 4)) expect(a.right < b.left || b.right < a.left || a.bottom < b.top || b.bottom < a.top).toBe(true);
    }
  });

  it('is the sheet drawn with a pen: the same lines, none of them cut', () => {
    const design = { layers: [{ filmId: 'a', curves: figureCurves({ form: 'heart', widthMm: 40, heightMm: 36 }) }], widthMm: mm(40), heightMm: mm(36) };
    const plan = cutPlanOf(laySheet(design, 'a', { sheet: { widthMm: 300, heightMm: 200, marginMm: { left: 5, top: 5, right: 5, bottom: 5 }, origin: 'topLeft' }, mirrored: true, box: { on: true, marginMm: 4 }, copies: 2, gapMm: 3 }), FILM);
    const drawn = penDrawing(plan);
    expect(new Set(drawn.runs.map(({ role }) => role))).toEqual(new Set(['mark']));
    expect(lengthOf(curvesOfRole(drawn, 'mark'))).toBeCloseTo(lengthOf(joinCurves([curvesOfRole(plan, 'cut'), curvesOfRole(plan, 'box')])), 6);
  });
});
