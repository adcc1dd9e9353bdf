import type { RectMm } from '../../core/geometry/rectMm.ts';
import { boxCurves } from '../../core/layout/cutPlan.ts';
import type { Sheet } from '../../core/layout/laySheet.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { fillPath, strokeCutLine, strokeHairline } from '../../ui/draw/cutLines.ts';
import { fillHatch, type BackdropPaint } from '../../ui/draw/hatch.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

type Context = CanvasRenderingContext2D;

export interface SheetPaint {
  readonly film: string;
  readonly clear: BackdropPaint;
  /** What is cut out is the art itself (stencil): then the art is what is lifted off. */
  readonly artIsOpening: boolean;
}

const screenRect = (view: Viewport, { xMm, yMm, widthMm, heightMm }: RectMm): [number, number, number, number] => [toScreenX(view, xMm), toScreenY(view, yMm), widthMm * view.scale, heightMm * view.scale];

/**
 * A sheet as it lies in the machine. `lifted` shows it weeded, as a share from 0 to 1 of the waste's way off: film stays only where it is wanted.
 */
export function drawSheet(context: Context, view: Viewport, sheet: Sheet, art: Path2D, paint: SheetPaint, lifted: number): void {
  const whole = screenRect(view, { xMm: 0, yMm: 0, widthMm: sheet.widthMm, heightMm: sheet.heightMm });
  context.save();
  if (lifted > 0) fillHatch(context, paint.clear, ...whole);
  context.globalAlpha = 1 - lifted;
  context.fillStyle = paint.film;
  if (sheet.outline === undefined) context.fillRect(...whole);
  else {
    const edge = polygonPath(view, sheet.outline);
    fillHatch(context, paint.clear, ...whole);
    context.fillStyle = paint.film;
    context.fill(edge);
    context.strokeStyle = '#5d5364';
    context.stroke(edge);
  }
  context.restore();
  if (lifted > 0) drawWeeded(context, view, sheet, art, paint, lifted);
  drawBoxes(context, view, sheet);
  if (sheet.weedLines !== undefined && lifted < 1) strokeCutLine(context, pathFromCurves(sheet.weedLines), view);
  drawMarks(context, view, sheet);
  if (lifted < 1) {
    context.save();
    context.globalAlpha = 0.16 * (1 - lifted);
    fillPath(context, art, view, '#ffffff');
    context.restore();
  }
  strokeCutLine(context, art, view);
  drawCutArea(context, view, sheet);
}

/** Corners, x and y of each in mm, on screen. */
function polygonPath(view: Viewport, corners: readonly number[]): Path2D {
  const path = new Path2D();
  for (let k = 0; k + 1 < corners.length; k += 2) path.lineTo(toScreenX(view, corners[k]), toScreenY(view, corners[k + 1]));
  path.closePath();
  return path;
}

