import type { StockFilm } from '../film/stock.ts';
import type { Job } from '../job/job.ts';
import { sheetFor, type Machine } from '../layout/machine.ts';
import type { Material } from '../process/material.ts';
import { materialOf, type Materials } from '../job/materials.ts';
import { say } from '../words/say.ts';

/** The job with a film, or all films where none is named, made of a material; its sheet is as wide as the film comes where it runs through the machine from a roll. */
export function withMaterial(job: Job, material: Material, film?: string): Job {
  const { materials } = job;
  const others = (materials?.ofFilms ?? []).filter((each) => each.film !== film);
  const next: Materials = film === undefined ? { usual: material } : { ...materials, ofFilms: [...others, { film, material }] };
  return onRoll({ ...job, materials: next });
}

/** The job with the materials of those of its films that lie on the shelf just so, by name and colour. */
export function withStockMaterials(job: Job, stock: readonly StockFilm[], materials: readonly Material[]): Job {
  return job.films.reduce((all, film) => {
    const own = stock.find(({ name, colour }) => name === film.name && colour === film.colour)?.material;
    const material = own === undefined ? undefined : materials.find(({ id, process }) => id === own && process === job.process);
    return material === undefined || materialOf(all, film.id).id === material.id ? all : withMaterial(all, material, film.id);
  }, job);
}

/** The job laid in a machine, with the sheet that goes into it. */
export const withMachine = (job: Job, machine: Machine): Job => onRoll({ ...job, layout: { ...job.layout, machine, sheet: machine.sheet } });

function onRoll(job: Job): Job {
  const { machine, sheet } = job.layout;
  // A sheet whose size was typed stays as it is.
  if (machine?.isRoll !== true || (sheet.name !== machine.sheet.name && !sheet.name.startsWith(say('Roll {0}', '')))) return job;
  return { ...job, layout: { ...job.layout, sheet: sheetFor(machine, materialOf(job)) } };
}
