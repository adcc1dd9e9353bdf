import express, { Router, type NextFunction, type Request, type Response } from 'express';
import sharp from 'sharp';
import { z } from 'zod';
import { PRINTER_MISHAPS, PrinterRefusal, printOrderSchema, type StandInPrinter } from './standInPrinter.ts';

const MOST_PDF = '60mb';
const mishap = z.strictObject({ kind: z.enum(PRINTER_MISHAPS), atShare: z.number().min(0).max(1).optional() });

/** The stand-in printer by HTTP: its papers, pages of a PDF to print, and each page as it came out. */
export function printerHttp(printer: StandInPrinter): Router {
  const router = Router();
  router.get('/', (_request, response) => void response.json(printer.state()));
  router.get('/log', (_request, response) => void response.json(printer.log));
  router.get('/page/:number', async (request, response) => {
    const page = printer.page(Number(request.params.number));
    if (page === undefined) return void response.status(404).json({ error: 'no such page' });
    const { widthPx, heightPx, pxPerMm, data } = page;
    response.set('cache-control', 'no-store').type('image/png').send(await sharp(data, { raw: { width: widthPx, height: heightPx, channels: 4 } }).withMetadata({ density: pxPerMm * 25.4 }).png().toBuffer());
  });
  router.post('/print', express.raw({ limit: MOST_PDF, type: 'application/pdf' }), async (request: Request, response: Response) => {
    const order = printOrderSchema.safeParse(request.query);
    if (!order.success || !Buffer.isBuffer(request.body)) return void response.status(400).json({ error: 'not understood' });
    await printer.print(new Uint8Array(request.body), order.data);
    response.json(printer.state());
  });
  router.post('/fail', express.json({ limit: '4kb' }), (request: Request, response: Response) => {
    const parsed = mishap.safeParse(request.body);
    if (!parsed.success) return void response.status(400).json({ error: 'not understood' });
    printer.fail(parsed.data.kind, parsed.data.atShare);
    response.json(printer.state());
  });
  router.use((_request, response) => void response.status(404).json({ error: 'no such order' }));
  router.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
    if (error instanceof PrinterRefusal) response.status(409).json({ fault: error.fault });
    else next(error);
  });
  return router;
}
