import type { PictureInfo } from '../core/job/job.ts';
import type { OpenedPicture } from '../engine/protocol.ts';

/** What a job keeps of a picture that was opened. */
export function pictureInfo(fileName: string, { widthPx, heightPx, statedDpi, camera, drawnSidePx }: OpenedPicture): PictureInfo {
  return {
    fileName,
    widthPx,
    heightPx,
    ...(statedDpi === undefined ? {} : { statedDpi }),
    ...(camera === undefined ? {} : { camera }),
    ...(drawnSidePx === undefined ? {} : { drawnSidePx }),
  };
}
