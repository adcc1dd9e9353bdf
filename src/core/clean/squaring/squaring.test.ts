import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../../tests/fixtures/errorCode.ts';
import { photoOf, SHEET_PHOTO, tilted } from '../../../../server/devices/standInCamera.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { fitView, photoFromSheet, sheetFromPhoto, viewThrough, type SheetView } from './camera.ts';
import { MARK_RADIUS_MM, marksOf, PAPERS, workArea } from './markSheet.ts';
import { rectangleAspect } from './rectangleAspect.ts';
import { squarePicture, type PointPx } from './squarePicture.ts';

const bySheet = { marks: { by: 'sheet' }, levelLight: false } as const;

/** Width and height of the dark work in a squared picture, mm. */
function workSize({ width, height, data }: Rgba8, pxPerMm: number): [number, number] {
  let ink = 0;
  const columns = new Float64Array(width);
  for (let i = 0; i < width * height; i++) {
    const share = (235 - data[i * 4]) / 195;
    ink += share;
    columns[i % width] += share;
  }
  const heightPx = [...columns].sort((a, b) => a - b)[width - Math.round((width * 60) / 174 / 2)];
  return [ink / heightPx / pxPerMm, heightPx / pxPerMm];
}

describe('squarePicture', () => {
  it('brings a tilted photo through a bent lens to true scale, any way up, on both papers', () => {
    for (const [paper, tilt, turn, k1] of [
      ['a4', 30, 5, -0.08],
      ['a4', 12, 185, 0.05],
      ['letter', 25, 3, 0],
    ] as const) {
      const { picture, resolution, paper: found, worstMissMm, area } = finish(squarePicture(photoOf(paper, tilted(paper, tilt, turn, k1)), bySheet));
      expect(found).toBe(paper);
      expect(worstMissMm).toBeLessThan(0.1);
      expect(picture.width / resolution).toBeCloseTo(area.widthMm, 0);
      const [widthMm, heightMm] = workSize(picture, resolution);
      expect(Math.abs(widthMm - 60)).toBeLessThan(0.12);
      expect(Math.abs(heightMm - 60)).toBeLessThan(0.12);
    }
  });

  it('refuses with the reason: a mark covered, glare on one, blur, no sheet at all', () => {
    const view = tilted('a4', 10, 0);
    expect(codeOf(() => finish(squarePicture(photoOf('a4', view, { covered: [4] }), bySheet)))).toBe('marksMissing');
    expect(codeOf(() => finish(squarePicture(photoOf('a4', view, { glareOn: 6 }), bySheet)))).toBe('marksGlare');
    expect(codeOf(() => finish(squarePicture(photoOf('a4', view, { blurPx: 5 }), bySheet)))).toMatch(/photoBlurred|marksMissing/);
    expect(codeOf(() => finish(squarePicture(makeRgba8(40, 30), bySheet)))).toBe('marksMissing');
    const allowed = finish(squarePicture(photoOf('a4', view, { covered: [2] }), { ...bySheet, allowMissing: true }));
    expect([allowed.marksFound, allowed.marksOnSheet]).toEqual([17, 18]);
  });

  it('works from four corners and one length', () => {
    const view = tilted('a4', 25, 10);
    const at = new Float64Array(2);
    const corners = [
      [30, 60],
      [180, 60],
      [180, 180],
      [30, 180],
    ].map(([x, y]): PointPx => {
      photoFromSheet(view, x, y, at);
      return [at[0], at[1]];
    });
    const { area } = finish(squarePicture(photoOf('a4', view), { marks: { by: 'corners', corners, widthMm: 150 }, levelLight: false }));
    expect(Math.abs(area.heightMm - 120)).toBeLessThan(0.5);
    const crossed = [corners[0], corners[2], corners[1], corners[3]];
    expect(codeOf(() => finish(squarePicture(makeRgba8(40, 30), { marks: { by: 'corners', corners: crossed, widthMm: 60 }, levelLight: false })))).toBe(
      'badCorners',
    );
  });
});

describe('camera', () => {
  it('goes to the photo and back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 35, noNaN: true }),
        fc.double({ min: 0, max: 360, noNaN: true }),
        fc.double({ min: -0.1, max: 0.1, noNaN: true }),
        fc.double({ min: 0, max: 210, noNaN: true }),
        fc.double({ min: 0, max: 297, noNaN: true }),
        (tilt, turn, k1, x, y) => {
          const view = tilted('a4', tilt, turn, k1);
          const at = new Float64Array(2);
          photoFromSheet(view, x, y, at);
          sheetFromPhoto(view, at[0], at[1], at);
          expect(Math.hypot(at[0] - x, at[1] - y)).toBeLessThan(0.01);
        },
      ),
      { seed: 91, numRuns: 200 },
    );
  });

  it('finds view and lens again from the marks alone', () => {
    const view = tilted('a4', 33, 20, -0.09);
    const at = new Float64Array(2);
    const sheet = marksOf('a4').flatMap(({ xMm, yMm }) => [xMm, yMm]);
    const photo = marksOf('a4').flatMap(({ xMm, yMm }) => {
      photoFromSheet(view, xMm, yMm, at);
      return [at[0], at[1]];
    });
    const fitted = fitView(viewThrough(sheet, photo, SHEET_PHOTO.widthPx, SHEET_PHOTO.heightPx) as SheetView, sheet, photo);
    expect(fitted.lens.k1).toBeCloseTo(-0.09, 4);
    expect(fitted.lens.k2).toBeCloseTo(0, 3);
  });

  it('tells the aspect of a rectangle seen at an angle, and straight on', () => {
    const [focal, depth] = [1500, 700];
    for (const tilt of [0, 0.4]) {
      const corners = [
        [-90, -60],
        [90, -60],
        [90, 60],
        [-90, 60],
      ].map(([x, y]): [number, number] => {
        const turned = [x * Math.cos(0.5) - y * Math.sin(0.5), x * Math.sin(0.5) + y * Math.cos(0.5)];
        const z = depth + turned[1] * Math.sin(tilt);
        return [(focal * turned[0]) / z, (focal * turned[1] * Math.cos(tilt)) / z];
      });
      expect(rectangleAspect(corners, 1000)).toBeCloseTo(1.5, 2);
    }
  });

  it('keeps marks on the paper and the work area inside them', () => {
    for (const paper of ['a4', 'letter'] as const) {
      const { widthMm, heightMm } = PAPERS[paper];
      const area = workArea(paper);
      for (const { xMm, yMm } of marksOf(paper)) {
        expect(Math.min(xMm, yMm, widthMm - xMm, heightMm - yMm)).toBeGreaterThan(MARK_RADIUS_MM + 5);
        expect(
          xMm + MARK_RADIUS_MM < area.xMm ||
            xMm - MARK_RADIUS_MM > area.xMm + area.widthMm ||
            yMm + MARK_RADIUS_MM < area.yMm ||
            yMm - MARK_RADIUS_MM > area.yMm + area.heightMm,
        ).toBe(true);
      }
      expect(marksOf(paper)).toHaveLength(18);
    }
  });
});
