import { translation } from '../core/geometry/affine.ts';
import { isAppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import { letterCurves } from '../core/lettering/letterCurves.ts';
import { boundsOf, CurvesBuilder } from '../core/outline/curves.ts';
import { transformCurves } from '../core/outline/transformCurves.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { Art } from '../core/raster/art.ts';
import { proofOnBlank } from '../core/run/proofOnBlank.ts';
import type { CutResult } from '../core/run/runJob.ts';
import { ticketOf, type Ticket } from '../core/ticket/ticket.ts';
import type { LengthUnit } from '../core/units/parseLength.ts';
import { qrCode, type QrCode } from '../formats/ticket/qrCode.ts';
import { ticketPdf, type SetText } from '../formats/ticket/ticketPdf.ts';
import type { ShapeTools } from './designShapes.ts';

/** A ticket as it is shown: what it says, the finished blank, and its code. */
export interface TicketView {
  readonly ticket: Ticket;
  readonly proof: Rgba8;
  readonly qr: QrCode;
}

const PROOF_SIDE_PX = 900;
const FONT = 'Hanken Grotesk';

interface TicketOf {
  readonly job: Job;
  readonly cut: CutResult;
  readonly arts: ReadonlyMap<string, { readonly art: Art }>;
  readonly tools: Pick<ShapeTools, 'polygons' | 'font'>;
}

/** What a scanner reads off a ticket: the job's code, or its name where it has none. */
const codeText = ({ name, order }: Pick<Job, 'name' | 'order'>): string => (order?.code === undefined ? name : `LIMNER ${order.code}`);

export async function jobTicket({ job, cut, arts, tools }: TicketOf): Promise<TicketView> {
  const ticket = ticketOf(job, cut, await tools.polygons());
  return { ticket, proof: proofOnBlank(job, cut, arts, { sidePx: PROOF_SIDE_PX }).picture, qr: qrCode(codeText(job)) };
}

/** The ticket of a job as a PDF. @param date as `2026-11-28`. */
export async function jobTicketPdf(of: TicketOf & { readonly encode: (picture: Rgba8) => Promise<Uint8Array> }, how: { readonly unit: LengthUnit; readonly page: 'a4' | 'letter'; readonly date: string }): Promise<Uint8Array<ArrayBuffer>> {
  const { ticket, proof, qr } = await jobTicket(of);
  return ticketPdf({ ticket, qr, ...how, proof: { png: await of.encode(proof), widthPx: proof.width, heightPx: proof.height }, setText: textSetter(of.tools) });
}

const NOTHING = new CurvesBuilder().build();

/** Sets texts in the font of the interface; what it has no letters for is left out. */
function textSetter({ polygons, font }: TicketOf['tools']): SetText {
  return async (text, capitalMm) => {
    try {
      const { curves } = letterCurves(await polygons(), await font(FONT, text), { text, font: FONT, heightMm: capitalMm, align: 'left' });
      const box = boundsOf(curves);
      return box === undefined ? { curves: NOTHING, widthMm: 0 } : { curves: transformCurves(curves, translation(-box.left, 0)), widthMm: box.right - box.left };
    } catch (error) {
      if (!isAppError(error) || error.code !== 'nothingToCut') throw error;
      return { curves: NOTHING, widthMm: 0 };
    }
  };
}
