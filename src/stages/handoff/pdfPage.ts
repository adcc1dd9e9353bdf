import { getDocument, GlobalWorkerOptions } from 'pdfjs-dist/legacy/build/pdf.mjs';
import PdfWorker from 'pdfjs-dist/legacy/build/pdf.worker.min.mjs?worker';

const MM_PER_PT = 25.4 / 72;
/** Long side of a drawn page, px. */
const SIDE_PX = 2000;

export interface PdfPage {
  readonly picture: HTMLCanvasElement;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly pages: number;
  /** Names of its layers, where it has any. */
  readonly layers: readonly string[];
}

/** A page of a PDF as a reader of the format draws it. @param at from 0; the last one when there are fewer. */
export async function pdfPage(bytes: Uint8Array, at: number): Promise<PdfPage> {
  GlobalWorkerOptions.workerPort ??= new PdfWorker();
  const file = await getDocument({ data: bytes.slice(), verbosity: 0, isEvalSupported: false, useSystemFonts: false, disableFontFace: true }).promise;
  try {
    const page = await file.getPage(Math.min(at, file.numPages - 1) + 1);
    const [left, bottom, right, top] = page.view;
    const viewport = page.getViewport({ scale: SIDE_PX / Math.max(right - left, top - bottom) });
    const picture = document.createElement('canvas');
    picture.width = Math.round(viewport.width);
    picture.height = Math.round(viewport.height);
    const canvasContext = picture.getContext('2d') as CanvasRenderingContext2D;
    await page.render({ canvasContext, viewport }).promise;
    // Typed as anything: groups by their ids, or null.
    const groups = (await file.getOptionalContentConfig()).getGroups() as Record<string, { readonly name: string }> | null;
    return { picture, widthMm: (right - left) * MM_PER_PT, heightMm: (top - bottom) * MM_PER_PT, pages: file.numPages, layers: Object.values(groups ?? {}).map(({ name }) => name) };
  } finally {
    await file.destroy();
  }
}
