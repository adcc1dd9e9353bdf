import { beforeAll, describe, expect, it } from 'vitest';
import { shapeTools } from '../../../cli/shapeTools.ts';
import { ShapeMaker } from '../../engine/designShapes.ts';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { jobWith } from '../../../tests/fixtures/jobWith.ts';
import { photoOf, tilted } from '../../../server/devices/standInCamera.ts';
import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import { tracedPart } from '../job/tracedPart.ts';
import type { Sheet } from '../layout/laySheet.ts';
import { flatten } from '../outline/flatten.ts';
import { boundsOf, type Bounds } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { cleanPart, cutJob, type CutResult } from '../run/runJob.ts';
import { finish } from '../task/task.ts';
import { withoutWorkPlace, withWorkInPlace, workPlaceOf, type WorkPlace } from './workInPlace.ts';

let library: PolygonLibrary;
let found: WorkPlace;
let job: Job;
let cutOf: (job: Job) => CutResult;
beforeAll(async () => {
  library = await loadPolygons();
  // A square of 60 mm was stamped 60 mm from the left and 90 mm from the top, and photographed at an angle.
  const photo = photoOf('a4', tilted('a4', 20, 5, -0.05));
  const plain = newJob('Stamped square', 'htv');
  job = jobWith(plain, { recipe: [{ kind: 'squaring', id: 'square', v: 1, enabled: true, marks: { by: 'sheet' }, levelLight: false }], separation: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'dark' }, size: { by: 'width', sizeMm: 100, turnDeg: 0 } } as never);
  const part = tracedPart(job);
  const shapes = await new ShapeMaker(shapeTools).of({ ...job, layout: { ...job.layout, work: { xMm: 0, yMm: 0 } } });
  const clean = finish(cleanPart(part, photo, 'photo'));
  cutOf = (own) => finish(cutJob(own, new Map([[part.id, clean]]), part.id, undefined, shapes));
  const cut = cutOf(job);
  const facts = clean.steps.find(({ id }) => id === 'square')?.facts ?? {};
  found = workPlaceOf(facts, cut.place, clean.art.frame, cut.design) as WorkPlace;
}, 60_000);

const boxOf = ({ parts, placements }: Sheet, k: number): Bounds => boundsOf(transformCurves(parts.find(({ id }) => id === placements[k].partId)?.curves ?? parts[0].curves, placements[k].at)) as Bounds;

/** The middle of what the first copy covers. */
function middleOf({ parts, placements }: Sheet): { x: number; y: number } {
  const { points } = flatten(transformCurves(parts[0].curves, placements[0].at), 0.01);
  let [area, x, y] = [0, 0, 0];
  for (let i = 0; i < points.length; i += 2) {
    const next = (i + 2) % points.length;
    const cross = points[i] * points[next + 1] - points[next] * points[i + 1];
    [area, x, y] = [area + cross, x + (points[i] + points[next]) * cross, y + (points[i + 1] + points[next + 1]) * cross];
  }
  return { x: x / (3 * area), y: y / (3 * area) };
}

describe('work that lies on the sheet', () => {
  it('is found where it lies on the mark sheet, at its own size', () => {
    expect(found.paper).toBe('a4');
    // Edges are traced within half a pixel of the photo, which has a little more than two to a mm.
    for (const [value, want] of [[found.xMm, 60], [found.yMm, 90], [found.widthMm, 60]]) expect(Math.abs(value - want)).toBeLessThan(0.25);
  });

  it('is cut there: not at the machine’s corner, not mirrored, whatever the process wants', () => {
    const own = withWorkInPlace(job, tracedPart(job).id, found);
    const [sheet, ...others] = cutOf(own).sheets;
    expect([others.length, sheet.mirrored, sheet.widthMm, sheet.heightMm]).toEqual([0, false, 210, 297]);
    const { left, top, right, bottom } = boxOf(sheet, 0);
    for (const [value, want] of [[left, 60], [top, 90], [right, 120], [bottom, 150]]) expect(Math.abs(value - want)).toBeLessThan(0.25);
    const { x, y } = middleOf(sheet);
    expect(Math.hypot(x - 90, y - 120)).toBeLessThan(0.06);
    expect(withoutWorkPlace(own).layout.work).toBeUndefined();
  });

  it('has blanks for the next time on what is free, none on it, as many as the sheet holds', () => {
    const own = withWorkInPlace(job, tracedPart(job).id, found);
    const [sheet] = cutOf({ ...own, layout: { ...own.layout, copies: 6, gapMm: 4 } }).sheets;
    expect(sheet.placements.length).toBeGreaterThanOrEqual(5);
    expect(boxOf(sheet, 0).left).toBeCloseTo(found.xMm, 3);
    const lying = sheet.placements.map(({ partId, at }) => transformCurves(sheet.parts.find(({ id }) => id === partId)?.curves ?? sheet.parts[0].curves, at));
    for (const [k, a] of lying.entries()) for (const b of lying.slice(k + 1)) expect(areaOf(combineCurves(library, 'common', a, b))).toBeLessThan(1e-6);
    for (const curves of lying) {
      const box = boundsOf(curves) as Bounds;
      expect(Math.min(box.left, box.top, 210 - box.right, 297 - box.bottom)).toBeGreaterThan(-1e-6);
    }
  });

  it('is not known of a picture that was squared by something else', () => {
    const cut = cutOf(job);
    expect(workPlaceOf({ pxPerMm: 4, widthMm: 120, heightMm: 80 }, cut.place, { leftPx: 0, topPx: 0, scale: 1 }, cut.design)).toBeUndefined();
    expect(workPlaceOf({}, cut.place, { leftPx: 0, topPx: 0, scale: 1 }, cut.design)).toBeUndefined();
  });
});
