import { PDFDocument, rgb, StandardFonts, type PDFPage } from 'pdf-lib';
import { DOT_RADIUS_MM, HOLE_RADIUS_MM, MARK_RADIUS_MM, marksOf, PAPERS, type Paper } from '../../core/clean/squaring/markSheet.ts';

const PT_PER_MM = 72 / 25.4;
const INK = rgb(0, 0, 0);
const PAPER = rgb(1, 1, 1);
const SOFT = rgb(0.45, 0.45, 0.45);
const TEXT_PT = 6.5;
/** Length of the bar by which one checks the print, mm. */
const BAR_MM = 30;

/** The printable mark sheet as a PDF of one page at true size. */
export async function markSheetPdf(paper: Paper): Promise<Uint8Array<ArrayBuffer>> {
  const { widthMm, heightMm } = PAPERS[paper];
  const document = await PDFDocument.create();
  document.setTitle(`Mark sheet, ${paper === 'a4' ? 'A4' : 'Letter'}`);
  document.setCreator('Limner');
  // The same sheet is the same file.
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const page = document.addPage([widthMm * PT_PER_MM, heightMm * PT_PER_MM]);
  const marks = marksOf(paper);
  for (const { xMm, yMm, dotted } of marks) {
    disc(page, heightMm, xMm, yMm, MARK_RADIUS_MM, INK);
    disc(page, heightMm, xMm, yMm, HOLE_RADIUS_MM, PAPER);
    if (dotted) disc(page, heightMm, xMm, yMm, DOT_RADIUS_MM, INK);
  }
  const font = await document.embedFont(StandardFonts.Helvetica);
  const write = (text: string, xMm: number, yMm: number): void => page.drawText(text, { x: xMm * PT_PER_MM, y: (heightMm - yMm) * PT_PER_MM, size: TEXT_PT, font, color: SOFT });
  const textX = marks[0].xMm + MARK_RADIUS_MM + 4;
  const [top, bottom] = [marks[0].yMm, heightMm - marks[0].yMm];
  write('Print at 100 %, not fitted.', textX, top - 0.5);
  write('Lay the work inside the rings.', textX, top + 2.5);
  const barX = textX + 1;
  page.drawRectangle({ x: barX * PT_PER_MM, y: (heightMm - bottom) * PT_PER_MM, width: BAR_MM * PT_PER_MM, height: 0.6 * PT_PER_MM, color: SOFT });
  write(`This bar is ${BAR_MM} mm long.`, barX, bottom + 3.5);
  return new Uint8Array(await document.save());
}

function disc(page: PDFPage, heightMm: number, xMm: number, yMm: number, radiusMm: number, color: ReturnType<typeof rgb>): void {
  page.drawCircle({ x: xMm * PT_PER_MM, y: (heightMm - yMm) * PT_PER_MM, size: radiusMm * PT_PER_MM, color });
}
