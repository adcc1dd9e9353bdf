import { z } from 'zod';
import { AppError } from '../core/errors/appError.ts';
import { FAULTS, machineStateSchema, type MachinePort } from './machinePort.ts';

const refused = z.object({ fault: z.enum(FAULTS) });
/** A cutter that does not answer within this is not there, ms. */
const PATIENCE_MS = 4000;

/** A cutter that is reached by HTTP: the stand-in that comes with the server. @param base address of the device, such as `/devices/cutter`. */
export function httpCutter(base: string, ask: typeof fetch = fetch): MachinePort {
  async function call(path: string, init: RequestInit = {}): Promise<Response> {
    let response: Response;
    try {
      response = await ask(`${base}${path}`, { ...init, signal: AbortSignal.timeout(PATIENCE_MS) });
    } catch (cause) {
      throw new AppError('machineGone', {}, cause);
    }
    if (response.ok) return response;
    const told = refused.safeParse(await response.json().catch(() => undefined));
    throw told.success ? new AppError('machineFault', { fault: told.data.fault }) : new AppError('machineGone', { status: response.status });
  }
  const post = (path: string, body?: unknown): Promise<Response> => call(path, { method: 'POST', ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }) });
  return {
    kind: 'standIn',
    tells: true,
    async state() {
      const parsed = machineStateSchema.safeParse(await (await call('')).json().catch(() => undefined));
      if (!parsed.success) throw new AppError('machineGone', { status: 200 });
      return parsed.data;
    },
    load: async (load) => void (await post('/load', load)),
    loadPage: async (page) => void (await post('/page', { page })),
    async look(xMm, yMm) {
      const response = await call(`/camera?xMm=${xMm}&yMm=${yMm}`);
      const [widthPx, heightPx, pxPerMm] = ['x-width', 'x-height', 'x-px-per-mm'].map((name) => Number(response.headers.get(name)));
      const grey = new Uint8Array(await response.arrayBuffer());
      if (!(pxPerMm > 0) || grey.length !== widthPx * heightPx) throw new AppError('machineGone', { status: response.status });
      return { grey, widthPx, heightPx, pxPerMm, leftMm: xMm - widthPx / pxPerMm / 2, topMm: yMm - heightPx / pxPerMm / 2 };
    },
    setOrigin: async (at) => void (await post('/origin', at)),
    send: async (program) => void (await call('/program', { method: 'POST', headers: { 'content-type': 'text/plain' }, body: program })),
    pause: async () => void (await post('/pause')),
    resume: async () => void (await post('/resume')),
    stop: async () => void (await post('/stop')),
    close: () => Promise.resolve(),
  };
}
