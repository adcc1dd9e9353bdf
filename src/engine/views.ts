import { pictureFromArt } from '../core/raster/art.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { shrinkToSide } from '../core/raster/shrink.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import type { BaseView } from './protocol.ts';

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
