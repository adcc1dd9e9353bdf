import express, { Router, type NextFunction, type Request, type Response } from 'express';
import { z } from 'zod';
import { AppError, isAppError } from '../../src/core/errors/appError.ts';
import { followedBy, rotation, translation, type Affine } from '../../src/core/geometry/affine.ts';
import { cutterPicture } from './cutterPicture.ts';
import type { PrintedPage } from './printedPage.ts';
import type { StandInPrinter } from './standInPrinter.ts';
import { MISHAPS, type StandInCutter } from './standInCutter.ts';

const MOST_PROGRAM = '40mb';
const MOST_ORDER = '4kb';

const place = z.strictObject({ xMm: z.number().min(0).max(100_000), yMm: z.number().min(0).max(100_000) });
const load = z.strictObject({ film: z.string().trim().min(1).max(200), needsG: z.number().min(0).max(10_000) });
const haste = z.strictObject({ times: z.number().min(0.1).max(1000) });
const mishap = z.strictObject({ kind: z.enum(MISHAPS), atShare: z.number().min(0).max(1).optional() });

const seenPlace = z.strictObject({ xMm: z.coerce.number().min(-1000).max(100_000), yMm: z.coerce.number().min(-1000).max(100_000) });
/** How far a page may be from where it is told to lie: mm, degrees, and shares. */
const lieSchema = z.strictObject({ xMm: z.number().min(-20).max(20), yMm: z.number().min(-20).max(20), turnDeg: z.number().min(-190).max(190), scale: z.number().min(0.9).max(1.1), shear: z.number().min(-0.1).max(0.1) });
const pageOrder = z.strictObject({ page: z.number().int().min(1).max(1000), lie: lieSchema.optional() });
type Lie = z.infer<typeof lieSchema>;

/** As somebody lays a page in by hand. */
const byHand = (): Lie => {
  const about = (most: number): number => most * (2 * Math.random() - 1);
  return { xMm: about(3), yMm: about(3), turnDeg: about(0.8), scale: 1 + about(0.003), shear: about(0.002) };
};

/** Where a page lies that is told to lie with its lower left at the corner of the area, mm, y down. */
function lyingAt({ xMm, yMm, turnDeg, scale, shear }: Lie, page: PrintedPage, areaHeightMm: number): Affine {
  const [width, height] = [page.widthPx / page.pxPerMm, page.heightPx / page.pxPerMm];
  const bent: Affine = { a: scale, b: 0, c: shear, d: scale, e: 0, f: 0 };
  return followedBy(followedBy(bent, rotation((turnDeg * Math.PI) / 180, width / 2, height / 2)), translation(xMm, areaHeightMm - height + yMm));
}

/** The stand-in cutter by HTTP: its state, orders, programs in plotter language, what it did as a picture, and its log. */
export function cutterHttp(cutter: StandInCutter, printer: StandInPrinter): Router {
  const router = Router();
  router.use((_request, response, next) => {
    // A line that was lost is lost for whoever asks.
    if (cutter.answers) next();
    else response.socket?.destroy();
  });
  router.get('/', (_request, response) => void response.json(cutter.state()));
  router.get('/log', (_request, response) => void response.json(cutter.log));
  router.get('/picture', (_request, response) => void response.type('image/svg+xml').send(cutterPicture(cutter.state().area, cutter.traces)));
  router.get('/camera', (request, response) => {
    const at = seenPlace.safeParse(request.query);
    if (!at.success) return void response.status(400).json({ error: 'not understood' });
    const { grey, widthPx, heightPx, pxPerMm } = cutter.look(at.data.xMm, at.data.yMm);
    response.set({ 'x-width': String(widthPx), 'x-height': String(heightPx), 'x-px-per-mm': String(pxPerMm) }).type('application/octet-stream').send(Buffer.from(grey));
  });
  router.use(express.json({ limit: MOST_ORDER }), express.text({ limit: MOST_PROGRAM, type: 'text/plain' }));
  const order = <T>(path: string, schema: z.ZodType<T>, work: (value: T) => void): void =>
    void router.post(path, (request: Request, response: Response) => {
      const parsed = schema.safeParse(request.body);
      if (!parsed.success) return void response.status(400).json({ error: 'not understood' });
      work(parsed.data);
      response.json(cutter.state());
    });
  order('/load', load, (value) => cutter.load(value));
  order('/page', pageOrder, ({ page: number, lie = byHand() }) => {
    const page = printer.page(number);
    if (page === undefined) throw new AppError('machineFault', { fault: 'noMat' });
    cutter.loadPage({ page, lies: lyingAt(lie, page, cutter.state().area.heightMm) });
  });
  order('/origin', place, (value) => cutter.setOrigin(value));
  order('/program', z.string().min(1), (value) => cutter.send(value));
  order('/fail', mishap, ({ kind, atShare }) => cutter.fail(kind, atShare));
  order('/haste', haste, ({ times }) => cutter.hurry(times));
  for (const what of ['pause', 'resume', 'stop'] as const) order(`/${what}`, z.unknown(), () => cutter[what]());
  router.use((_request, response) => void response.status(404).json({ error: 'no such order' }));
  router.use((error: unknown, _request: Request, response: Response, next: NextFunction) => {
    if (isAppError(error) && error.code === 'machineFault') response.status(409).json({ fault: error.details['fault'] });
    else if (isAppError(error)) response.status(400).json({ error: 'not plotter language' });
    else next(error);
  });
  return router;
}
