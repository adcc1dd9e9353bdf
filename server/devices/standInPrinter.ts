import { z } from 'zod';
import { PAPERS as SIZES } from '../../src/core/clean/squaring/markSheet.ts';
import type { PrintedPage } from './printedPage.ts';

/** Papers that the stand-in holds, mm, and what of each it cannot print, at every edge. */
const PAPERS = { a4: { name: 'A4', ...SIZES.a4 }, letter: { name: 'Letter', ...SIZES.letter } } as const;
export const PRINT_MARGIN_MM = 3.4;

export const PRINTER_FAULTS = ['noPaper', 'wrongSize', 'notAPage', 'busy'] as const;
export type PrinterFault = (typeof PRINTER_FAULTS)[number];
/** What it can be told to do wrong: ink ends on the page, the paper lies in it the wrong side up, it refuses the size. */
export const PRINTER_MISHAPS = ['inkEnds', 'wrongSide', 'refusesSize'] as const;
export type PrinterMishap = (typeof PRINTER_MISHAPS)[number];

export const printOrderSchema = z.strictObject({ paper: z.enum(['a4', 'letter']), kind: z.enum(['clear', 'white', 'plain']), quality: z.enum(['draft', 'photo']) });
export type PrintOrder = z.infer<typeof printOrderSchema>;

export class PrinterRefusal extends Error {
  constructor(readonly fault: PrinterFault) {
    super(fault);
  }
}

/** What draws a page of a PDF: its size, mm, and its pixels on paper, RGBA. @throws PrinterRefusal `notAPage`. */
export type DrawPages = (pdf: Uint8Array, pxPerMm: number) => Promise<{ readonly widthMm: number; readonly heightMm: number; readonly page: PrintedPage }[]>;

/** Dots of a mm that are kept of what it prints: a draft is coarser. */
const PX_PER_MM: Readonly<Record<PrintOrder['quality'], number>> = { draft: 6, photo: 10 };
/** A page may be so much larger than the paper, mm: rounding of points. */
const SIZE_SLACK_MM = 0.6;
/** On the side that takes no ink it stands in beads: so much of it is seen. */
const WRONG_SIDE_INK = 0.22;

/** What it says of itself. */
export interface PrinterTold {
  readonly name: string;
  readonly papers: readonly { readonly paper: string; readonly name: string; readonly widthMm: number; readonly heightMm: number }[];
  readonly marginMm: number;
  /** That came out last. */
  readonly pages: number;
  readonly printed?: { readonly order: PrintOrder; readonly spoilt?: PrinterMishap };
}

/** A printer that is not there: it takes the pages of a PDF and keeps how they would come out on the paper that lies in it. */
export class StandInPrinter {
  readonly log: string[] = [];
  private pages: readonly PrintedPage[] = [];
  private told: { readonly order: PrintOrder; readonly spoilt?: PrinterMishap } | undefined;
  private mishap: { readonly kind: PrinterMishap; readonly atShare: number } | undefined;

  constructor(private readonly draw: DrawPages) {}

  state(): PrinterTold {
    return {
      name: 'Stand-in printer',
      papers: Object.entries(PAPERS).map(([paper, size]) => ({ paper, ...size })),
      marginMm: PRINT_MARGIN_MM,
      pages: this.pages.length,
      ...(this.told === undefined ? {} : { printed: this.told }),
    };
  }

  /** A page that was printed, from 1. */
  page(number: number): PrintedPage | undefined {
    return this.pages[number - 1];
  }

  /** Tells it to fail with the next print. @param atShare where on the page ink ends, from above. */
  fail(kind: PrinterMishap, atShare = 0.6): void {
    this.mishap = { kind, atShare };
  }

  /** Prints the pages of a PDF at true size, its upper left at the paper's. @throws PrinterRefusal. */
  async print(pdf: Uint8Array, order: PrintOrder): Promise<void> {
    const { mishap } = this;
    this.mishap = undefined;
    const paper = PAPERS[order.paper];
    if (mishap?.kind === 'refusesSize') throw this.refused('wrongSize');
    const drawn = await this.draw(pdf, PX_PER_MM[order.quality]).catch((error: unknown) => {
      throw error instanceof PrinterRefusal ? error : this.refused('notAPage');
    });
    if (drawn.length === 0) throw this.refused('notAPage');
    if (drawn.some(({ widthMm, heightMm }) => widthMm > paper.widthMm + SIZE_SLACK_MM || heightMm > paper.heightMm + SIZE_SLACK_MM)) throw this.refused('wrongSize');
    this.pages = drawn.map(({ page }) => onPaper(page, mishap));
    this.told = { order, ...(mishap === undefined ? {} : { spoilt: mishap.kind }) };
    this.log.push(`printed ${this.pages.length} pages on ${paper.name}, ${order.kind} paper, ${order.quality}${mishap === undefined ? '' : `, ${mishap.kind}`}`);
  }

  private refused(fault: PrinterFault): PrinterRefusal {
    this.log.push(`refused: ${fault}`);
    return new PrinterRefusal(fault);
  }
}

/** A page as it comes out: nothing at the edges that the printer does not reach, and what went wrong. */
function onPaper(page: PrintedPage, mishap: { readonly kind: PrinterMishap; readonly atShare: number } | undefined): PrintedPage {
  const { widthPx, heightPx, pxPerMm } = page;
  const data = page.data.slice();
  const margin = PRINT_MARGIN_MM * pxPerMm;
  const endsAt = mishap?.kind === 'inkEnds' ? mishap.atShare * heightPx : Infinity;
  for (let y = 0; y < heightPx; y++) {
    for (let x = 0; x < widthPx; x++) {
      const o = 4 * (y * widthPx + x);
      const isBare = x < margin || y < margin || x >= widthPx - margin || y >= heightPx - margin || y >= endsAt;
      const ink = isBare ? 0 : mishap?.kind === 'wrongSide' ? WRONG_SIDE_INK : 1;
      if (ink < 1) for (let k = 0; k < 3; k++) data[o + k] = Math.round(255 - ink * (255 - data[o + k]));
    }
  }
  return { ...page, data };
}
