import { colourName } from '../colour/colourName.ts';
import type { Step } from '../clean/recipe.ts';
import { CLEAR } from '../raster/labelMap.ts';
import type { Task } from '../task/task.ts';
import { PROCESSES } from '../process/processes.ts';
import { inSentence, say } from '../words/say.ts';
import { filmForEachArea } from './filmsForTones.ts';
import { aspectOf, LEAST_PX2, startOf, type Asking, type Proposal } from './proposal.ts';
import { shadedAreas } from './shadedAreas.ts';

/** Shaded art in more areas than this is a painting. */
const MOST_AREAS = 9;

/** How to start with shaded art and photographs, whatever is on them; the likeliest first. */
export const shadedProposals = (ask: Asking): Proposal[] =>
  ask.job.process === 'waterslide' ? [print(ask), subject(ask), dark(ask)] : [print(ask), dark(ask), shades(ask)];

/** So much of a picture lies near its few tones when they are all that is on it. */
const TOLD_BY_TONES = 0.95;

/** Areas with edges between them that are shaded themselves, as with gradients, on their ground: each as one film. None for art of another kind. */
export function* areaProposals(ask: Asking): Task<Proposal[]> {
  const found = yield* shadedAreas(ask.art, LEAST_PX2);
  if (found === undefined) return [];
  const { tones, ground } = found.flat;
  const areas = new Set(found.groupOf).size;
  // Where no area has shades of its own, its tones must tell the picture: flat art in the light of a lamp, on cloth.
  const isToldByTones = areas < tones.length || ask.look.explained >= TOLD_BY_TONES;
  if (!isToldByTones || areas > MOST_AREAS || (areas < 2 && ground !== CLEAR)) return [];
  const cut = filmForEachArea(ask, found, ask.look.recipe);
  if (ask.job.process !== 'waterslide') return [cut];
  // What is clear around it is not printed anyway.
  if (ground === CLEAR) return [];
  return [{ ...cut, title: say('Print it without its ground'), words: say`Its shading is printed; the ${colourName(tones[ground])} around it is left out.` }];
}

const NOT_CLEAR = { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' } as const;

export function print(ask: Asking): Proposal {
  const start = startOf({ ...ask, job: { ...ask.job, process: 'waterslide' } }, [], NOT_CLEAR, ask.job.films, aspectOf(ask.art));
  const words =
    ask.job.process === 'waterslide'
      ? say('All of the picture, its shading as it is.')
      : say`Shaded art keeps its shading as a ${inSentence(PROCESSES.waterslide.name)} print, not as cut film.`;
  return { title: say('Print it'), words, start };
}

function subject(ask: Asking): Proposal {
  const lift: Step = { kind: 'subjectLift', id: 'look-lift', enabled: true, v: 1, strokes: [] };
  return { title: say('Print its subject'), words: say('What the picture shows, taken off its ground.'), start: startOf(ask, [lift], NOT_CLEAR, ask.job.films, aspectOf(ask.art)) };
}

export function dark(ask: Asking): Proposal {
  const start = startOf(ask, ask.look.recipe, { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' }, ask.job.films, aspectOf(ask.art));
  return { title: say('One film of what is dark'), words: say('Everything darker than a threshold, which can be moved.'), start };
}

function shades(ask: Asking): Proposal {
  const start = startOf(ask, ask.look.recipe, { way: 'tones', count: 3, meet: 'stacked' }, ask.job.films, aspectOf(ask.art));
  return { title: say('Two films, by shade'), words: say('The lightest shade is the blank; each darker one lies on the one before.'), start };
}
