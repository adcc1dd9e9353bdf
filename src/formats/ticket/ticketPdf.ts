import { fill, PDFDocument, popGraphicsState, pushGraphicsState, rgb, setFillingRgbColor, type PDFPage } from 'pdf-lib';
import { rgbFromHex } from '../../core/colour/hex.ts';
import { followedBy, scaling, translation } from '../../core/geometry/affine.ts';
import type { Curves } from '../../core/outline/curves.ts';
import { stepWords, ticketWords, type TicketSection } from '../../core/ticket/ticketWords.ts';
import type { Ticket } from '../../core/ticket/ticket.ts';
import type { LengthUnit } from '../../core/units/parseLength.ts';
import { pathOperators, pointsOf, PT_PER_MM } from '../pdf/pdfLines.ts';
import type { QrCode } from './qrCode.ts';
import { say } from '../../core/words/say.ts';

/** A text as outlines from the left end of its foot, mm. @param capitalMm height of its capitals. */
export type SetText = (text: string, capitalMm: number) => Promise<{ readonly curves: Curves; readonly widthMm: number }>;

export interface TicketPage {
  readonly ticket: Ticket;
  readonly unit: LengthUnit;
  readonly page: 'a4' | 'letter';
  /** A PNG of the finished blank, and its shape. */
  readonly proof: { readonly png: Uint8Array; readonly widthPx: number; readonly heightPx: number };
  readonly qr: QrCode;
  readonly date: string;
  readonly setText: SetText;
}

const PAGES = { a4: [210, 297], letter: [215.9, 279.4] } as const;
const EDGE_MM = 14;
const LABEL_MM = 26;
const PROOF_MM = 62;
const CODE_MM = 24;
/** Heights of capitals, and from line to line, mm. */
const TITLE = { capitalMm: 5, lineMm: 9 };
const HEAD = { capitalMm: 2.7, lineMm: 6.4 };
const BODY = { capitalMm: 2.1, lineMm: 4.6 };
/** Between words, in heights of capitals. */
const SPACE = 0.55;
const INK = '#241b2f';
const SOFT = '#5d5364';

/** The ticket as a PDF: as many pages as it takes, texts as outlines, so that every name can be written. */
export async function ticketPdf(asked: TicketPage): Promise<Uint8Array<ArrayBuffer>> {
  const document = await PDFDocument.create();
  document.setTitle(say`Ticket: ${asked.ticket.name}`);
  document.setCreator('Limner');
  document.setCreationDate(new Date(0));
  document.setModificationDate(new Date(0));
  const writer = new TicketWriter(document, asked);
  await writer.head();
  for (const section of ticketWords(asked.ticket, asked.unit)) await writer.section(section);
  await writer.steps();
  return new Uint8Array(await document.save());
}

class TicketWriter {
  private readonly widthMm: number;
  private readonly heightMm: number;
  private page: PDFPage;
  private y = EDGE_MM;
  /** How far down the picture beside the text reaches on the first page. */
  private besideTo = 0;

  constructor(
    private readonly document: PDFDocument,
    private readonly asked: TicketPage,
  ) {
    [this.widthMm, this.heightMm] = PAGES[asked.page];
    this.page = this.newPage();
  }

  async head(): Promise<void> {
    const { ticket, qr, proof, date } = this.asked;
    const right = this.widthMm - EDGE_MM;
    this.code(qr, right - CODE_MM, EDGE_MM - 2);
    await this.lines(ticket.name, EDGE_MM, right - CODE_MM - 6 - EDGE_MM, TITLE, INK);
    await this.lines(say`Ticket · ${date}`, EDGE_MM, right - CODE_MM - EDGE_MM, BODY, SOFT);
    this.y = Math.max(this.y, EDGE_MM + CODE_MM + 4);
    const image = await this.document.embedPng(proof.png);
    const scale = Math.min(PROOF_MM / proof.widthPx, 84 / proof.heightPx);
    const [width, height] = [proof.widthPx * scale, proof.heightPx * scale];
    this.page.drawImage(image, { x: (right - width) * PT_PER_MM, y: (this.heightMm - this.y - height) * PT_PER_MM, width: width * PT_PER_MM, height: height * PT_PER_MM });
    this.besideTo = this.y + height + 3;
  }

  async section({ title, rows, colour }: TicketSection): Promise<void> {
    await this.heading(title, colour);
    for (const [label, value] of rows) {
      this.turnIfFull(BODY.lineMm);
      const from = this.y;
      if (label !== '') await this.lines(label, EDGE_MM, LABEL_MM - 2, BODY, SOFT);
      const after = this.y;
      this.y = from;
      const x = label === '' ? EDGE_MM : EDGE_MM + LABEL_MM;
      await this.lines(value, x, this.roomTo() - x, BODY, INK);
      // A label alone on a page that began with its value stays there.
      this.y = this.y < from ? this.y : Math.max(this.y, after);
    }
    this.y += 2;
  }

