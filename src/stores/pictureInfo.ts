import type { PictureInfo } from '../core/job/picture.ts';
import type { OpenedPicture } from '../engine/protocol.ts';

/** What a job keeps of a picture that was opened. */
export function pictureInfoOf(fileName: string, { pictureId, widthPx, heightPx, statedDpi, camera, drawnSidePx }: OpenedPicture): PictureInfo {
  return {
    id: pictureId,
    fileName,
    widthPx,
    heightPx,
    ...(statedDpi === undefined ? {} : { statedDpi }),
    ...(camera === undefined ? {} : { camera }),
    ...(drawnSidePx === undefined ? {} : { drawnSidePx }),
  };
}