/** A sheet as bare paper, to draw lines on. */
export function drawPaper(context: Context, view: Viewport, { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>): void {
  context.fillStyle = '#fffdf8';
  context.fillRect(...screenRect(view, { xMm: 0, yMm: 0, widthMm, heightMm }));
}

function drawWeeded(context: Context, view: Viewport, sheet: Sheet, art: Path2D, paint: SheetPaint, lifted: number): void {
  context.save();
  context.globalAlpha = lifted;
  if (paint.artIsOpening) {
    for (const box of sheet.boxes.length > 0 ? sheet.boxes : [sheet.used]) {
      context.fillStyle = paint.film;
      context.fillRect(...screenRect(view, box));
    }
    context.save();
    context.translate(view.x, view.y);
    context.scale(view.scale, view.scale);
    context.clip(art, 'nonzero');
    context.setTransform(window.devicePixelRatio, 0, 0, window.devicePixelRatio, 0, 0);
    fillHatch(context, paint.clear, ...screenRect(view, { xMm: 0, yMm: 0, widthMm: sheet.widthMm, heightMm: sheet.heightMm }));
    context.restore();
  } else fillPath(context, art, view, paint.film);
  context.restore();
}

/** Lines that are drawn on the film and not cut. */
function drawMarks(context: Context, view: Viewport, sheet: Sheet): void {
  const marked = sheet.parts.flatMap(({ id, marks }) => (marks === undefined ? [] : [{ id, path: pathFromCurves(marks) }]));
  if (marked.length === 0) return;
  for (const { partId, at } of sheet.placements) {
    const own = marked.find(({ id }) => id === partId);
    if (own === undefined) continue;
    const path = new Path2D();
    path.addPath(own.path, new DOMMatrix([at.a, at.b, at.c, at.d, at.e, at.f]));
    strokeHairline(context, path, view, '#ffffff');
  }
}

function drawBoxes(context: Context, view: Viewport, { boxes, boxRoundMm }: Sheet): void {
  if (boxes.length > 0) strokeCutLine(context, pathFromCurves(boxCurves(boxes, boxRoundMm)), view);
}

/** What of the sheet cannot be used: crossed out. */
export function drawFlaws(context: Context, view: Viewport, flaws: readonly RectMm[]): void {
  context.save();
  for (const flaw of flaws) {
    const [x, y, width, height] = screenRect(view, flaw);
    context.fillStyle = '#fbf8f3cc';
    context.fillRect(x, y, width, height);
    context.strokeStyle = '#9e2f4b';
    context.lineWidth = 1.5;
    context.beginPath();
    context.rect(x, y, width, height);
    context.moveTo(x, y);
    context.lineTo(x + width, y + height);
    context.moveTo(x + width, y);
    context.lineTo(x, y + height);
    context.stroke();
  }
  context.restore();
}

function drawCutArea(context: Context, view: Viewport, sheet: Sheet): void {
  context.save();
  const rect = screenRect(view, sheet.cutArea);
  context.setLineDash([7, 5]);
  for (const [colour, width] of [['#fffdf8', 2.4], ['#5d5364', 1.2]] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.strokeRect(...rect);
  }
  context.restore();
}

/** The corner that the machine counts from. */
export function drawOrigin(context: Context, view: Viewport, sheet: Sheet, origin: 'topLeft' | 'topRight' | 'bottomLeft' | 'bottomRight'): void {
  const { xMm, yMm, widthMm, heightMm } = sheet.cutArea;
  const right = origin.endsWith('Right');
  const bottom = origin.startsWith('bottom');
  const x = toScreenX(view, right ? xMm + widthMm : xMm);
  const y = toScreenY(view, bottom ? yMm + heightMm : yMm);
  const sx = right ? -1 : 1;
  const sy = bottom ? -1 : 1;
  context.save();
  context.strokeStyle = '#9e2f4b';
  context.fillStyle = '#9e2f4b';
  context.lineWidth = 2.5;
  context.beginPath();
  context.moveTo(x + 26 * sx, y);
  context.lineTo(x, y);
  context.lineTo(x, y + 26 * sy);
  context.stroke();
  context.beginPath();
  context.arc(x, y, 4.5, 0, 2 * Math.PI);
  context.fill();
  context.restore();
}

/** Height of the band under a mirrored sheet, CSS px. */
const BAND_PX = 34;

/** The slanted band that says in words that the sheet reads backwards. */
export function drawMirrorBand(context: Context, view: Viewport, sheet: Sheet, words: string): void {
  const x = toScreenX(view, 0);
  const y = toScreenY(view, sheet.heightMm) + 2;
  const width = sheet.widthMm * view.scale;
  context.save();
  context.beginPath();
  context.rect(x, y, width, BAND_PX);
  context.clip();
  context.fillStyle = '#f6efe4';
  context.fillRect(x, y, width, BAND_PX);
  context.fillStyle = '#e9c9cf';
  for (let k = -BAND_PX; k < width + BAND_PX; k += 44) {
    context.beginPath();
    context.moveTo(x + k, y + BAND_PX);
    context.lineTo(x + k + 18, y);
    context.lineTo(x + k + 32, y);
    context.lineTo(x + k + 14, y + BAND_PX);
    context.fill();
  }
  context.fillStyle = '#7e263c';
  context.font = "600 13px 'Hanken Grotesk Variable', sans-serif";
  context.textAlign = 'center';
  context.textBaseline = 'middle';
  // A narrow sheet shows as many of the words as it has room for, the first ones first.
  const parts = words.split(' · ');
  while (parts.length > 1 && context.measureText(parts.join(' · ')).width > width - 16) parts.pop();
  context.fillText(parts.join(' · '), x + width / 2, y + BAND_PX / 2 + 1);
  context.restore();
}
