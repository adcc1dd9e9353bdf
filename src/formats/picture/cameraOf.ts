import { z } from 'zod';
import type { PictureType } from './checkPicture.ts';

const exifSchema = z.object({ Make: z.string().optional(), Model: z.string().optional(), FocalLength: z.number().positive().optional() });

/**
 * The camera that took a picture and the focal length it had, as its EXIF tells (CIPA DC-008): a phone's lenses are told apart by the focal length. Undefined
 * when it names no model.
 */
export async function cameraOf(bytes: Uint8Array, type: PictureType): Promise<string | undefined> {
  if (type !== 'jpg' && type !== 'heic' && type !== 'tiff') return undefined;
  const { default: exifr } = await import('exifr');
  let found: z.infer<typeof exifSchema>;
  try {
    found = exifSchema.parse((await exifr.parse(bytes, ['Make', 'Model', 'FocalLength'])) ?? {});
  } catch {
    // Broken or odd EXIF names no camera; the picture itself is judged by its own decoder.
    return undefined;
  }
  const model = found.Model?.trim();
  if (model === undefined || model === '') return undefined;
  const make = found.Make?.trim() ?? '';
  const name = model.toLowerCase().startsWith(make.toLowerCase()) ? model : `${make} ${model}`;
  return `${name}${found.FocalLength === undefined ? '' : `, ${Math.round(found.FocalLength * 100) / 100} mm`}`.slice(0, 120);
}
