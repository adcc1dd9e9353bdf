import type { Design } from '../assemble/design.ts';
import { fanOnBlank, placeOnBlank } from '../assemble/placeOnBlank.ts';
import { bentCurves } from '../combine/bendCurves.ts';
import type { Film } from '../film/film.ts';
import { rotation, translation } from '../geometry/affine.ts';
import { bentBy } from '../geometry/fan.ts';
import type { RectMm } from '../geometry/rectMm.ts';
import type { Job } from '../job/job.ts';
import type { Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { grown, rectAround } from '../layout/boxes.ts';
import { cutRoute } from '../layout/cutRoute.ts';
import type { CutPlan } from '../layout/cutPlan.ts';
import { cutAreaOf, usedRect } from '../layout/laySheet.ts';
import { placementGuide, type PlacementGuide } from '../proof/placementGuide.ts';
import { say } from '../words/say.ts';

/** What is told as the film of a placement guide. */
export const GUIDE_FILM: Film = { id: 'placement-guide', name: say('Placement guide'), colour: '#d8cbb0' };

type GuideJob = Pick<Job, 'blank' | 'place' | 'layout'>;

/** The guide of a job as it is cut from card, at the blank's upper left; undefined where there is no room for one. */
export function guideOf({ blank, place, layout }: GuideJob, design: Pick<Design, 'widthMm' | 'heightMm'>): PlacementGuide | undefined {
  const at = placeOnBlank(place, blank, design);
  // Film is trimmed along its box, where it has one as large as itself.
  const margin = layout.box.on && layout.box.around !== 'blank' && layout.box.around !== 'piece' ? layout.box.marginMm : 0;
  const guide = placementGuide(blank, grown({ ...at, widthMm: design.widthMm, heightMm: design.heightMm }, margin));
  const fan = fanOnBlank(blank, { xMm: 0, yMm: 0 });
  return guide === undefined || fan === undefined ? guide : { ...guide, curves: bentCurves(guide.curves, bentBy(fan)) };
}

/** The cut of the guide on a sheet like that of the job, in its origin corner, turned by a quarter where it fits so alone; undefined where it does not. */
export function guidePlan(job: GuideJob, design: Pick<Design, 'widthMm' | 'heightMm'>): CutPlan | undefined {
  const guide = job.layout.guide === true ? guideOf(job, design) : undefined;
  if (guide === undefined) return undefined;
  const { sheet } = job.layout;
  const lying = laid(guide.curves, cutAreaOf(sheet), sheet.origin);
  return lying === undefined ? undefined : { film: GUIDE_FILM, widthMm: sheet.widthMm, heightMm: sheet.heightMm, runs: [{ role: 'cut', ...cutRoute(lying) }] };
}

function laid(curves: Curves, area: RectMm, origin: Job['layout']['sheet']['origin']): Curves | undefined {
  for (const turned of [curves, transformCurves(curves, rotation(Math.PI / 2, 0, 0))]) {
    const box = rectAround(turned);
    if (box === undefined || box.widthMm > area.widthMm || box.heightMm > area.heightMm) continue;
    const { xMm, yMm } = usedRect(origin, area, box.widthMm, box.heightMm);
    return transformCurves(turned, translation(xMm - box.xMm, yMm - box.yMm));
  }
  return undefined;
}
