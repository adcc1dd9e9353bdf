import { figuresTogether } from '../core/check/figures.ts';
import type { Job } from '../core/job/job.ts';
import type { TracedPart } from '../core/job/tracedPart.ts';
import type { Art } from '../core/raster/art.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import { proofOfFilms } from '../core/run/proofOfFilms.ts';
import type { CutResult } from '../core/run/runJob.ts';
import { cutView } from './cutView.ts';
import type { ProofRequest, ProofView, VariantView } from './protocol.ts';
import { ownCopy, viewOf } from './views.ts';

/** The films over each other beside the art, reduced for the screen. */
export function proofView(job: Job, traced: TracedPart, clean: CleanResult, cut: CutResult, shift: ProofRequest['shift']): ProofView {
  const resolution = cut.place.resolution as number;
  const moved = shift === undefined ? undefined : { filmId: shift.filmId, xPx: shift.xMm * resolution, yPx: shift.yMm * resolution };
  const { composed, difference, differs } = proofOfFilms(job, clean.art, cut, moved);
  const stray = cut.strayPx === undefined ? {} : { strayMm: cut.strayPx / resolution };
  return { key: JSON.stringify([clean.key, traced, shift]), composed: ownCopy(viewOf(composed)), difference: ownCopy(viewOf(difference)), differs, ...stray };
}

/** What another job would cut. */
export function variantView(cut: CutResult, art: Art, isReduced: boolean): VariantView {
  const { films, tones, findings, design, rack } = cutView(cut, art);
  return { isReduced, design, rack: rack.map(({ film }) => film), films, findings: findings.length, ...(tones === undefined ? {} : { tones }), together: figuresTogether(films) };
}
