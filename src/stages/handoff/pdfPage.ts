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
  const document_ = await getDocument({ data: bytes.slice(), verbosity: 0, isEvalSupported: false, useSystemFonts: false, disableFontFace: true }).promise;
  try {
    const page = await document_.getPage(Math.min(at, document_.numPages - 1) + 1);
    const [left, bottom, right, top] = page.view;
    const viewport = page.getViewport({ scale: SIDE_PX / Math.max(right - left, top - bottom) });
    const picture = document.createElement('canvas');
    picture.width = Math.round(viewport.width);
    picture.height = Math.round(viewport.height);
    const canvasContext = picture.getContext('2d') as CanvasRenderingContext2D;
    await page.render({ canvasContext, viewport }).promise;
    const config: unknown = await document_.getOptionalContentConfig();
    return { picture, widthMm: (right - left) * MM_PER_PT, heightMm: (top - bottom) * MM_PER_PT, pages: document_.numPages, layers: layersOf(config) };
  } finally {
    await document_.destroy();
  }
}

/** The reader gives its layers as a list of pairs, or as a record by their ids. */
function layersOf(config: unknown): string[] {
  const groups: unknown = typeof config === 'object' && config !== null && 'getGroups' in config && typeof config.getGroups === 'function' ? (config.getGroups as () => unknown)() : undefined;
  if (typeof groups !== 'object' || groups === null) return [];
  return Object.values(groups).flatMap((group: unknown) => (typeof group === 'object' && group !== null && 'name' in group && typeof group.name === 'string' ? [group.name] : []));
}
