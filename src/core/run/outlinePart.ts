import { artResolution } from '../clean/finishedSize.ts';
import { AppError } from '../errors/appError.ts';
import { rotation } from '../geometry/affine.ts';
import type { TracedPart } from '../job/tracedPart.ts';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import type { OutlineSettings } from '../outline/outlineSettings.ts';
import { DEFAULT_OUTLINE, type OutlineOptions } from '../outline/traceOutline.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { Art } from '../raster/art.ts';
import type { Task } from '../task/task.ts';
import type { FinishedSize } from '../units/finishedSize.ts';
import { finishFilms, type FinishedFilm } from './finishFilms.ts';
import { separateArt, type Remember, type SeparatedArt } from './separateArt.ts';

/** The size of what is cut of a part, without the border around it. */
export const finishedSizeOf = ({ size, outline }: Pick<TracedPart, 'size' | 'outline'>): FinishedSize => ({
  ...size,
  sizeMm: withoutBorder(size.sizeMm, outline),
});

/** Length of the design's chosen side without the border around it. A border wider than the design itself has no true size; it is made as if it came on top. */
function withoutBorder(sizeMm: number, { around }: Pick<OutlineSettings, 'around'>): number {
  const borderMm = 2 * (around?.widthMm ?? 0);
  return borderMm < sizeMm / 2 ? sizeMm - borderMm : sizeMm;
}

const FOLLOW_PX = { least: 0.05, most: 5 };
/**
 * Share of the limit below which bits go before edges are followed, which calms those beside them. The rest is measured on the outlines, whose size is the
 * design's.
 */
const SURELY_SMALL = 0.9;

/** How a part's outline settings read for an art of a given scale and finished size. */
export function outlineOptionsOf(part: Pick<TracedPart, 'outline' | 'size'>, art: Art): OutlineOptions {
  const { leastPieceMm2, followPx, cornerDeg } = part.outline;
  const perMm2 = artResolution(art, finishedSizeOf(part), leastPieceMm2) ** 2;
  return {
    ...DEFAULT_OUTLINE,
    // The setting counts px of the picture, which the art may have more or fewer of.
    followPx: Math.max(FOLLOW_PX.least, Math.min(FOLLOW_PX.most, followPx * art.frame.scale)),
    cornerRad: (cornerDeg * Math.PI) / 180,
    leastAreaPx2: Math.max(DEFAULT_OUTLINE.leastAreaPx2, SURELY_SMALL * leastPieceMm2 * perMm2),
    ...(part.outline.smoothPx === undefined ? {} : { smoothPx: part.outline.smoothPx * art.frame.scale }),
    shapes: part.outline.shapes ?? true,
  };
}

/** Films as they are cut: with a border, held by hand. */
export interface OutlinedArt extends Omit<SeparatedArt, 'films' | 'whole'> {
  /** Lowest first. */
  readonly films: readonly FinishedFilm[];
}

/** Pixels of the art on one mm, where the chosen side of what is cut is as long as the part says with the border around it. */
function designResolution(whole: Curves, { size, outline }: Pick<TracedPart, 'size' | 'outline'>): number {
  const { turnDeg, by, sizeMm } = size;
  const box = boundsOf(turnDeg === 0 ? whole : transformCurves(whole, rotation((turnDeg * Math.PI) / 180, 0, 0)));
  if (box === undefined) throw new AppError('nothingToCut');
  const extentPx = by === 'width' ? box.right - box.left : box.bottom - box.top;
  return extentPx / withoutBorder(sizeMm, outline);
}

/** Clean art to films with their outlines in art pixels. @throws AppError `nothingToCut` when no piece is left. */
export function* outlinePart(part: TracedPart, art: Art, remember?: Remember): Task<OutlinedArt> {
  const resolutionOf = (whole: Curves): number => designResolution(whole, part);
  const { whole, films, ...facts } = yield* separateArt(part, art, outlineOptionsOf(part, art), resolutionOf, remember);
  if (films.every(({ outline }) => ringCount(outline) === 0)) throw new AppError('nothingToCut');
  return { ...facts, films: finishFilms(part, art.frame, { films, whole }, resolutionOf) };
}
