import type { Affine } from '../../core/geometry/affine.ts';
import type { PartInDesign } from '../../core/assemble/composeDesign.ts';
import type { Curves } from '../../core/outline/curves.ts';
import type { DecalPaper } from '../../core/print/motif.ts';
import { PAGE_MARK, pageMarks, type PrintPages } from '../../core/print/printPages.ts';
import { pathFromCurves } from '../../ui/draw/curvePath.ts';
import { toScreenX, toScreenY, type Viewport } from '../../ui/viewport.ts';

type Context = CanvasRenderingContext2D;

export interface PagePaint {
  readonly paper: DecalPaper;
  readonly behind: 'paper' | 'blank';
  readonly blank: string;
  /** The art of objects that are pictures, by their ids. */
  readonly pictures: ReadonlyMap<string, { readonly canvas: HTMLCanvasElement; readonly toDesign: Affine; readonly below: readonly string[] }>;
  readonly parts: readonly Pick<PartInDesign, 'id' | 'layers' | 'cutsOut'>[];
  /** Cuts through the waste of the page, mm, where there are any. */
  readonly slits?: Curves | undefined;
  readonly colourOf: (filmId: string) => string;
}

/** Decal paper is a little off white, clear one a little blue. */
const PAPER = { white: '#fdfdfb', clear: '#eef3f4' } as const;
const TRIM = '#9a9a9a';
const CUT_LINE = '#9e2f4b';

const paths = new WeakMap<Curves, Path2D>();
function pathOf(curves: Curves): Path2D {
  const known = paths.get(curves) ?? pathFromCurves(curves);
  paths.set(curves, known);
  return known;
}

/**
 * A print page with its ink. Ink is see-through: it is multiplied with what lies behind it, which on white paper stays white. @param trimMm from a motif to where scissors go.
 */
export function drawPage(context: Context, view: Viewport, { widthMm, heightMm }: { widthMm: number; heightMm: number }, { motifs, pages, area, hasMarks }: PrintPages, page: number, paint: PagePaint, trimMm: number): void {
  const { slits } = paint;
  const rect = (x: number, y: number, w: number, h: number): [number, number, number, number] => [toScreenX(view, x), toScreenY(view, y), w * view.scale, h * view.scale];
  const onBlank = paint.behind === 'blank';
  context.save();
  context.fillStyle = onBlank ? paint.blank : PAPER[paint.paper];
  context.fillRect(...rect(0, 0, widthMm, heightMm));
  context.strokeStyle = '#b9ad9c';
  context.strokeRect(...rect(0, 0, widthMm, heightMm));
  context.setLineDash([2, 4]);
  context.strokeStyle = '#8f8577';
  context.strokeRect(...rect(area.xMm, area.yMm, area.widthMm, area.heightMm));
  context.setLineDash([]);
  for (const { motif, at, box } of pages[page] ?? []) {
    context.save();
    if (!(onBlank && paint.paper === 'white')) context.globalCompositeOperation = 'multiply';
    // Placed from the design's mm to the page's, and from there to the screen.
    context.translate(view.x, view.y);
    context.scale(view.scale, view.scale);
    context.transform(at.a, at.b, at.c, at.d, at.e, at.f);
    const { white, contour } = motifs[motif];
    if (white !== undefined && onBlank) fillWhite(context, pathOf(white));
    for (const part of paint.parts) if (motifs[motif].parts.includes(part.id) && part.cutsOut !== true) drawPart(context, part, paint);
    if (contour !== undefined) {
      context.globalCompositeOperation = 'source-over';
      context.lineWidth = 1.4 / view.scale;
      context.strokeStyle = CUT_LINE;
      context.stroke(pathOf(contour));
    }
    context.restore();
    if (contour === undefined) drawTrim(context, rect(box.xMm - trimMm, box.yMm - trimMm, box.widthMm + 2 * trimMm, box.heightMm + 2 * trimMm), Math.min(8, 3 * view.scale));
  }
  if (slits !== undefined) {
    context.save();
    context.translate(view.x, view.y);
    context.scale(view.scale, view.scale);
    context.lineWidth = 1.4 / view.scale;
    context.strokeStyle = CUT_LINE;
    context.stroke(pathOf(slits));
    context.restore();
  }
  if (hasMarks === true) {
    context.fillStyle = '#000000';
    for (const { x, y, sx, sy } of pageMarks(area)) {
      context.fillRect(...rect(x, y, sx * PAGE_MARK.armMm, sy * PAGE_MARK.broadMm));
      context.fillRect(...rect(x, y, sx * PAGE_MARK.broadMm, sy * PAGE_MARK.armMm));
    }
  }
  context.restore();
}

/** White below the ink: what is printed on it keeps its own colours. */
function fillWhite(context: Context, path: Path2D): void {
  const before = context.globalCompositeOperation;
  context.globalCompositeOperation = 'source-over';
  context.fillStyle = '#ffffff';
  context.fill(path, 'nonzero');
  context.globalCompositeOperation = before;
}

function drawPart(context: Context, { id, layers }: Pick<PartInDesign, 'id' | 'layers'>, { pictures, colourOf }: PagePaint): void {
  const picture = pictures.get(id);
  for (const { filmId, curves } of layers) {
    if (picture !== undefined && !picture.below.includes(filmId)) continue;
    context.fillStyle = colourOf(filmId);
    context.fill(pathOf(curves), 'nonzero');
  }
  if (picture === undefined) return;
  const { a, b, c, d, e, f } = picture.toDesign;
  context.save();
  // Of one object, what is above covers what is below it before anything is printed.
  if (picture.below.length > 0) context.globalCompositeOperation = 'source-over';
  context.transform(a, b, c, d, e, f);
  context.imageSmoothingQuality = 'high';
  context.drawImage(picture.canvas, 0, 0);
  context.restore();
}

function drawTrim(context: Context, [x, y, w, h]: readonly [number, number, number, number], tick: number): void {
  context.strokeStyle = TRIM;
  context.lineWidth = 1;
  context.beginPath();
  for (const [cx, cy, sx, sy] of [[x, y, 1, 1], [x + w, y, -1, 1], [x, y + h, 1, -1], [x + w, y + h, -1, -1]] as const) {
    context.moveTo(cx + sx * tick, cy);
    context.lineTo(cx, cy);
    context.lineTo(cx, cy + sy * tick);
  }
  context.stroke();
}
