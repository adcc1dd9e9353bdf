import { PROCESSES } from '../process/processes.ts';
import type { Job } from './job.ts';
import { plainObjects } from './objects.ts';
import { stateWord } from './order.ts';

/** Everything of a job that someone might look for it by, in small letters. */
export function jobText({ name, keywords, collections = [], blank, process, films, pictures, objects, rights, order, materials }: Job): string {
  const lettered = plainObjects(objects).flatMap((object) => [object.name ?? '', object.kind === 'lettering' ? object.lettering.text : '']);
  const told = order === undefined ? [] : [order.customer ?? '', order.notes ?? '', order.code ?? '', order.due ?? '', stateWord(order.state ?? 'asked', process)];
  const made = [materials?.usual?.name ?? '', ...(materials?.ofFilms?.map(({ material }) => material.name) ?? [])];
  return [name, ...keywords, ...collections, blank.name, PROCESSES[process].name, process, ...films.map((film) => film.name), ...pictures.map(({ fileName }) => fileName), ...lettered, rights.note, ...told, ...made].join(' ').toLowerCase();
}

/** The words that are looked for: a code as a scanner reads it off a ticket is its code alone. */
export const wordsOfSearch = (typed: string): string[] => typed.toLowerCase().replace(/^\s*limner\s+(?=[0-9a-z]{8}\s*$)/, '').split(/\s+/).filter((word) => word !== '');
