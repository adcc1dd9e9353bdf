import { AROUND_FILM } from '../film/filmRoles.ts';
import type { TracedPart } from '../job/tracedPart.ts';
import type { Curves } from '../outline/curves.ts';
import { heldCurves, outlineMark } from '../outline/heldOutline.ts';
import { offsetOutline, withoutOpenings } from '../outline/offsetOutline.ts';
import type { Frame } from '../raster/art.ts';
import type { TracedFilm } from './separateArt.ts';

/** A film as it is cut. */
export interface FinishedFilm extends TracedFilm {
  /** Says which outline the program found for it: what one held by hand was made from. */
  readonly mark: string;
  /** Held by hand; `changed` when the program would find another outline by now than the one it was made from. */
  readonly held?: 'asMade' | 'changed';
}

/**
 * Films as they leave the separation to films as they are cut: only the outermost edge, or a border below all, where the part asks for it; and those that are
 * held by hand as they are held.
 * @param resolutionOf art pixels on one mm of the finished design, from everything that is cut.
 */
export function finishFilms(
  part: Pick<TracedPart, 'outline' | 'films'>,
  frame: Frame,
  { films, whole }: { readonly films: readonly TracedFilm[]; readonly whole: () => Curves },
  resolutionOf: (whole: Curves) => number,
): FinishedFilm[] {
  const { around, outermost, held } = part.outline;
  const border = (openings: 'kept' | 'filled'): Curves => {
    const grown = around === undefined || around.widthMm === 0 ? whole() : offsetOutline(whole(), around.widthMm * resolutionOf(whole()));
    return openings === 'filled' ? withoutOpenings(grown) : grown;
  };
  const found: TracedFilm[] =
    outermost === true
      ? [{ film: films[0].film, outline: border('filled') }]
      : around === undefined
        ? [...films]
        : [{ film: part.films.find(({ id }) => id === AROUND_FILM.id) ?? AROUND_FILM, outline: border(around.openings) }, ...films];
  return found.map(({ film, outline }): FinishedFilm => {
    const mark = outlineMark(outline);
    const mine = held?.find((each) => each.film === film.id);
    if (mine === undefined) return { film, outline, mark };
    // On a reduced picture every outline is another one.
    return { film, outline: heldCurves(mine, frame), mark, held: frame.scale === 1 && mine.from !== mark ? 'changed' : 'asMade' };
  });
}
