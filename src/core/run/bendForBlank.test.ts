import { loadPolygons } from '../../../cli/loadPolygons.ts';
import { describe, expect, it } from 'vitest';
import { paintedArt, WHITE } from '../../../tests/fixtures/shapes.ts';
import { placed } from '../geometry/affine.ts';
import { bent, type Fan } from '../geometry/fan.ts';
import type { Job } from '../job/job.ts';
import type { TracedObject } from '../job/objects.ts';
import { newJob } from '../job/newJob.ts';
import { boundsOf, type Bounds } from '../outline/curves.ts';
import { BLANKS, type Blank } from '../process/blanks.ts';
import { finish } from '../task/task.ts';
import { laidDesign } from './bendForBlank.ts';
import { pagePictures, printedPictures } from './proofOnBlank.ts';
import { cutJob, type CutResult } from './runJob.ts';

const NAVY = { r: 36, g: 80, b: 154 };
/** A bar and a dot below each of its ends. */
const art = paintedArt(120, 60, (x, y) => (x > 10 && x < 110 && ((y > 10 && y < 20) || (y > 30 && y < 40 && (x < 20 || x > 100))) ? NAVY : WHITE));
const shapes = { library: await loadPolygons(), lettered: new Map() };
const tumbler = BLANKS.find(({ blank }) => blank.name === 'Tapered tumbler')?.blank as Blank;
const [fresh] = newJob('Bar').objects as [TracedObject];
const jobFor = (change: Partial<Job> = {}): Job => {
  const job = newJob('Bar', 'decal');
  return { ...job, blank: tumbler, layout: { ...job.layout, box: { on: false, marginMm: 5 } }, objects: [{ ...fresh, id: 'art', separation: { way: 'flat', count: 2, meet: 'stacked' }, size: { by: 'width', sizeMm: 80, turnDeg: 0 } }], ...change };
};
const cut = (job: Job): CutResult => finish(cutJob(job, new Map([['art', { art, key: 'bar' }]]), 'art', undefined, shapes));
const boxOf = ({ sheets }: CutResult): Bounds => boundsOf(sheets[0].parts[0].curves) as Bounds;

describe('a design for a blank that tapers', () => {
  const straight = cut(jobFor({ blank: { ...tumbler, aroundBelowMm: tumbler.aroundMm } }));
  const made = cut(jobFor());

  it('stays as it is, and is bent on its sheet: its box begins at 0, 0 and is higher by what its ends sink', () => {
    expect([made.design.widthMm, made.design.heightMm]).toEqual([straight.design.widthMm, straight.design.heightMm]);
    expect(boxOf(straight).bottom).toBeCloseTo(straight.design.heightMm, 6);
    const box = boxOf(made);
    expect([box.left, box.top]).toEqual([expect.closeTo(0, 6), expect.closeTo(0, 6)]);
    const { design, fan } = made.laid;
    expect([box.right, box.bottom]).toEqual([expect.closeTo(design.widthMm, 6), expect.closeTo(design.heightMm, 6)]);
    const flat = fan as Fan;
    const sinks = bent(flat, 0, 0).y - bent(flat, flat.middleMm, 0).y;
    expect(sinks).toBeGreaterThan(1);
    expect(box.bottom - straight.design.heightMm).toBeCloseTo(sinks, 0);
  });

  it('is bent once, whatever is done with its sheet, and again where it lies elsewhere', () => {
    const job = jobFor();
    const laid = laidDesign(job, made.design, made.parts);
    expect(laidDesign({ ...job, layout: { ...job.layout, copies: 7 } }, made.design, made.parts)).toBe(laid);
    expect(laidDesign({ ...job, place: { xMm: 3, yMm: 30 } }, made.design, made.parts)).not.toBe(laid);
  });

  it('is cut flat on request, and around work that lies on the sheet', () => {
    const { layout } = jobFor();
    for (const change of [{ unbent: true }, { work: { xMm: 20, yMm: 20 } }]) {
      const flat = cut(jobFor({ layout: { ...layout, ...change } }));
      expect(flat.laid.fan).toBeUndefined();
      expect(flat.laid.design).toBe(flat.design);
    }
  });

  it('is held to its place on the blank: further down the same bar is bent less, where the glass is narrower', () => {
    const at = (yMm: number): Fan => cut(jobFor({ place: { xMm: 10, yMm } })).laid.fan as Fan;
    expect(at(0).radiusMm - at(50).radiusMm).toBeCloseTo(50, 9);
  });

  it('has its print bent too, and its motifs as large as that', () => {
    const job = jobFor({ process: 'waterslide', layout: { ...newJob('Bar', 'waterslide').layout, contour: { on: true, awayMm: 2 } } });
    const print = cut(job);
    const arts = new Map([['art', { art }]]);
    const [[flat], [bentOne]] = [printedPictures(job, print, arts) ?? [], pagePictures(job, print, arts) ?? []];
    const fan = print.laid.fan as Fan;
    // The middle of the bar's left end.
    const on = placed(flat.toDesign, 10, 15);
    const there = bent(fan, on.x, on.y);
    const { picture, toDesign } = bentOne;
    const alphaAt = (x: number, y: number): number => {
      const [px, py] = [(x - toDesign.e) / toDesign.a, (y - toDesign.f) / toDesign.d];
      return picture.data[4 * (Math.floor(py) * picture.width + Math.floor(px)) + 3] ?? 0;
    };
    expect([alphaAt(there.x + 1.5, there.y), alphaAt(there.x - 2.5, there.y)]).toEqual([255, 0]);
    const contour = boundsOf(print.print?.motifs[0].contour as NonNullable<NonNullable<CutResult['print']>['motifs'][0]['contour']>) as Bounds;
    expect(contour.bottom - contour.top).toBeCloseTo(print.laid.design.heightMm + 4, 1);
  });
});
