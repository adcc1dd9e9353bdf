import { AppError } from '../core/errors/appError.ts';
import { pictureFromArt, type Art } from '../core/raster/art.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { resample, shrinkToSide } from '../core/raster/shrink.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import type { BaseView, RegionRequest } from './protocol.ts';

/** Long side of what is sent to be shown, px: about a screen. */
const VIEW_SIDE_PX = 1400;
/** What is no more than this times larger is sent as it is: reducing it would take longer than drawing it. */
const VIEW_ABOVE = 1.25;

export function baseView({ key, art }: CleanResult['base'], have?: string): BaseView {
  const { scale } = art.frame;
  const size = { key, widthPx: Math.round(art.width / scale), heightPx: Math.round(art.height / scale) };
  return key === have ? size : { ...size, view: ownCopy(viewOf(pictureFromArt(art))) };
}

/** A picture reduced for the screen. */
export const viewOf = (picture: Rgba8): Rgba8 => (Math.max(picture.width, picture.height) <= VIEW_ABOVE * VIEW_SIDE_PX ? picture : shrinkToSide(picture, VIEW_SIDE_PX));

/** Pixels that may be handed over for good: never the engine's own. */
export const ownCopy = (picture: Rgba8): Rgba8 => ({ ...picture, data: new Uint8Array(picture.data) });

interface KeyedArt {
  readonly key: string;
  readonly art: Art;
}

/** A closer look at a part of the picture, of the clean art or of its base. @throws AppError `cancelled` when that is no longer the one that is kept. */
export function regionView(
  { cleanKey, baseKey, xPx, yPx, widthPx, heightPx, outWidth, outHeight }: RegionRequest,
  { picture, base, clean }: { readonly picture: Rgba8; readonly base: KeyedArt | undefined; readonly clean: KeyedArt | undefined },
): Rgba8 {
  if (baseKey !== undefined) {
    if (base?.key !== baseKey) throw new AppError('cancelled');
    return resample(pictureFromArt(base.art), xPx, yPx, widthPx, heightPx, outWidth, outHeight);
  }
  if (cleanKey === undefined) return resample(picture, xPx, yPx, widthPx, heightPx, outWidth, outHeight);
  if (clean?.key !== cleanKey) throw new AppError('cancelled');
  const { leftPx, topPx, scale } = clean.art.frame;
  return resample(pictureFromArt(clean.art), (xPx - leftPx) * scale, (yPx - topPx) * scale, widthPx * scale, heightPx * scale, outWidth, outHeight);
}
