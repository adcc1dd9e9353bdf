import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { codeOf } from '../../../../tests/fixtures/errorCode.ts';
import { makeRgba8, type Rgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { fitView, photoFromSheet, sheetFromPhoto, viewThrough, type SheetView } from './camera.ts';
import { DOT_RADIUS_MM, HOLE_RADIUS_MM, MARK_RADIUS_MM, marksOf, PAPERS, workArea, type Paper } from './markSheet.ts';
import { rectangleAspect } from './rectangleAspect.ts';
import { squarePicture, type PointPx } from './squarePicture.ts';

const WIDTH = 760;
const HEIGHT = 960;

/** A view of the paper tilted by so many degrees about an axis through its middle. */
function tilted(paper: Paper, tiltDeg: number, turnDeg: number, k1 = 0): SheetView {
  const { widthMm, heightMm } = PAPERS[paper];
  const [tilt, turn] = [(tiltDeg * Math.PI) / 180, (turnDeg * Math.PI) / 180];
  const corners = [[0, 0], [widthMm, 0], [widthMm, heightMm], [0, heightMm]];
  const photo = corners.flatMap(([x, y]) => {
    const [dx, dy] = [x - widthMm / 2, y - heightMm / 2];
    const [u, v] = [dx * Math.cos(turn) - dy * Math.sin(turn), dx * Math.sin(turn) + dy * Math.cos(turn)];
    const depth = 600 + v * Math.sin(tilt);
    return [WIDTH / 2 + (1300 * u) / depth, HEIGHT / 2 + (1300 * v * Math.cos(tilt)) / depth];
  });
  const straight = viewThrough(corners.flat(), photo, WIDTH, HEIGHT) as SheetView;
  return { ...straight, lens: { k1, k2: 0 } };
}

const FINE = 6;

/** The sheet, six pixels a mm: paper, marks but the covered ones, and a square of 60 mm from (60, 90) as the work. */
function sheetRaster(paper: Paper, covered: readonly number[]): { grey: Uint8Array; width: number; height: number } {
  const width = Math.round(PAPERS[paper].widthMm * FINE);
  const height = Math.round(PAPERS[paper].heightMm * FINE);
  const grey = new Uint8Array(width * height).fill(235);
  for (let y = 90 * FINE; y < 150 * FINE; y++) grey.fill(40, y * width + 60 * FINE, y * width + 120 * FINE);
  marksOf(paper).forEach(({ xMm, yMm, dotted }, k) => {
    if (covered.includes(k)) return;
    for (let y = Math.floor((yMm - 5) * FINE); y < (yMm + 5) * FINE; y++) {
      for (let x = Math.floor((xMm - 5) * FINE); x < (xMm + 5) * FINE; x++) {
        const distance = Math.hypot((x + 0.5) / FINE - xMm, (y + 0.5) / FINE - yMm);
        if ((distance > HOLE_RADIUS_MM && distance < MARK_RADIUS_MM) || (dotted && distance < DOT_RADIUS_MM)) grey[y * width + x] = 25;
      }
    }
  });
  return { grey, width, height };
}

interface Spoilt {
  readonly covered?: readonly number[];
  readonly glareOn?: number;
  readonly blurPx?: number;
}

function photoOf(paper: Paper, view: SheetView, { covered = [], glareOn, blurPx = 0 }: Spoilt = {}): Rgba8 {
  const data = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  const at = new Float64Array(2);
  const sheet = sheetRaster(paper, covered);
  for (let y = 0; y < HEIGHT; y++) {
    for (let x = 0; x < WIDTH; x++) {
      let sum = 0;
      for (let ray = 0; ray < 4; ray++) {
        const spread = 1 + 2 * blurPx;
        sheetFromPhoto(view, x + 0.5 + spread * (0.25 - 0.5 * (ray % 2)), y + 0.5 + spread * (0.25 - 0.5 * (ray >> 1)), at);
        const [sx, sy] = [Math.floor(at[0] * FINE), Math.floor(at[1] * FINE)];
        sum += sx >= 0 && sy >= 0 && sx < sheet.width && sy < sheet.height ? sheet.grey[sy * sheet.width + sx] : 90;
      }
      const o = (y * WIDTH + x) * 4;
      data.fill(sum / 4, o, o + 3);
    }
  }
  if (glareOn !== undefined) {
    const mark = marksOf(paper)[glareOn];
    photoFromSheet(view, mark.xMm, mark.yMm, at);
    for (let y = 0; y < HEIGHT; y++) for (let x = 0; x < WIDTH; x++) if (Math.hypot(x - at[0], y - at[1]) < 26) data.fill(255, (y * WIDTH + x) * 4, (y * WIDTH + x) * 4 + 3);
  }
  return makeRgba8(WIDTH, HEIGHT, data, true);
}

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
    for (const [paper, tilt, turn, k1] of [['a4', 30, 5, -0.08], ['a4', 12, 185, 0.05], ['letter', 25, 3, 0]] as const) {
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
    const corners = [[30, 60], [180, 60], [180, 180], [30, 180]].map(([x, y]): PointPx => {
      photoFromSheet(view, x, y, at);
      return [at[0], at[1]];
    });
    const { area } = finish(squarePicture(photoOf('a4', view), { marks: { by: 'corners', corners, widthMm: 150 }, levelLight: false }));
    expect(Math.abs(area.heightMm - 120)).toBeLessThan(0.5);
    const crossed = [corners[0], corners[2], corners[1], corners[3]];
    expect(codeOf(() => finish(squarePicture(makeRgba8(40, 30), { marks: { by: 'corners', corners: crossed, widthMm: 60 }, levelLight: false })))).toBe('badCorners');
  });
});

describe('camera', () => {
  it('goes to the photo and back', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 35, noNaN: true }), fc.double({ min: 0, max: 360, noNaN: true }), fc.double({ min: -0.1, max: 0.1, noNaN: true }), fc.double({ min: 0, max: 210, noNaN: true }), fc.double({ min: 0, max: 297, noNaN: true }), (tilt, turn, k1, x, y) => {
        const view = tilted('a4', tilt, turn, k1);
        const at = new Float64Array(2);
        photoFromSheet(view, x, y, at);
        sheetFromPhoto(view, at[0], at[1], at);
        expect(Math.hypot(at[0] - x, at[1] - y)).toBeLessThan(0.01);
      }),
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
    const fitted = fitView(viewThrough(sheet, photo, WIDTH, HEIGHT) as SheetView, sheet, photo);
    expect(fitted.lens.k1).toBeCloseTo(-0.09, 4);
    expect(fitted.lens.k2).toBeCloseTo(0, 3);
  });

  it('tells the aspect of a rectangle seen at an angle, and straight on', () => {
    const [focal, depth] = [1500, 700];
    for (const tilt of [0, 0.4]) {
      const corners = [[-90, -60], [90, -60], [90, 60], [-90, 60]].map(([x, y]): [number, number] => {
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
        expect(xMm + MARK_RADIUS_MM < area.xMm || xMm - MARK_RADIUS_MM > area.xMm + area.widthMm || yMm + MARK_RADIUS_MM < area.yMm || yMm - MARK_RADIUS_MM > area.yMm + area.heightMm).toBe(true);
      }
      expect(marksOf(paper)).toHaveLength(18);
    }
  });
});
