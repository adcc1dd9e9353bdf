import { concatTransformationMatrix, degrees, PDFDocument, rgb, type PDFImage, type PDFPage } from 'pdf-lib';
import type { PageItem, PagePlace } from '../../core/layout/fillPage.ts';

const PT_PER_MM = 72 / 25.4;
/** Where scissors go: light enough not to show on what is cut out. */
const TRIM = rgb(0.72, 0.72, 0.72);
const TRIM_PT = 0.3;
/** Length of the corner marks, mm. */
const TICK_MM = 3;

/** A motif of a print page: a PNG file with its true size. */
export interface DecalMotif extends PageItem {
  readonly png: Uint8Array;
}

export interface DecalPages {
  readonly title: string;
  readonly widthMm: number;
  readonly heightMm: number;
  /** From the page's edges to the area in which motifs lie. */
  readonly marginMm: { readonly left: number; readonly top: number };
  readonly motifs: readonly DecalMotif[];
  readonly pages: readonly (readonly PagePlace[])[];
  /** How far outside of a motif it is to be cut out, mm; no marks when absent. */
  readonly trimMm?: number | undefined;
  /** For the inside of glass: everything the other way round. */
  readonly mirrored: boolean;
}

/** Print pages as a PDF at true size: each motif is held once with its own pixels and alpha, and drawn at each of its places. */
export async function decalPdf({ title, widthMm, heightMm, marginMm, motifs, pages, trimMm, mirrored }: DecalPages): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  document.setTitle(title);
  document.setCreator('Limner');
  // The same pages are the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const images = await Promise.all(motifs.map(({ png }) => document.embedPng(png)));
  for (const places of pages) {
    const page = document.addPage([widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
    if (mirrored) page.pushOperators(concatTransformationMatrix(-1, 0, 0, 1, widthMm * PT_PER_MM, 0));
    for (const { item, xMm, yMm, isTurned } of places) {
      const motif = motifs[item];
      const [width, height] = isTurned ? [motif.heightMm, motif.widthMm] : [motif.widthMm, motif.heightMm];
      const [left, top] = [marginMm.left + xMm, marginMm.top + yMm];
      drawMotif(page, images[item], motif, { left, bottom: heightMm - top - height, isTurned });
      if (trimMm !== undefined) drawTicks(page, left - trimMm, heightMm - top + trimMm, width + 2 * trimMm, height + 2 * trimMm);
    }
  }
  return new Uint8Array(await document.save());
}

function drawMotif(page: PDFPage, image: PDFImage, { widthMm, heightMm }: PageItem, { left, bottom, isTurned }: { left: number; bottom: number; isTurned: boolean }): void {
  const size = { width: widthMm * PT_PER_MM, height: heightMm * PT_PER_MM };
  // Turned clockwise about its lower left corner, which comes to lie on the upper left one.
  if (isTurned) page.drawImage(image, { ...size, x: left * PT_PER_MM, y: (bottom + widthMm) * PT_PER_MM, rotate: degrees(-90) });
  else page.drawImage(image, { ...size, x: left * PT_PER_MM, y: bottom * PT_PER_MM });
}

/** Corner marks outside of the box along which scissors cut. */
function drawTicks(page: PDFPage, left: number, top: number, width: number, height: number): void {
  for (const [x, y, sx, sy] of [[left, top, 1, -1], [left + width, top, -1, -1], [left, top - height, 1, 1], [left + width, top - height, -1, 1]] as const) {
    const corner = { x: x * PT_PER_MM, y: y * PT_PER_MM };
    for (const end of [{ x: (x + sx * TICK_MM) * PT_PER_MM, y: corner.y }, { x: corner.x, y: (y + sy * TICK_MM) * PT_PER_MM }]) page.drawLine({ start: corner, end, thickness: TRIM_PT, color: TRIM });
  }
}
