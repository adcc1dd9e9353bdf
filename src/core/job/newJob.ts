import { ONE_FILM_ID } from '../film/filmRoles.ts';
import { BLANKS } from '../process/blanks.ts';
import type { Process } from '../process/processes.ts';
import { JOB_VERSION, type Job } from './job.ts';
import { usualLayout } from '../layout/layout.ts';
import { FIRST_OBJECT_ID } from './tracedPart.ts';
import { say } from '../words/say.ts';

/** A job as it starts: nothing cleaned, one film, the usual sheet. @param process its blank is the first that is usual for it. */
export function newJob(name: string, process: Process = BLANKS[0].process): Job {
  const choice = BLANKS.find((each) => each.process === process) ?? BLANKS[0];
  return {
    format: 'limner-job',
    version: JOB_VERSION,
    name,
    keywords: [],
    rights: { note: '', use: 'unknown' },
    blank: choice.blank,
    process,
    pictures: [],
    films: [{ id: ONE_FILM_ID, name: say('Harbour navy'), colour: '#22375f' }],
    objects: [
      {
        kind: 'traced',
        id: FIRST_OBJECT_ID,
        recipe: [],
        separation: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
        outline: { followPx: 0.3, cornerDeg: 24, leastPieceMm2: 0.3 },
        size: { by: 'width', sizeMm: choice.widthMm, turnDeg: 0 },
      },
    ],
    layout: usualLayout(choice.process),
    handOff: { cutAs: 'lines' },
  };
}
