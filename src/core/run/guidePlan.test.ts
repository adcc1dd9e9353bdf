import { describe, expect, it } from 'vitest';
import { newJob } from '../job/newJob.ts';
import type { Job } from '../job/job.ts';
import { boundsOf, type Bounds } from '../outline/curves.ts';
import { lengthOf } from '../outline/transformCurves.ts';
import { BLANKS, type Blank } from '../process/blanks.ts';
import { GUIDE_FILM, guideOf, guidePlan } from './guidePlan.ts';
import { cutPlansOf } from './runJob.ts';

const design = { widthMm: 200, heightMm: 120 } as unknown as Parameters<typeof guidePlan>[1];
const jobWith = (change: Partial<Job['layout']>, more: Partial<Job> = {}): Job => {
  const job = newJob('Guide', 'htv');
  return { ...job, layout: { ...job.layout, guide: true, ...change }, ...more };
};
const boxOf = (job: Job): Bounds => boundsOf(guidePlan(job, design)?.runs[0].curves as NonNullable<ReturnType<typeof guidePlan>>['runs'][0]['curves']) as Bounds;

describe('the cut of a placement guide', () => {
  it('is asked for, and lies in the origin corner of a sheet like the others', () => {
    expect(guidePlan(jobWith({ guide: undefined }), design)).toBeUndefined();
    const job = jobWith({});
    const plan = guidePlan(job, design);
    expect([plan?.film, plan?.widthMm]).toEqual([GUIDE_FILM, job.layout.sheet.widthMm]);
    const { marginMm } = job.layout.sheet;
    expect([boxOf(job).left, boxOf(job).top]).toEqual([expect.closeTo(marginMm.left, 6), expect.closeTo(marginMm.top, 6)]);
    const right = boxOf(jobWith({ sheet: { ...job.layout.sheet, origin: 'bottomRight' } }));
    expect([right.right, right.bottom]).toEqual([expect.closeTo(job.layout.sheet.widthMm - marginMm.right, 6), expect.closeTo(job.layout.sheet.heightMm - marginMm.bottom, 6)]);
  });

  it('ends at the weeding box, where there is one around the copy', () => {
    const [boxed, bare] = [{ on: true, marginMm: 9 }, { on: false, marginMm: 9 }].map((box) => boxOf(jobWith({ box })));
    expect(bare.bottom - bare.top - (boxed.bottom - boxed.top)).toBeCloseTo(9, 6);
  });

  it('is turned where it fits so alone, and none where it does not', () => {
    const { sheet } = jobWith({}).layout;
    const margins = { left: 0, right: 0, top: 0, bottom: 0 };
    // 160 mm wide and, down to the box, less than 150 high.
    const narrow = jobWith({ sheet: { ...sheet, widthMm: 155, heightMm: 400, marginMm: margins } });
    const { left, right, top, bottom } = boxOf(narrow);
    expect(bottom - top).toBeCloseTo(160, 6);
    expect(right - left).toBeLessThan(155);
    expect(guidePlan(jobWith({ sheet: { ...sheet, widthMm: 60, heightMm: 60, marginMm: margins } }), design)).toBeUndefined();
  });

  it('is bent for a blank that tapers, as long along its edge as on it', () => {
    const tumbler = BLANKS.find(({ blank }) => blank.name === 'Tapered tumbler')?.blank as Blank;
    const job = jobWith({ box: { on: false, marginMm: 0 } }, { blank: tumbler, place: { xMm: 20, yMm: 20 } });
    const small = { widthMm: 50, heightMm: 40 } as unknown as Parameters<typeof guidePlan>[1];
    const [bent, flat] = [guideOf(job, small), guideOf({ ...job, blank: { ...tumbler, aroundBelowMm: tumbler.aroundMm } }, small)].map((guide) => lengthOf(guide?.curves as NonNullable<typeof guide>['curves']));
    expect(bent / flat).toBeGreaterThan(1);
    expect(bent / flat).toBeLessThan(1.1);
  });

  it('comes last of what is cut', () => {
    const guide = guidePlan(jobWith({}), design);
    expect(cutPlansOf({ rack: [], sheets: [], guide })).toEqual([guide]);
  });
});
