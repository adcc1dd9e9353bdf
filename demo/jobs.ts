import { BLANKS } from '../src/core/job/blanks.ts';
import type { Job } from '../src/core/job/job.ts';
import { newJob, SHEETS } from '../src/core/job/newJob.ts';

export type DemoName = 'crest' | 'buoy' | 'lettering' | 'heron' | 'duck' | 'lighthouse' | 'sign';

function jobFor(name: string, blankName: string, keywords: string[], note: string, change: Partial<Job> = {}): Job {
  const choice = BLANKS.find(({ blank }) => blank.name === blankName);
  if (choice === undefined) throw new RangeError(`no blank ${blankName}`);
  const job = newJob(name);
  return {
    ...job,
    keywords,
    rights: { note, use: 'allowed' },
    blank: choice.blank,
    process: choice.process,
    assembly: { ...job.assembly, sizeMm: choice.widthMm },
    ...change,
  };
}

const step = { enabled: true, v: 1 } as const;
const film = (name: string, colour: string): Job['assembly']['films'] => [{ id: 'film-1', name, colour }];

/** The demo's jobs: three finished, the others pictures waiting. Keys are the names of the pictures. */
export function demoJobs(): Record<DemoName, Job> {
  const base = newJob('demo');
  return {
    crest: jobFor('Crew crest', 'Shirt, adult L', ['regatta', 'crew', 'shirt'], 'Drawn by the rowing club for its own crew.', {
      recipe: [
        { kind: 'crop', id: 'crest-crop', ...step, rect: { xPx: 100, yPx: 20, widthPx: 980, heightPx: 1200 } },
        { kind: 'areaLift', id: 'crest-ground', ...step, at: { xPx: 130, yPx: 60 }, tolerance: 'auto', enclosed: false, soft: true },
        { kind: 'sweep', id: 'crest-sweep', ...step, speckMm2: 1, pinholeMm2: 1 },
      ],
      assembly: { by: 'width', sizeMm: 240, turnDeg: 0, films: film('Harbour navy', '#22375f') },
    }),
    heron: jobFor('Heron glasses', 'Drinking glass', ['regatta', 'glass', 'heron'], 'Our own drawing.', {
      recipe: [{ kind: 'areaLift', id: 'heron-ground', ...step, at: { xPx: 8, yPx: 8 }, tolerance: 'auto', enclosed: false, soft: true }],
      assembly: { by: 'height', sizeMm: 70, turnDeg: 0, films: film('Reed green', '#3f5b3a') },
      layout: { ...base.layout, sheet: SHEETS[0], box: { on: true, marginMm: 3 }, copies: 6, gapMm: 3 },
    }),
    duck: jobFor('Duck race soap', 'Soap bar', ['duck race', 'soap'], 'Our own drawing.', {
      recipe: [{ kind: 'colourLift', id: 'duck-ground', ...step, colour: '#ffffff', tolerance: 6, soft: true }],
      separation: { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' },
      assembly: { by: 'width', sizeMm: 55, turnDeg: 0, films: film('Stencil film', '#6f8aa5') },
      layout: { ...base.layout, sheet: SHEETS[3], box: { on: true, marginMm: 8 }, copies: 4, gapMm: 2 },
    }),
    buoy: jobFor('Bell buoy tote', 'Tote bag', ['buoy', 'scan'], 'Ink drawing from the sailing school; asked, may be used.'),
    lettering: jobFor('Bread, rope and boats', 'Wooden sign', ['lettering', 'sign'], 'Text from the harbour shop.'),
    lighthouse: jobFor('Lighthouse mug', 'Mug', ['lighthouse', 'mug'], 'Our own painting.'),
    sign: jobFor('Landing stage', 'Shirt, dark', ['sign', 'photo'], 'Photo of the sign on the landing stage.', {}),
  };
}
