import { followedBy, inverseOf, scaling, translation, type Affine } from '../geometry/affine.ts';
import type { Curves } from '../outline/curves.ts';
import { nestRings } from '../outline/nestRings.ts';
import { offsetOutline, withoutOpenings } from '../outline/offsetOutline.ts';
import { curvesFromPathData, pathData } from '../outline/pathData.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import type { Frame } from '../raster/art.ts';
import { AROUND_ID } from './filmsOf.ts';
import { hashText } from './hash.ts';
import type { Film, HeldOutline, Job } from './job.ts';
import type { TracedFilm } from './separateArt.ts';

/** A film as it is cut. */
export interface FinishedFilm extends TracedFilm {
  /** Says which outline the program found for it: what one held by hand was made from. */
  readonly mark: string;
  /** Held by hand; `changed` when the program would find another outline by now than the one it was made from. */
  readonly held?: 'asMade' | 'changed';
}

/** The film around and below all others. */
export const AROUND_FILM: Film = { id: AROUND_ID, name: 'Border', colour: '#fbf8f3' };

/** Marks compare places to this, art px: far below what any change of a setting moves. */
const MARK_PX = 0.01;

/** Says which outline it is: equal for equal curves, whatever their numbers' last digits. */
export function outlineMark({ verbs, coords }: Curves): string {
  return hashText(`${verbs.join('')} ${Array.from(coords, (value) => Math.round(value / MARK_PX)).join(' ')}`);
}

/** From art px to px of the picture as turned and squared. */
export const pictureFromFrame = ({ leftPx, topPx, scale }: Frame): Affine => followedBy(scaling(1 / scale), translation(leftPx, topPx));

/**
 * Films as they leave the separation to films as they are cut: only the outermost edge, or a border below all, where the job asks for it; and those that are held by hand as they are held.
 * @param resolutionOf art pixels on one mm of the finished design, from everything that is cut.
 */
export function finishFilms(job: Pick<Job, 'outline' | 'assembly'>, frame: Frame, { films, whole }: { readonly films: readonly TracedFilm[]; readonly whole: () => Curves }, resolutionOf: (whole: Curves) => number): FinishedFilm[] {
  const { around, outermost, held } = job.outline;
  const border = (openings: 'kept' | 'filled'): Curves => {
    const grown = around === undefined || around.widthMm === 0 ? whole() : offsetOutline(whole(), around.widthMm * resolutionOf(whole()));
    return openings === 'filled' ? withoutOpenings(grown) : grown;
  };
  const found: TracedFilm[] =
    outermost === true ? [{ film: films[0].film, outline: border('filled') }]
    : around === undefined ? [...films]
    : [{ film: job.assembly.films.find(({ id }) => id === AROUND_FILM.id) ?? AROUND_FILM, outline: border(around.openings) }, ...films];
  return found.map(({ film, outline }): FinishedFilm => {
    const mark = outlineMark(outline);
    const mine = held?.find((each) => each.film === film.id);
    if (mine === undefined) return { film, outline, mark };
    // On a reduced picture every outline is another one.
    return { film, outline: heldCurves(mine, frame), mark, held: frame.scale === 1 && mine.from !== mark ? 'changed' : 'asMade' };
  });
}

/** Digits of a pixel to which an outline held by hand is kept: films that share an edge keep sharing it. */
const HELD_DIGITS = 6;

/** How an outline, in px of the picture, is written when it is held by hand. */
export const heldPath = (curves: Curves): string => pathData(curves, HELD_DIGITS);

/** An outline held by hand, in art px. */
const heldCurves = (held: HeldOutline, frame: Frame): Curves => transformCurves(nestRings(curvesFromPathData(held.path)), inverseOf(pictureFromFrame(frame)));
