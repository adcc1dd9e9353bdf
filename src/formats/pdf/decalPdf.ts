import {
  concatTransformationMatrix,
  drawObject,
  fill,
  PDFDocument,
  type PDFOperator,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setFillingRgbColor,
  setLineWidth,
  stroke,
  type PDFImage,
  type PDFPage,
} from 'pdf-lib';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { followedBy, type Affine } from '../../core/geometry/affine.ts';
import type { RectMm } from '../../core/geometry/rectMm.ts';
import type { Curves } from '../../core/outline/curves.ts';
import { MARK_DOT, PAGE_MARK, pageMarks, type Motif, type PrintPages } from '../../core/print/printPages.ts';
import { draw, pathOperators, pointsOf, PT_PER_MM, Spots } from './pdfLines.ts';

/** Where scissors go: light enough not to show on what is cut out. */
const TRIM = rgb(0.72, 0.72, 0.72);
const TRIM_PT = 0.3;
const CUT_PT = 0.4;
/** Length of the corner marks, mm. */
const TICK_MM = 3;

/** What a motif is made of, lowest first: pictures with their own pixels and alpha, and outlines in a colour. */
export type PrintElement =
  | { readonly kind: 'picture'; readonly png: Uint8Array; readonly widthPx: number; readonly heightPx: number; /** From its px to the design's mm. */ readonly toDesign: Affine }
  | { readonly kind: 'outline'; readonly colour: string; /** In the design's mm. */ readonly curves: Curves };

export interface DecalPages extends Pick<PrintPages, 'pages'> {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** One for each motif that the pages name. */
  readonly motifs: readonly (readonly PrintElement[])[];
  /** White and cut line of each motif, where it has them, in its own mm. */
  readonly shapes?: readonly Pick<Motif, 'white' | 'contour'>[];
  /** Cuts through the waste of each page, in its mm, by which it lifts in pieces. */
  readonly slits?: readonly (Curves | undefined)[];
  /** What of the page has marks in its corners by which a cutter finds what was printed; none when absent. */
  readonly marksIn?: RectMm | undefined;
  /** How far outside of a motif it is to be cut out, mm; no marks when absent. */
  readonly trimMm?: number | undefined;
}

/** Print pages as a PDF at true size: each picture is held once, whole, and drawn at each of its places. */
export async function decalPdf({ title, widthMm, heightMm, motifs, pages, shapes, slits, marksIn, trimMm }: DecalPages): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setCreator('Limner');
  // The same pages are the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const images = new Map<PrintElement, PDFImage>();
  for (const element of motifs.flat()) if (element.kind === 'picture') images.set(element, await document.embedPng(element.png));
  const toPoints = pointsOf(heightMm);
  const spots = new Spots(document);
  for (const [k, placements] of pages.entries()) {
    const page = document.addPage([widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
    for (const { motif, at, box } of placements) {
      const toPage = followedBy(at, toPoints);
      const { white, contour } = shapes?.[motif] ?? {};
      // White lies below the ink, a printer lays it down first.
      if (white !== undefined) draw(page, [pushGraphicsState(), ...spots.filling(page, 'White'), ...pathOperators(white, toPage), fill(), popGraphicsState()]);
      for (const element of motifs[motif]) {
        const image = images.get(element);
        draw(page, element.kind === 'outline' ? outlineOperators(element.curves, element.colour, toPage) : pictureOperators(page, image as PDFImage, element, toPage));
      }
      if (contour !== undefined) draw(page, [pushGraphicsState(), setLineWidth(CUT_PT), ...spots.stroking(page, 'Cut'), ...pathOperators(contour, toPage), stroke(), popGraphicsState()]);
      else if (trimMm !== undefined) drawTicks(page, box, trimMm, heightMm);
    }
    const through = slits?.[k];
    if (through !== undefined) draw(page, [pushGraphicsState(), setLineWidth(CUT_PT), ...spots.stroking(page, 'Cut'), ...pathOperators(through, toPoints), stroke(), popGraphicsState()]);
    if (marksIn !== undefined) drawPageMarks(page, marksIn, heightMm);
  }
  return new Uint8Array(await document.save());
}

function pictureOperators(page: PDFPage, image: PDFImage, { widthPx, heightPx, toDesign }: { widthPx: number; heightPx: number; toDesign: Affine }, toPage: Affine): PDFOperator[] {
  // A picture fills the unit square of its own space, its upper edge at 1.
  const { a, b, c, d, e, f } = followedBy(followedBy({ a: widthPx, b: 0, c: 0, d: -heightPx, e: 0, f: heightPx }, toDesign), toPage);
  return [pushGraphicsState(), concatTransformationMatrix(a, b, c, d, e, f), drawObject(page.node.newXObject('Motif', image.ref)), popGraphicsState()];
}

function outlineOperators(curves: Curves, colour: string, toPage: Affine): PDFOperator[] {
  const { r, g, b } = rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 };
  return [pushGraphicsState(), setFillingRgbColor(r / 255, g / 255, b / 255), ...pathOperators(curves, toPage), fill(), popGraphicsState()];
}

/** Black angles in the corners, their outer edges on the area's; the first with its square. */
function drawPageMarks(page: PDFPage, area: RectMm, pageHeightMm: number): void {
  const { armMm, broadMm } = PAGE_MARK;
  const bar = (x: number, y: number, width: number, height: number): void => page.drawRectangle({ x: Math.min(x, x + width) * PT_PER_MM, y: (pageHeightMm - Math.max(y, y + height)) * PT_PER_MM, width: Math.abs(width) * PT_PER_MM, height: Math.abs(height) * PT_PER_MM, color: rgb(0, 0, 0) });
  pageMarks(area).forEach(({ x, y, sx, sy }, k) => {
    bar(x, y, sx * armMm, sy * broadMm);
    bar(x, y, sx * broadMm, sy * armMm);
    const { awayMm, sideMm } = MARK_DOT;
    if (k === 0) bar(x + sx * (broadMm / 2 + awayMm), y + sy * (broadMm / 2 + awayMm), sx * sideMm, sy * sideMm);
  });
}

/** Corner marks outside of the box along which scissors cut. */
function drawTicks(page: PDFPage, { xMm, yMm, widthMm, heightMm }: RectMm, trimMm: number, pageHeightMm: number): void {
  for (const [sx, sy] of [[-1, -1], [1, -1], [-1, 1], [1, 1]] as const) {
    const corner = { x: (sx < 0 ? xMm - trimMm : xMm + widthMm + trimMm) * PT_PER_MM, y: (pageHeightMm - (sy < 0 ? yMm - trimMm : yMm + heightMm + trimMm)) * PT_PER_MM };
    for (const end of [{ x: corner.x - sx * TICK_MM * PT_PER_MM, y: corner.y }, { x: corner.x, y: corner.y + sy * TICK_MM * PT_PER_MM }]) page.drawLine({ start: corner, end, thickness: TRIM_PT, color: TRIM });
  }
}
