import { Router } from 'express';
import sharp from 'sharp';
import { z } from 'zod';
import type { Rgba8 } from '../../src/core/raster/raster.ts';
import { greyAt } from './printedPage.ts';
import { photoOf, photoThrough, tilted } from './standInCamera.ts';
import type { StandInPrinter } from './standInPrinter.ts';

const deg = (most: number) => z.coerce.number().min(-most).max(most).default(0);
const photoSchema = z.strictObject({
  /** The mark sheet with a square of work on it, or a page that was printed. */
  of: z.enum(['markSheet', 'page']).default('markSheet'),
  page: z.coerce.number().int().min(1).max(1000).default(1),
  paper: z.enum(['a4', 'letter']).default('a4'),
  tiltDeg: deg(40),
  turnDeg: deg(180),
  /** How the lens bends straight lines. */
  bend: z.coerce.number().min(-0.3).max(0.3).default(0),
  blurPx: z.coerce.number().min(0).max(6).default(0),
  /** The mark, from 0, on which glare lies. */
  glareOn: z.coerce.number().int().min(0).max(11).optional(),
});

/** The stand-in camera by HTTP: a photo of the mark sheet, or of what was printed, under angle, distortion, glare and blur. */
export function cameraHttp(printer: StandInPrinter): Router {
  const router = Router();
  router.get('/photo', async (request, response) => {
    const asked = photoSchema.safeParse(request.query);
    if (!asked.success) return void response.status(400).json({ error: 'not understood' });
    const { of, page: number, paper, tiltDeg, turnDeg, bend, blurPx, glareOn } = asked.data;
    const view = tilted(paper, tiltDeg, turnDeg, bend);
    const spoilt = { blurPx, ...(glareOn === undefined ? {} : { glareOn }) };
    const page = printer.page(number);
    if (of === 'page' && page === undefined) return void response.status(404).json({ error: 'no such page' });
    const photo: Rgba8 = page !== undefined && of === 'page' ? photoThrough(paper, view, (x, y) => greyAt(page, x, y, 90), spoilt) : photoOf(paper, view, spoilt);
    response.set('cache-control', 'no-store').type('image/png').send(await sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 4 } }).png().toBuffer());
  });
  router.use((_request, response) => void response.status(404).json({ error: 'no such order' }));
  return router;
}
