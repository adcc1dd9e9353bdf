import { z } from 'zod';

/** Names a picture in its job: the SHA-256 of its file in hex; in jobs from before version 4 whatever it was known by. */
export const pictureId = z.string().min(1).max(64);

/** What a job keeps of a picture; its bytes lie beside the job. */
export const pictureSchema = z.strictObject({
  id: pictureId,
  /** File name as it came. */
  fileName: z.string().max(255),
  widthPx: z.number().int().min(1),
  heightPx: z.number().int().min(1),
  /** Resolution that the file states, dots per inch; absent when it states none. */
  statedDpi: z.number().positive().max(100_000).optional(),
  /** Camera and focal length that the file names. */
  camera: z.string().max(120).optional(),
  /** Long side at which a vector drawing is drawn as a picture. */
  drawnSidePx: z.number().int().min(100).max(8000).optional(),
});
export type PictureInfo = z.infer<typeof pictureSchema>;
