import { PROCESSES } from '../process/processes.ts';
import { formatLength, type LengthUnit } from '../units/parseLength.ts';
import { mm } from '../units/length.ts';
import type { Job } from './job.ts';
import { plainObjects } from './objects.ts';
import { stateWord } from './order.ts';
import { counted, say } from '../words/say.ts';

/** Something that two states of a job differ in, in words. */
export interface Difference {
  readonly what: string;
  readonly then: string;
  readonly now: string;
}

type Tell = (job: Job, unit: LengthUnit) => string;

const traced = (job: Job) => plainObjects(job.objects).filter((object) => object.kind === 'traced');
const listed = (words: readonly string[]): string => (words.length === 0 ? say('none') : words.join(', '));
const onOff = (is: boolean): string => (is ? say('yes') : say('no'));

/** What is told of a job, in the order of the work. Each of them is compared as it is told. */
const ASPECTS: readonly (readonly [what: string, tell: Tell])[] = [
  [say('Name'), ({ name }) => name],
  [say('Blank'), ({ blank }) => blank.name],
  [say('Process'), ({ process }) => PROCESSES[process].name],
  [say('Size'), (job, unit) => listed(traced(job).map(({ size }) => `${formatLength(mm(size.sizeMm), unit)}${size.by === 'height' ? say(' high') : say(' wide')}${size.turnDeg === 0 ? '' : say`, turned ${size.turnDeg}°`}`))],
  [say('Pictures'), ({ pictures }) => listed(pictures.map(({ fileName }) => fileName))],
  [say('Clean-up'), (job) => listed(traced(job).map(({ recipe }) => counted(recipe.filter(({ enabled }) => enabled).length, say('step'), say('steps'))))],
  [say('Films'), ({ films }) => listed(films.map(({ name, colour }) => `${name} ${colour}`))],
  [say('Lettering'), ({ objects }) => listed(plainObjects(objects).flatMap((object) => (object.kind === 'lettering' ? [`“${object.lettering.text}”`] : [])))],
  [say('Parts'), ({ objects }) => counted(plainObjects(objects).length, say('part'), say('parts'))],
  [say('Copies'), ({ layout }) => String(layout.copies)],
  [say('Sheet'), ({ layout }) => layout.sheet.name],
  [say('Weeding box'), ({ layout }) => onOff(layout.box.on)],
  [say('Collections'), ({ collections = [] }) => listed(collections)],
  [say('Keywords'), ({ keywords }) => listed(keywords)],
  [say('State'), ({ order, process }) => stateWord(order?.state ?? 'asked', process)],
];

/** Parts of a job whose settings differ in more than is told above. */
const REST: readonly (readonly [what: string, of: (job: Job) => unknown])[] = [
  [say('Settings of clean-up'), (job) => traced(job).map(({ recipe }) => recipe)],
  [say('Settings of separation and outlines'), (job) => traced(job).map(({ separation, outline }) => [separation, outline])],
  [say('Settings of parts'), (job) => plainObjects(job.objects).filter(({ kind }) => kind !== 'traced')],
  [say('How films meet'), ({ layering, bridges }) => [layering, bridges]],
  [say('Place on the blank'), ({ place }) => place],
  [say('Materials'), ({ materials }) => materials],
  [say('Settings of the lay-out'), ({ layout }) => layout],
  [say('Order and rights'), ({ order, rights }) => [order, rights]],
];

/** What two states of a job differ in, in the order of the work; none when nothing does that one could see. */
export function differencesOf(then: Job, now: Job, unit: LengthUnit): Difference[] {
  const told = ASPECTS.map(([what, tell]) => ({ what, then: tell(then, unit), now: tell(now, unit) })).filter((each) => each.then !== each.now);
  const rest = REST.filter(([, of]) => JSON.stringify(of(then)) !== JSON.stringify(of(now))).map(([what]) => ({ what, then: say('as they were'), now: say('changed since') }));
  return [...told, ...rest];
}
