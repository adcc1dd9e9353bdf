import type { Design } from '../assemble/design.ts';
import type { Film } from '../film/film.ts';
import type { Job } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import { layoutFor } from '../layout/layoutFor.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';
import type { JobFilm } from '../layout/together.ts';

/** What a job cuts of each of its films, to be laid together with others. @param number of the job among them, from 1. @param design as it is cut. @param rack its films. */
export function jobFilms(job: Job, number: number, design: Design, rack: readonly Film[], copies?: number): JobFilm[] {
  const { mirrored } = mirroringOf(job.layout, job.process);
  return design.layers.map(({ filmId, curves }) => {
    const { name, colour } = rack.find(({ id }) => id === filmId) ?? { name: filmId, colour: '#808080' };
    return { job: number, name: job.name, film: { name, colour }, material: materialOf(job, filmId).id, curves, widthMm: design.widthMm, mirrored, copies: copies ?? layoutFor(job.layout, filmId).copies };
  });
}
