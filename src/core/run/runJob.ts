import { makeDesign, type Design } from '../assemble/design.ts';
import { proofOf, type Proof } from '../proof/proof.ts';
import { cutCheck, type Finding } from '../check/cutCheck.ts';
import { artResolution, type FinishedSize } from '../clean/finishedSize.ts';
import { AppError } from '../errors/appError.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';
import { laySheet, type Sheet } from '../layout/laySheet.ts';
import { DEFAULT_OUTLINE, type OutlineOptions } from '../outline/traceOutline.ts';
import { boundsOf, ringCount, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { rotation, translation } from '../geometry/affine.ts';
import type { Art, Frame } from '../raster/art.ts';
import type { Task } from '../task/task.ts';
import type { Job } from '../job/job.ts';
import { PROCESSES } from '../process/processes.ts';
import { posterised } from '../separate/posterised.ts';
import { finishFilms, type FinishedFilm } from './finishFilms.ts';
import { AROUND_FILM } from '../film/filmRoles.ts';
import { separateArt, type Remember, type SeparatedArt, type TracedFilm } from './separateArt.ts';

export function finishedSizeOf({ assembly, outline }: Pick<Job, 'assembly' | 'outline'>): FinishedSize {
  const { by, sizeMm, turnDeg } = assembly;
  return { by, sizeMm: withoutBorder(sizeMm, outline), ...(turnDeg === 0 ? {} : { turnDeg }) };
}

/** Length of the design's chosen side without the border around it. A border wider than the design itself has no true size; it is made as if it came on top. */
function withoutBorder(sizeMm: number, { around }: Pick<Job['outline'], 'around'>): number {
  const borderMm = 2 * (around?.widthMm ?? 0);
  return borderMm < sizeMm / 2 ? sizeMm - borderMm : sizeMm;
}

const FOLLOW_PX = { least: 0.05, most: 5 };
/** Share of the limit below which bits go before edges are followed, which calms those beside them. The rest is measured on the outlines, whose size is the design's. */
const SURELY_SMALL = 0.9;

/** How the job's outline settings read for an art of a given scale and finished size. */
export function outlineOptionsOf(job: Pick<Job, 'outline' | 'assembly'>, art: Art): OutlineOptions {
  const { leastPieceMm2, followPx, cornerDeg } = job.outline;
  const perMm2 = artResolution(art, finishedSizeOf(job), leastPieceMm2) ** 2;
  return {
    ...DEFAULT_OUTLINE,
    // The setting counts px of the picture, which the art may have more or fewer of.
    followPx: Math.max(FOLLOW_PX.least, Math.min(FOLLOW_PX.most, followPx * art.frame.scale)),
    cornerRad: (cornerDeg * Math.PI) / 180,
    leastAreaPx2: Math.max(DEFAULT_OUTLINE.leastAreaPx2, SURELY_SMALL * leastPieceMm2 * perMm2),
    ...(job.outline.smoothPx === undefined ? {} : { smoothPx: job.outline.smoothPx * art.frame.scale }),
    shapes: job.outline.shapes ?? true,
  };
}

/** Films as they are cut: with a border, held by hand. */
export interface OutlinedArt extends Omit<SeparatedArt, 'films' | 'whole'> {
  /** Lowest first. */
  readonly films: readonly FinishedFilm[];
}

/** Pixels of the art on one mm of the design, whose chosen side is as long as the job says with the border around it. */
function designResolution(whole: Curves, { assembly, outline }: Pick<Job, 'assembly' | 'outline'>): number {
  const { turnDeg, by, sizeMm } = assembly;
  const box = boundsOf(turnDeg === 0 ? whole : transformCurves(whole, rotation((turnDeg * Math.PI) / 180, 0, 0)));
  if (box === undefined) throw new AppError('nothingToCut');
  const extentPx = by === 'width' ? box.right - box.left : box.bottom - box.top;
  return extentPx / withoutBorder(sizeMm, outline);
}

/** Clean art to films with their outlines in art pixels. @throws AppError `nothingToCut` when no piece is left. */
export function* outlineArt(job: Job, art: Art, remember?: Remember): Task<OutlinedArt> {
  const resolutionOf = (whole: Curves): number => designResolution(whole, job);
  const { whole, films, ...facts } = yield* separateArt(job, art, outlineOptionsOf(job, art), resolutionOf, remember);
  if (films.every(({ outline }) => ringCount(outline) === 0)) throw new AppError('nothingToCut');
  return { ...facts, films: finishFilms(job, art.frame, { films, whole }, resolutionOf) };
}

/** Outlines to the design at its finished size. */
export const designOf = (job: Pick<Job, 'assembly'>, films: readonly TracedFilm[]): Design => makeDesign(films.map(({ film, outline }) => ({ filmId: film.id, curves: outline })), job.assembly);

/** The design laid out, one sheet for each film, all alike so that they line up. */
export function sheetsOf(job: Pick<Job, 'layout' | 'process'>, design: Design): Sheet[] {
  const { mirrored } = mirroringOf(job.layout, job.process);
  return design.layers.map(({ filmId }) => laySheet(design, filmId, { ...job.layout, mirrored }));
}

/**
 * The films of a separation laid over each other beside the art; beside its tones of lightness where they are what is cut. A border is no part of the art and left out.
 * @param shift of one film, art px: what a misplaced layer would show.
 */
export function proofOfFilms(job: Pick<Job, 'blank'>, art: Art, { films, tone, tones, steps }: Pick<SeparatedArt, 'films' | 'tone' | 'tones' | 'steps'>, shift?: { readonly filmId: string; readonly xPx: number; readonly yPx: number }): Proof {
  const colours = new Map((tones ?? []).flatMap(({ film, colour }) => (film === null ? [] : [[film, colour]] as const)).reverse());
  const rgb = (hex: string): Rgb => rgbFromHex(hex) ?? { r: 255, g: 255, b: 255 };
  const laid = films.filter(({ film }) => film.id !== AROUND_FILM.id).map(({ film, outline }) => ({
    // What the films are compared by is the art's own colours, not those of the films on the shelf.
    colour: tone?.ink ?? rgb(colours.get(film.id) ?? film.colour),
    curves: shift?.filmId === film.id ? transformCurves(outline, translation(shift.xPx, shift.yPx)) : outline,
  }));
  const own = (tones ?? []).map(({ colour }) => rgb(colour));
  const compared = steps === undefined || own.length !== steps.length + 1 ? art : posterised(art, steps, own);
  const ground = tones?.find(({ film }) => film === null)?.colour ?? (steps === undefined ? job.blank.colour : (tones?.at(-1)?.colour ?? job.blank.colour));
  return proofOf(compared, laid, tone?.ground ?? rgb(ground));
}

/** @param frame of the art that was outlined: enlarging it gives the picture no more to read. */
export const checkOf = (job: Pick<Job, 'process'>, design: Design, frame: Pick<Frame, 'scale'>): Finding[] => cutCheck(design, { ...PROCESSES[job.process], picturePxPerMm: design.resolution / Math.max(1, frame.scale) });
