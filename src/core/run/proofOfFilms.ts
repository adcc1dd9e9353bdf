import { rgbFromHex } from '../colour/hex.ts';
import type { Rgb } from '../colour/oklab.ts';
import { AROUND_FILM } from '../film/filmRoles.ts';
import { translation } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { proofOf, type Proof } from '../proof/proof.ts';
import type { Art } from '../raster/art.ts';
import { posterised } from '../separate/posterised.ts';
import type { SeparatedArt } from './separateArt.ts';

/**
 * The films of a separation laid over each other beside the art; beside its tones of lightness where they are what is cut. A border is no part of the art and
 * left out.
 * @param shift of one film, art px: what a misplaced layer would show.
 */
export function proofOfFilms(
  job: Pick<Job, 'blank'>,
  art: Art,
  { films, tone, tones, steps }: Pick<SeparatedArt, 'films' | 'tone' | 'tones' | 'steps'>,
  shift?: { readonly filmId: string; readonly xPx: number; readonly yPx: number },
): Proof {
  const colours = new Map((tones ?? []).flatMap(({ film, colour }) => (film === null ? [] : ([[film, colour]] as const))).reverse());
  const rgb = (hex: string): Rgb => rgbFromHex(hex) ?? { r: 255, g: 255, b: 255 };
  const laid = films
    .filter(({ film }) => film.id !== AROUND_FILM.id)
    .map(({ film, outline }) => ({
      // What the films are compared by is the art's own colours, not those of the films on the shelf.
      colour: tone?.ink ?? rgb(colours.get(film.id) ?? film.colour),
      curves: shift?.filmId === film.id ? transformCurves(outline, translation(shift.xPx, shift.yPx)) : outline,
    }));
  const own = (tones ?? []).map(({ colour }) => rgb(colour));
  const compared = steps === undefined || own.length !== steps.length + 1 ? art : posterised(art, steps, own);
  const ground = tones?.find(({ film }) => film === null)?.colour ?? (steps === undefined ? job.blank.colour : (tones?.at(-1)?.colour ?? job.blank.colour));
  return proofOf(compared, laid, tone?.ground ?? rgb(ground));
}
