import { z } from 'zod';
import { cropArt } from '../../raster/crop.ts';
import { rectSchema, stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

export const cropSchema = z.strictObject({
  kind: z.literal('crop'),
  ...stepBase,
  /** What stays, in picture pixels. */
  rect: rectSchema,
});
export type CropStep = z.infer<typeof cropSchema>;

export const crop: StepKind<CropStep> = {
  about: say('Keeps a rectangle of the picture.'),
  revision: 1,
  readsSize: false,
  *run(art, step) {
    const cropped = cropArt(art, step.rect);
    return { art: cropped, facts: { widthPx: cropped.width, heightPx: cropped.height } };
  },
};
