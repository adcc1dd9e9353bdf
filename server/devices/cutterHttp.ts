import express, { Router, type NextFunction, type Request, type Response } from 'express';
import { z } from 'zod';
import { isAppError } from '../../src/core/errors/appError.ts';
import { cutterPicture } from './cutterPicture.ts';
import { MISHAPS, type StandInCutter } from './standInCutter.ts';

const MOST_PROGRAM = '40mb';
const MOST_ORDER = '4kb';

const place = z.strictObject({ xMm: z.number().min(0).max(100_000), yMm: z.number().min(0).max(100_000) });
const load = z.strictObject({ film: z.string().trim().min(1).max(200), needsG: z.number().min(0).max(10_000) });
const haste = z.strictObject({ times: z.number().min(0.1).max(1000) });
const mishap = z.strictObject({ kind: z.enum(MISHAPS), atShare: z.number().min(0).max(1).optional() });

/** The stand-in cutter by HTTP: its state, orders, programs in plotter language, what it did as a picture, and its log. */
export function cutterHttp(cutter: StandInCutter): Router {
  const router = Router();
  router.use((_request, response, next) => {
    // A line that was lost is lost for whoever asks.
    if (cutter.answers) next();
    else response.socket?.destroy();
  });
  router.get('/', (_request, response) => void response.json(cutter.state()));
  router.get('/log', (_request, response) => void response.json(cutter.log));
  router.get('/picture', (_request, response) => void response.type('image/svg+xml').send(cutterPicture(cutter.state().area, cutter.traces)));
  router.use(express.json({ limit: MOST_ORDER }), express.text({ limit: MOST_PROGRAM, type: 'text/plain' }));
  const order = <T>(path: string, schema: z.ZodType<T>, work: (value: T) => void): void =>
    void router.post(path, (request: Request, response: Response) => {
      const parsed = schema.safeParse(request.body);
      if (!parsed.success) return void response.status(400).json({ error: 'not understood' });
      work(parsed.data);
      response.json(cutter.state());
    });
  order('/load', load, (value) => cutter.load(value));
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
