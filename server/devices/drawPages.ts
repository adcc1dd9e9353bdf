import type { DrawPages } from './standInPrinter.ts';

const MM_PER_PT = 25.4 / 72;
/** Pages of one print, and the largest that is drawn, mm. */
const MOST_PAGES = 40;
const MOST_SIDE_MM = 620;

/** Draws the pages of a PDF as a reader of the format sees them. Loaded when the first page is printed. */
export const drawPages: DrawPages = async (pdf, pxPerMm) => {
  const [{ getDocument }, { createCanvas }] = await Promise.all([import('pdfjs-dist/legacy/build/pdf.mjs'), import('@napi-rs/canvas')]);
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0, isEvalSupported: false, useSystemFonts: false, disableFontFace: true }).promise;
  try {
    const pages = [];
    for (let k = 1; k <= Math.min(document.numPages, MOST_PAGES); k++) {
      const page = await document.getPage(k);
      const [left, bottom, right, top] = page.view;
      const [widthMm, heightMm] = [(right - left) * MM_PER_PT, (top - bottom) * MM_PER_PT];
      if (!(widthMm > 0 && heightMm > 0 && Math.max(widthMm, heightMm) <= MOST_SIDE_MM)) return [];
      const viewport = page.getViewport({ scale: pxPerMm * MM_PER_PT });
      const canvas = createCanvas(Math.round(viewport.width), Math.round(viewport.height));
      const context = canvas.getContext('2d');
      context.fillStyle = '#ffffff';
      context.fillRect(0, 0, canvas.width, canvas.height);
      await page.render({ canvasContext: context as unknown as CanvasRenderingContext2D, viewport }).promise;
      const { data } = context.getImageData(0, 0, canvas.width, canvas.height);
      pages.push({ widthMm, heightMm, page: { widthPx: canvas.width, heightPx: canvas.height, pxPerMm, data: new Uint8Array(data.buffer, data.byteOffset, data.byteLength) } });
    }
    return pages;
  } finally {
    await document.destroy();
  }
};
