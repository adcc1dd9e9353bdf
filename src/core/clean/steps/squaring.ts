import { z } from 'zod';
import { artFromPicture, pictureFromArt } from '../../raster/art.ts';
import { squarePicture, type SquaringMarks } from '../squaring/squarePicture.ts';
import { pointSchema, stepBase, type StepKind } from './step.ts';
import { say } from '../../words/say.ts';

const lengthMm = z.number().positive().max(10_000);

/** How a lens bends: the radial coefficients of Brown's model. */
export const lensSchema = z.strictObject({ k1: z.number().min(-1).max(1), k2: z.number().min(-1).max(1) });
export type LensSettings = z.infer<typeof lensSchema>;

export const squaringSchema = z.strictObject({
  kind: z.literal('squaring'),
  ...stepBase,
  /** The printed mark sheet, found by itself, or a rectangle of known size by its corners, clockwise from the upper left one. */
  marks: z.discriminatedUnion('by', [
    z.strictObject({ by: z.literal('sheet') }),
    z.strictObject({ by: z.literal('corners'), corners: z.array(pointSchema).length(4), widthMm: lengthMm, heightMm: lengthMm.optional() }),
  ]),
  /** How the lens bends, where another photo of the same camera told. */
  lens: lensSchema.optional(),
  /** Shadow and uneven light go as well. */
  levelLight: z.boolean(),
});
export type SquaringStep = z.infer<typeof squaringSchema>;

export const squaring: StepKind<SquaringStep> = {
  about: say('Makes a photo taken at an angle flat and true to scale, by the mark sheet or four corners.'),
  revision: 1,
  readsSize: false,
  isBase: true,
  *run(art, step) {
    const { scale, leftPx, topPx } = art.frame;
    const marks: SquaringMarks =
      step.marks.by === 'sheet'
        ? { by: 'sheet' }
        : {
            by: 'corners',
            corners: step.marks.corners.map(({ xPx, yPx }) => [(xPx - leftPx) * scale, (yPx - topPx) * scale] as const),
            widthMm: step.marks.widthMm,
            ...(step.marks.heightMm === undefined ? {} : { heightMm: step.marks.heightMm }),
          };
    const squared = yield* squarePicture(pictureFromArt(art), { marks, levelLight: step.levelLight, ...(step.lens === undefined ? {} : { lens: step.lens }) });
    const { k1, k2 } = squared.view.lens;
    // Told in pixels of the whole picture, also when this is a reduced one.
    const pxPerMm = squared.resolution / scale;
    const facts = {
      pxPerMm,
      meanMissMm: squared.meanMissMm,
      worstMissMm: squared.worstMissMm,
      marksFound: squared.marksFound,
      widthMm: squared.area.widthMm,
      heightMm: squared.area.heightMm,
      k1,
      k2,
    };
    return { art: artFromPicture(squared.picture, scale), facts };
  },
};
