import { z } from 'zod';
import { AppError } from '../core/errors/appError.ts';

/** What a printer refuses, as it tells it. */
export const PRINTER_FAULTS = ['noPaper', 'wrongSize', 'notAPage', 'busy'] as const;

const size = z.number().min(1).max(10_000);
const printerStateSchema = z.object({
  name: z.string().max(200),
  papers: z.array(z.object({ paper: z.string().max(40), name: z.string().max(100), widthMm: size, heightMm: size })).max(100),
  /** What it cannot print at every edge, mm. */
  marginMm: z.number().min(0).max(100),
  /** That came out last. */
  pages: z.number().int().min(0),
});
export type PrinterState = z.infer<typeof printerStateSchema>;

export interface PrintOrder {
  readonly paper: string;
  /** What is printed on. */
  readonly kind: 'clear' | 'white' | 'plain';
  readonly quality: 'draft' | 'photo';
}

/** A printer as it is reached. @throws AppError `printerFault` for what it refuses, `machineGone` where it does not answer. */
export interface PrinterPort {
  state(): Promise<PrinterState>;
  print(pdf: Uint8Array<ArrayBuffer>, order: PrintOrder): Promise<PrinterState>;
  /** Address of a page as it came out, from 1. */
  pageAddress(page: number): string;
}

const refused = z.object({ fault: z.enum(PRINTER_FAULTS) });
const PATIENCE_MS = 60_000;

/** A printer that is reached by HTTP: the stand-in that comes with the server. @param base address of the device. */
export function httpPrinter(base: string, ask: typeof fetch = (...args) => fetch(...args)): PrinterPort {
  let printed = 0;
  async function stateOf(path: string, init: RequestInit = {}): Promise<PrinterState> {
    let response: Response;
    try {
      response = await ask(`${base}${path}`, { ...init, signal: AbortSignal.timeout(PATIENCE_MS) });
    } catch (cause) {
      throw new AppError('machineGone', {}, cause);
    }
    const body: unknown = await response.json().catch(() => undefined);
    const told = refused.safeParse(body);
    if (!response.ok) throw told.success ? new AppError('printerFault', { fault: told.data.fault }) : new AppError('machineGone', { status: response.status });
    const parsed = printerStateSchema.safeParse(body);
    if (!parsed.success) throw new AppError('machineGone', { status: response.status });
    return parsed.data;
  }
  return {
    state: () => stateOf('/'),
    async print(pdf, { paper, kind, quality }) {
      const state = await stateOf(`/print?paper=${encodeURIComponent(paper)}&kind=${kind}&quality=${quality}`, { method: 'POST', headers: { 'content-type': 'application/pdf' }, body: pdf });
      printed++;
      return state;
    },
    // Each print has addresses of its own: a picture of an older one is not shown again.
    pageAddress: (page) => `${base}/page/${page}?print=${printed}`,
  };
}
