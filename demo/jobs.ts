import { BLANKS } from '../src/core/process/blanks.ts';
import type { Film } from '../src/core/film/film.ts';
import type { Job } from '../src/core/job/job.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { tracedPart, withPart, type TracedPart } from '../src/core/job/tracedPart.ts';
import { USUAL_WEED_LINES } from '../src/core/layout/layout.ts';
import { SHEETS } from '../src/core/layout/sheetStock.ts';

export type DemoName = 'crest' | 'oneFilm' | 'buoy' | 'lettering' | 'heron' | 'duck' | 'lighthouse' | 'sign';

function jobFor(name: string, blankName: string, keywords: string[], note: string, { layout, ...change }: Partial<TracedPart & Pick<Job, 'layout'>> = {}): Job {
  const choice = BLANKS.find(({ blank }) => blank.name === blankName);
  if (choice === undefined) throw new RangeError(`no blank ${blankName}`);
  const job = newJob(name);
  const part = tracedPart(job);
  return {
    ...withPart(job, { ...part, size: { ...part.size, sizeMm: choice.widthMm }, ...change }),
    keywords,
    rights: { note, use: 'allowed' },
    blank: choice.blank,
    process: choice.process,
    ...(layout === undefined ? {} : { layout }),
  };
}

const step = { enabled: true, v: 1 } as const;
const film = (name: string, colour: string): Film[] => [{ id: 'film-1', name, colour }];

/** The demo's jobs: four finished, the others pictures waiting. Each is named after its picture but for the crest in one film. */
export function demoJobs(): Record<DemoName, Job> {
  const base = newJob('demo');
  return {
    crest: jobFor('Crew crest', 'Shirt, adult L', ['regatta', 'crew', 'shirt'], 'Drawn by the rowing club for its own crew.', {
      recipe: [
        { kind: 'areaLift', id: 'crest-ground', ...step, at: { xPx: 20, yPx: 20 }, tolerance: 'auto', enclosed: false, soft: true },
        { kind: 'sweep', id: 'crest-sweep', ...step, speckMm2: 1, pinholeMm2: 1 },
      ],
      separation: {
        way: 'flat',
        count: 6,
        meet: 'inset',
        reachMm: 0.3,
        known: [{ colour: '#fefffe', film: 'white' }, { colour: '#213760', film: 'navy' }, { colour: '#bf5430', film: 'rust' }, { colour: '#e3bf73', film: 'sand' }, { colour: '#cacac7', film: 'navy' }],
      },
      size: { by: 'width', sizeMm: 240, turnDeg: 0 },
      layout: { ...base.layout, arrange: 'nested', turns: 'none', weedLines: USUAL_WEED_LINES },
      films: [{ id: 'white', name: 'Sail white', colour: '#f6f5f0' }, { id: 'navy', name: 'Harbour navy', colour: '#22375f' }, { id: 'rust', name: 'Rust', colour: '#bf5430' }, { id: 'sand', name: 'Sand', colour: '#e3bf73' }],
    }),
    oneFilm: jobFor('Crest, one film', 'Shirt, adult L', ['regatta', 'crew', 'shirt'], 'The crest once more, for the helpers’ shirts.', {
      recipe: [
        { kind: 'crop', id: 'one-crop', ...step, rect: { xPx: 100, yPx: 20, widthPx: 980, heightPx: 1200 } },
        { kind: 'areaLift', id: 'one-ground', ...step, at: { xPx: 130, yPx: 60 }, tolerance: 'auto', enclosed: false, soft: true },
        { kind: 'sweep', id: 'one-sweep', ...step, speckMm2: 1, pinholeMm2: 1 },
      ],
      size: { by: 'width', sizeMm: 240, turnDeg: 0 },
      films: film('Harbour navy', '#22375f'),
    }),
    heron: jobFor('Heron glasses', 'Drinking glass', ['regatta', 'glass', 'heron'], 'Our own drawing.', {
      recipe: [{ kind: 'areaLift', id: 'heron-ground', ...step, at: { xPx: 8, yPx: 8 }, tolerance: 'auto', enclosed: false, soft: true }],
      size: { by: 'height', sizeMm: 70, turnDeg: 0 },
      films: film('Reed green', '#3f5b3a'),
      layout: { ...base.layout, sheet: SHEETS[0], box: { on: true, marginMm: 3 }, copies: 6, gapMm: 3 },
    }),
    duck: jobFor('Duck race soap', 'Soap bar', ['duck race', 'soap'], 'Our own drawing.', {
      recipe: [{ kind: 'colourLift', id: 'duck-ground', ...step, colour: '#ffffff', tolerance: 6, soft: true }],
      separation: { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' },
      size: { by: 'width', sizeMm: 55, turnDeg: 0 },
      films: film('Stencil film', '#6f8aa5'),
      layout: { ...base.layout, sheet: SHEETS[3], box: { on: true, marginMm: 8 }, copies: 4, gapMm: 2 },
    }),
    buoy: jobFor('Bell buoy tote', 'Tote bag', ['buoy', 'scan'], 'Ink drawing from the sailing school; asked, may be used.'),
    lettering: jobFor('Bread, rope and boats', 'Wooden sign', ['lettering', 'sign'], 'Text from the harbour shop.'),
    lighthouse: jobFor('Lighthouse mug', 'Mug', ['lighthouse', 'mug'], 'Our own painting.', {
      separation: { way: 'oneTone', source: 'notClear', threshold: 'auto', inkIs: 'auto' },
      size: { by: 'height', sizeMm: 80, turnDeg: 0 },
      layout: { ...base.layout, sheet: SHEETS[3], box: { on: false, marginMm: 6 }, fill: true, gapMm: 6 },
    }),
    sign: jobFor('Landing stage', 'Shirt, dark', ['sign', 'photo'], 'Photo of the sign on the landing stage.', {}),
  };
}
