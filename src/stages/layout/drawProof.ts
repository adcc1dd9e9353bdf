import { placeOnBlank, type PlaceMm } from '../../core/assemble/placeOnBlank.ts';
import type { Curves } from '../../core/outline/curves.ts';
import { areaOnProof } from '../../core/proof/blankProof.ts';
import { GUIDE_FILM } from '../../core/run/guidePlan.ts';
import { proofMeasures } from '../../core/proof/proofWords.ts';
import type { Blank } from '../../core/process/blanks.ts';
import type { OnBlankView } from '../../engine/layoutProtocol.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { fillPath, strokeHairline } from '../../ui/draw/cutLines.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';
import { canvasOf } from '../shared/bitmaps.ts';

type Context = CanvasRenderingContext2D;

const INK = '#5d5364';
const END_PX = 5;

export const widthOfProof = ({ picture, pxPerMm }: OnBlankView): number => picture.width / pxPerMm;
export const heightOfProof = ({ picture, pxPerMm }: OnBlankView): number => picture.height / pxPerMm;

/** The finished blank at a place of the table, mm. @param landed how far its uppermost film has come down, 0 to 1. */
export function drawProof(context: Context, view: Viewport, { picture, pxPerMm }: OnBlankView, xMm: number, landed = 1): void {
  context.save();
  context.globalAlpha = landed;
  context.imageSmoothingQuality = 'high';
  context.drawImage(canvasOf(picture), toScreenX(view, xMm), toScreenY(view, 0), (picture.width / pxPerMm) * view.scale, (picture.height / pxPerMm) * view.scale);
  context.restore();
}

/** Its measures, as on a workshop drawing: how far below the collar, how wide and high. @param length a length in words. */
export function drawProofMeasures(context: Context, view: Viewport, blank: Blank, place: PlaceMm | undefined, design: { readonly widthMm: number; readonly heightMm: number }, length: (mm: number) => string): void {
  const area = areaOnProof(blank);
  const at = placeOnBlank(place, blank, design);
  const { belowMm, from } = proofMeasures(blank, place, design);
  const [left, top] = [area.xMm + at.xMm, area.yMm + at.yMm];
  context.save();
  context.strokeStyle = INK;
  context.fillStyle = INK;
  context.lineWidth = 1;
  context.font = "600 12px 'Hanken Grotesk Variable', sans-serif";
  line(context, view, [left, top + design.heightMm], [left + design.widthMm, top + design.heightMm], [0, 14], length(design.widthMm));
  line(context, view, [left + design.widthMm, top], [left + design.widthMm, top + design.heightMm], [14, 0], length(design.heightMm));
  if (from === 'collar') line(context, view, [left + design.widthMm / 2, top - belowMm], [left + design.widthMm / 2, top], [0, 0], length(belowMm));
  context.restore();
}

/** A piece of card laid on the blank, outlines in mm of its printable area. */
export function drawGuide(context: Context, view: Viewport, blank: Blank, curves: Curves): void {
  const area = areaOnProof(blank);
  const moved: Viewport = { ...view, x: toScreenX(view, area.xMm), y: toScreenY(view, area.yMm) };
  const path = pathFromCurves(curves);
  context.save();
  context.globalAlpha = 0.8;
  fillPath(context, path, moved, GUIDE_FILM.colour);
  context.restore();
  strokeHairline(context, path, moved, INK);
}

/** A line with ends between two places, moved aside on screen, and its words beside it. */
function line(context: Context, view: Viewport, a: readonly [number, number], b: readonly [number, number], [dx, dy]: readonly [number, number], words: string): void {
  const [ax, ay, bx, by] = [toScreenX(view, a[0]) + dx, toScreenY(view, a[1]) + dy, toScreenX(view, b[0]) + dx, toScreenY(view, b[1]) + dy];
  const isLevel = Math.abs(by - ay) < 1;
  context.beginPath();
  context.moveTo(ax, ay);
  context.lineTo(bx, by);
  for (const [x, y] of [[ax, ay], [bx, by]]) {
    context.moveTo(x - (isLevel ? 0 : END_PX), y - (isLevel ? END_PX : 0));
    context.lineTo(x + (isLevel ? 0 : END_PX), y + (isLevel ? END_PX : 0));
  }
  context.stroke();
  context.textAlign = isLevel ? 'center' : 'left';
  context.textBaseline = isLevel ? 'top' : 'middle';
  context.fillText(words, (ax + bx) / 2 + (isLevel ? 0 : 8), (ay + by) / 2 + (isLevel ? 5 : 0));
}
