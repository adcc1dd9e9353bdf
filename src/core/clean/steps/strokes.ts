import { z } from 'zod';
import { rgbFromHex } from '../../colour/hex.ts';
import type { Rgb } from '../../colour/oklab.ts';
import { artXFromPicture, artYFromPicture, withAlpha, type Art, type Frame } from '../../raster/art.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { keepWithin } from '../keepWithin.ts';
import { paintStroke, type Stroke } from '../paintStrokes.ts';
import { MAX_TOLERANCE } from './areaLift.ts';
import { stepBase, type StepContext, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const MAX_BRUSH_PX = 2000;
export const strokeSchema = z.strictObject({
  radiusPx: z.number().positive().max(MAX_BRUSH_PX),
  points: z.array(z.number().finite()).min(2).max(40_000),
  /** Share of the radius at each point, as a pen was pressed. */
  widths: z.array(z.number().min(0).max(1)).max(20_000).optional(),
  /** Stays within the colour under its first point, up to this perceptual difference. */
  within: z.number().min(0).max(MAX_TOLERANCE).optional(),
});

export const rubOutSchema = z.strictObject({ kind: z.literal('rubOut'), ...stepBase, strokes: z.array(strokeSchema).max(5000) });
export const bringBackSchema = z.strictObject({ kind: z.literal('bringBack'), ...stepBase, strokes: z.array(strokeSchema).max(5000) });
export const MAX_STROKES = 5000;
/** A stroke of ink, in its own colour. */
export const inkStrokeSchema = strokeSchema.extend({ colour: z.string().regex(/^#[0-9a-f]{6}$/, say('a colour is written #rrggbb in lower case')) });
export const drawInSchema = z.strictObject({ kind: z.literal('drawIn'), ...stepBase, strokes: z.array(inkStrokeSchema).max(MAX_STROKES) });
export type DrawInStep = z.infer<typeof drawInSchema>;
export type RubOutStep = z.infer<typeof rubOutSchema>;
export type BringBackStep = z.infer<typeof bringBackSchema>;

/** A stroke in art pixels. */
export function placedStroke(frame: Frame, { radiusPx, points }: Stroke): { radius: number; points: Float64Array } {
  const placed = new Float64Array(points.length & ~1);
  for (let i = 0; i < placed.length; i += 2) {
    placed[i] = artXFromPicture(frame, points[i]);
    placed[i + 1] = artYFromPicture(frame, points[i + 1]);
  }
  return { radius: radiusPx * frame.scale, points: placed };
}

/**
 * Share of every art pixel that the strokes cover, 0 to 255.
 * @param colours what strokes that stay within a colour go by, and where its first pixel lies in it.
 */
function coverOf(art: Art, strokes: RubOutStep['strokes'], colours: Art): Uint8Array {
  const cover = new Uint8Array(art.alpha.length);
  for (const stroke of strokes) {
    const { points, radius } = placedStroke(art.frame, stroke);
    if (stroke.within === undefined) paintStroke(cover, art.width, art.height, points, radius, stroke.widths);
    else {
      const own = new Uint8Array(cover.length);
      paintStroke(own, art.width, art.height, points, radius, stroke.widths);
      keepWithin(own, art, colours, stroke.points, stroke.within);
      for (let i = 0; i < cover.length; i++) if (own[i] > cover[i]) cover[i] = own[i];
    }
  }
  return cover;
}

export const rubOut: StepKind<RubOutStep> = {
  about: say('Clears what a round brush goes over.'),
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const cover = coverOf(art, step.strokes, art);
    yield 0.7;
    const alpha = art.alpha.slice();
    for (let i = 0; i < alpha.length; i++) if (cover[i] !== 0) alpha[i] = Math.min(alpha[i], 255 - cover[i]);
    return { art: withAlpha(art, alpha), facts: { strokes: step.strokes.length } };
  },
};

export const bringBack: StepKind<BringBackStep> = {
  about: say('Restores the picture where a round brush goes over it.'),
  revision: 1,
  readsSize: false,
  *run(art, step, context) {
    const cover = coverOf(art, step.strokes, context.picture);
    yield 0.7;
    return { art: restored(art, cover, context), facts: { strokes: step.strokes.length } };
  },
};

export const drawIn: StepKind<DrawInStep> = {
  about: say('Draws with a round brush in a colour of the art, also over what is clear.'),
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const data = new Uint8Array(art.colour.data);
    const alpha = art.alpha.slice();
    for (const [k, stroke] of step.strokes.entries()) {
      inkOver(data, alpha, coverOf(art, [stroke], art), rgbFromHex(stroke.colour) as Rgb);
      yield (k + 1) / step.strokes.length;
    }
    return { art: withAlpha(art, alpha, makeRgba8(art.width, art.height, data, art.colour.opaque === true)), facts: { strokes: step.strokes.length } };
  },
};

/** Lays a colour over straight-alpha pixels in the share that `cover` says ("over", Porter & Duff, SIGGRAPH 1984, doi:10.1145/800031.808606). */
function inkOver(data: Uint8Array, alpha: Uint8Array, cover: Uint8Array, { r, g, b }: Rgb): void {
  for (let i = 0, j = 0; i < cover.length; i++, j += 4) {
    const ink = cover[i] / 255;
    if (ink === 0) continue;
    const below = (alpha[i] / 255) * (1 - ink);
    const share = ink / (ink + below);
    data[j] += (r - data[j]) * share;
    data[j + 1] += (g - data[j + 1]) * share;
    data[j + 2] += (b - data[j + 2]) * share;
    alpha[i] = Math.round(255 * (ink + below));
  }
}

/** Alpha and colour of the picture as it came, put back in the share that `cover` says. */
function restored(art: Art, cover: Uint8Array, { picture }: StepContext): Art {
  const alpha = art.alpha.slice();
  // Pixels of the picture a pixel of the art: less than 1 after enlarging.
  const step = picture.frame.scale / art.frame.scale;
  const left = artXFromPicture(picture.frame, art.frame.leftPx);
  const top = artYFromPicture(picture.frame, art.frame.topPx);
  const from = picture.colour.data;
  let colour: Uint8Array | undefined;
  for (let y = 0; y < art.height; y++) {
    for (let x = 0, i = y * art.width; x < art.width; x++, i++) {
      if (cover[i] === 0) continue;
      const px = Math.floor(left + (x + 0.5) * step);
      const py = Math.floor(top + (y + 0.5) * step);
      if (px < 0 || py < 0 || px >= picture.width || py >= picture.height) continue;
      const j = py * picture.width + px;
      alpha[i] = Math.max(alpha[i], Math.round((picture.alpha[j] * cover[i]) / 255));
      if (art.colour.data[i * 4] === from[j * 4] && art.colour.data[i * 4 + 1] === from[j * 4 + 1] && art.colour.data[i * 4 + 2] === from[j * 4 + 2]) continue;
      colour ??= new Uint8Array(art.colour.data);
      for (let c = 0; c < 3; c++) colour[i * 4 + c] = from[j * 4 + c];
    }
  }
  return withAlpha(art, alpha, colour === undefined ? art.colour : makeRgba8(art.width, art.height, colour));
}
