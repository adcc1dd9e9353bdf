import { PROCESSES } from '../process/processes.ts';
import { formatLength, type LengthUnit } from '../units/parseLength.ts';
import { mm } from '../units/length.ts';
import type { Job } from './job.ts';
import { plainObjects } from './objects.ts';
import { stateWord } from './order.ts';

/** Something that two states of a job differ in, in words. */
export interface Difference {
  readonly what: string;
  readonly then: string;
  readonly now: string;
}

type Tell = (job: Job, unit: LengthUnit) => string;

const traced = (job: Job) => plainObjects(job.objects).filter((object) => object.kind === 'traced');
const listed = (words: readonly string[]): string => (words.length === 0 ? 'none' : words.join(', '));
const count = (number: number, one: string): string => (number === 1 ? `1 ${one}` : `${number} ${one}s`);
const onOff = (is: boolean): string => (is ? 'yes' : 'no');

/** What is told of a job, in the order of the work. Each of them is compared as it is told. */
const ASPECTS: readonly (readonly [what: string, tell: Tell])[] = [
  ['Name', ({ name }) => name],
  ['Blank', ({ blank }) => blank.name],
  ['Process', ({ process }) => PROCESSES[process].name],
  ['Size', (job, unit) => listed(traced(job).map(({ size }) => `${formatLength(mm(size.sizeMm), unit)}${size.by === 'height' ? ' high' : ' wide'}${size.turnDeg === 0 ? '' : `, turned ${size.turnDeg}°`}`))],
  ['Pictures', ({ pictures }) => listed(pictures.map(({ fileName }) => fileName))],
  ['Clean-up', (job) => listed(traced(job).map(({ recipe }) => count(recipe.filter(({ enabled }) => enabled).length, 'step')))],
  ['Films', ({ films }) => listed(films.map(({ name, colour }) => `${name} ${colour}`))],
  ['Lettering', ({ objects }) => listed(plainObjects(objects).flatMap((object) => (object.kind === 'lettering' ? [`“${object.lettering.text}”`] : [])))],
  ['Parts', ({ objects }) => count(plainObjects(objects).length, 'part')],
  ['Copies', ({ layout }) => String(layout.copies)],
  ['Sheet', ({ layout }) => layout.sheet.name],
  ['Weeding box', ({ layout }) => onOff(layout.box.on)],
  ['Collections', ({ collections = [] }) => listed(collections)],
  ['Keywords', ({ keywords }) => listed(keywords)],
  ['State', ({ order, process }) => stateWord(order?.state ?? 'asked', process)],
];

/** Parts of a job whose settings differ in more than is told above. */
const REST: readonly (readonly [what: string, of: (job: Job) => unknown])[] = [
  ['Settings of clean-up', (job) => traced(job).map(({ recipe }) => recipe)],
  ['Settings of separation and outlines', (job) => traced(job).map(({ separation, outline }) => [separation, outline])],
  ['Settings of parts', (job) => plainObjects(job.objects).filter(({ kind }) => kind !== 'traced')],
  ['How films meet', ({ layering, bridges }) => [layering, bridges]],
  ['Place on the blank', ({ place }) => place],
  ['Materials', ({ materials }) => materials],
  ['Settings of the lay-out', ({ layout }) => layout],
  ['Order and rights', ({ order, rights }) => [order, rights]],
];

/** What two states of a job differ in, in the order of the work; none when nothing does that one could see. */
export function differencesOf(then: Job, now: Job, unit: LengthUnit): Difference[] {
  const told = ASPECTS.map(([what, tell]) => ({ what, then: tell(then, unit), now: tell(now, unit) })).filter((each) => each.then !== each.now);
  const rest = REST.filter(([, of]) => JSON.stringify(of(then)) !== JSON.stringify(of(now))).map(([what]) => ({ what, then: 'as they were', now: 'changed since' }));
  return [...told, ...rest];
}