  async steps(): Promise<void> {
    const { steps } = this.asked.ticket;
    if (steps.length === 0) return;
    await this.heading(say('Then, in this order'));
    for (const [k, step] of steps.entries()) await this.lines(`${k + 1}.  ${stepWords(step)}${step.what === 'press' || step.waitMin === 0 ? '' : `: ${step.waitMin} min`}`, EDGE_MM, this.roomTo() - EDGE_MM, BODY, INK);
  }

  private async heading(title: string, colour?: string): Promise<void> {
    // A heading does not stand alone at the foot of a page.
    this.turnIfFull(HEAD.lineMm + 2 * BODY.lineMm);
    this.page.drawLine({ start: this.at(EDGE_MM, this.y), end: this.at(this.roomTo(), this.y), thickness: 0.4, color: rgb(0.82, 0.78, 0.72) });
    this.y += 1;
    if (colour !== undefined) {
      const { r, g, b } = rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 };
      this.page.drawRectangle({ x: EDGE_MM * PT_PER_MM, y: (this.heightMm - this.y - 4.6) * PT_PER_MM, width: 6 * PT_PER_MM, height: 3.2 * PT_PER_MM, color: rgb(r / 255, g / 255, b / 255), borderColor: rgb(0.4, 0.36, 0.4), borderWidth: 0.4 });
    }
    await this.lines(title, EDGE_MM + (colour === undefined ? 0 : 8), this.roomTo() - EDGE_MM, HEAD, INK);
  }

  /** How far to the right there is room on this line. */
  private roomTo = (): number => this.widthMm - EDGE_MM - (this.y < this.besideTo ? PROOF_MM + 6 : 0);

  private newPage(): PDFPage {
    this.y = EDGE_MM;
    this.besideTo = 0;
    return this.document.addPage([this.widthMm * PT_PER_MM, this.heightMm * PT_PER_MM]);
  }

  private turnIfFull(needsMm: number): void {
    if (this.y + needsMm > this.heightMm - EDGE_MM) this.page = this.newPage();
  }

  private at = (xMm: number, yMm: number): { x: number; y: number } => ({ x: xMm * PT_PER_MM, y: (this.heightMm - yMm) * PT_PER_MM });

  /** Words in as many lines as they take, broken between them. */
  private async lines(text: string, xMm: number, roomMm: number, { capitalMm, lineMm }: typeof BODY, colour: string): Promise<void> {
    const words = await Promise.all(text.split(/\s+/).filter((word) => word !== '').map((word) => this.set(word)));
    const { r, g, b } = rgbFromHex(colour) ?? { r: 0, g: 0, b: 0 };
    let line: { readonly curves: Curves; readonly atMm: number }[] = [];
    let widthMm = 0;
    const put = (): void => {
      if (line.length === 0) return;
      this.turnIfFull(lineMm);
      const footMm = this.y + (lineMm + capitalMm) / 2;
      this.page.pushOperators(pushGraphicsState(), setFillingRgbColor(r / 255, g / 255, b / 255));
      for (const { curves, atMm } of line) this.page.pushOperators(...pathOperators(curves, followedBy(followedBy(scaling(capitalMm), translation(xMm + atMm, footMm)), pointsOf(this.heightMm))), fill());
      this.page.pushOperators(popGraphicsState());
      this.y += lineMm;
      [line, widthMm] = [[], 0];
    };
    for (const word of words) {
      const own = word.widthMm * capitalMm;
      if (line.length > 0 && widthMm + SPACE * capitalMm + own > roomMm) put();
      const atMm = line.length === 0 ? 0 : widthMm + SPACE * capitalMm;
      line.push({ curves: word.curves, atMm });
      widthMm = atMm + own;
    }
    put();
  }

  /** A word with capitals of 1 mm: set once, however often it stands on the ticket. */
  private async set(word: string): Promise<Awaited<ReturnType<SetText>>> {
    const known = this.words.get(word) ?? this.asked.setText(word, 1);
    this.words.set(word, known);
    return known;
  }
  private readonly words = new Map<string, ReturnType<SetText>>();

  private code({ size, dark }: QrCode, xMm: number, yMm: number): void {
    const side = (CODE_MM / size) * PT_PER_MM;
    for (let row = 0; row < size; row++) {
      for (let column = 0; column < size; column++) {
        if (dark[row * size + column] === 0) continue;
        // A hair larger, so that no light line shows between modules.
        this.page.drawRectangle({ x: xMm * PT_PER_MM + column * side, y: (this.heightMm - yMm) * PT_PER_MM - (row + 1) * side, width: side * 1.02, height: side * 1.02, color: rgb(0, 0, 0) });
      }
    }
  }
}
