import { inverseOf, placed, type Affine } from '../../src/core/geometry/affine.ts';
import type { CameraView } from '../../src/core/print/findMark.ts';

/** A page as it came out of the printer: what is on it, grey and in colour, at so many px on a mm. */
export interface PrintedPage {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly pxPerMm: number;
  /** RGBA. */
  readonly data: Uint8Array;
}

/** Grey of a page at a place, mm; of what lies around it where the place is none of it. */
export function greyAt({ widthPx, heightPx, pxPerMm, data }: PrintedPage, xMm: number, yMm: number, around: number): number {
  const [x, y] = [xMm * pxPerMm - 0.5, yMm * pxPerMm - 0.5];
  const [i, j] = [Math.floor(x), Math.floor(y)];
  if (i < 0 || j < 0 || i + 1 >= widthPx || j + 1 >= heightPx) return around;
  const [u, v] = [x - i, y - j];
  const at = (column: number, row: number): number => {
    const o = 4 * (row * widthPx + column);
    return 0.299 * data[o] + 0.587 * data[o + 1] + 0.114 * data[o + 2];
  };
  return (at(i, j) * (1 - u) + at(i + 1, j) * u) * (1 - v) + (at(i, j + 1) * (1 - u) + at(i + 1, j + 1) * u) * v;
}

/** A page as it lies on a bed: `lies` takes its mm to the bed's, both y down. */
export interface LyingPage {
  readonly page: PrintedPage;
  readonly lies: Affine;
}

/** Grey of the mat, and how much the light of the camera flickers, of 255. */
const MAT_GREY = 120;
const FLICKER = 10;

/**
 * What a small camera above a bed sees around a place of it.
 * @param xMm, yMm the middle of the picture on the bed, mm, y down. @param hidden something bright lies over the place. @param random from 0 to 1.
 */
export function cameraView({ page, lies }: LyingPage, xMm: number, yMm: number, { sideMm, pxPerMm, hidden, random }: { readonly sideMm: number; readonly pxPerMm: number; readonly hidden: boolean; readonly random: () => number }): CameraView {
  const side = Math.round(sideMm * pxPerMm);
  const back = inverseOf(lies);
  const grey = new Uint8Array(side * side);
  for (let j = 0; j < side; j++) {
    for (let i = 0; i < side; i++) {
      const at = placed(back, xMm - sideMm / 2 + (i + 0.5) / pxPerMm, yMm - sideMm / 2 + (j + 0.5) / pxPerMm);
      const light = hidden ? 235 : greyAt(page, at.x, at.y, MAT_GREY);
      grey[j * side + i] = Math.max(0, Math.min(255, Math.round(light * 0.92 + FLICKER * (random() - 0.5))));
    }
  }
  return { grey, widthPx: side, heightPx: side, pxPerMm };
}
