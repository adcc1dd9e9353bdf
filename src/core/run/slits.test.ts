import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import { IDENTITY, translation } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { TracedObject } from '../job/objects.ts';
import { newJob } from '../job/newJob.ts';
import { boundsOf, ringCount, type Bounds, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { cutPlanOf } from '../layout/cutPlan.ts';
import { printedPlan } from '../layout/printedPlan.ts';
import { finish } from '../task/task.ts';
import { cutJob, type CutResult } from './runJob.ts';

const art = paintedArt(60, 60, (x, y) => (Math.hypot(x - 30, y - 30) < 25 ? { r: 179, g: 38, b: 46 } : WHITE));
const shapes = { library: await loadPolygons(), lettered: new Map() };
const [fresh] = newJob('Dots').objects as [TracedObject];
function cut(change: Partial<Job['layout']>): CutResult {
  const job = newJob('Dots', 'waterslide');
  const layout = { ...job.layout, fill: false, copies: 6, contour: { on: true, awayMm: 2 }, ...change };
  return finish(cutJob({ ...job, layout, objects: [{ ...fresh, id: 'art', separation: { way: 'flat', count: 2, meet: 'stacked' }, size: { by: 'width', sizeMm: 40, turnDeg: 0 } }] }, new Map([['art', { art, key: 'dots' }]]), 'art', undefined, shapes));
}
const slits = { on: true, everyMm: 60, awayMm: 1.5 };

describe('slits through the waste of a printed page', () => {
  it('run over the printed area and keep off every cut line', () => {
    const { sheets, print } = cut({ weedLines: slits });
    const [sheet] = sheets;
    const lines = sheet.weedLines as Curves;
    expect(ringCount(lines)).toBeGreaterThan(2);
    const box = boundsOf(lines) as Bounds;
    const area = print?.area as NonNullable<CutResult['print']>['area'];
    expect(box.left).toBeGreaterThan(area.xMm - 1e-6);
    expect(box.bottom).toBeLessThan(area.yMm + area.heightMm + 1e-6);
    // Cut lines are circles here.
    const circles = sheet.placements.map(({ at }) => boundsOf(transformCurves(sheet.parts[0].curves, at)) as Bounds).map(({ left, right, top, bottom }) => ({ x: (left + right) / 2, y: (top + bottom) / 2, r: (right - left) / 2 }));
    const { points, starts } = flatten(lines, 0.1);
    for (let k = 0; k + 1 < starts.length; k++) {
      const [ax, ay, bx, by] = [points[2 * starts[k]], points[2 * starts[k] + 1], points[2 * (starts[k + 1] - 1)], points[2 * (starts[k + 1] - 1) + 1]];
      for (const { x, y, r } of circles) {
        for (let t = 0; t <= 1; t += 0.01) expect(Math.hypot(ax + (bx - ax) * t - x, ay + (by - ay) * t - y) - r).toBeGreaterThan(1.4);
      }
    }
  });

  it('are cut after the motifs, also on a page that lies shifted, and are none unless asked for', () => {
    const made = cut({ weedLines: slits });
    const roles = (plan: ReturnType<typeof printedPlan>): string[] | undefined => plan?.runs.map(({ role }) => role);
    expect(roles(cutPlanOf(made.sheets[0], { id: 'page', name: 'Page', colour: '#ffffff' }))?.at(-1)).toBe('weedLine');
    const bed = { widthMm: 300, heightMm: 300 };
    const print = made.print as NonNullable<CutResult['print']>;
    const [there, moved] = [IDENTITY, translation(7, -3)].map((toBed) => printedPlan(print, 1, toBed, bed, made.sheets[0].weedLines));
    expect(roles(there)).toEqual(['cut', 'weedLine']);
    expect((boundsOf(moved?.runs[1].curves as Curves) as Bounds).left - (boundsOf(there?.runs[1].curves as Curves) as Bounds).left).toBeCloseTo(7, 9);
    expect(roles(printedPlan(print, 1, IDENTITY, bed, cut({}).sheets[0].weedLines))).toEqual(['cut']);
  });
});
