import type { Design } from '../assemble/design.ts';
import { placeOnBlank } from '../assemble/placeOnBlank.ts';
import { bentCurves } from '../combine/bendCurves.ts';
import type { Film } from '../film/film.ts';
import { followedBy, rotation, translation } from '../geometry/affine.ts';
import { bent, fanOf } from '../geometry/fan.ts';
import type { Job } from '../job/job.ts';
import { boundsOf, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { cutRoute } from '../layout/cutRoute.ts';
import type { CutPlan } from '../layout/cutPlan.ts';
import { cutAreaOf } from '../layout/laySheet.ts';
import { radiiOf } from '../process/blanks.ts';
import { placementGuide, type PlacementGuide, type Trimmed } from '../proof/placementGuide.ts';

/** What is told as the film of a placement guide. */
export const GUIDE_FILM: Film = { id: 'placement-guide', name: 'Placement guide', colour: '#d8cbb0' };

type GuideJob = Pick<Job, 'blank' | 'place' | 'layout'>;

/** The guide of a job as it is cut from card, at the blank's upper left; undefined where there is no room for one. */
export function guideOf({ blank, place, layout }: GuideJob, design: Pick<Design, 'widthMm' | 'heightMm'>): PlacementGuide | undefined {
  const at = placeOnBlank(place, blank, design);
  // Film is trimmed along its box, where it has one as large as itself.
  const margin = layout.box.on && layout.box.around !== 'blank' && layout.box.around !== 'piece' ? layout.box.marginMm : 0;
  const film: Trimmed = { xMm: at.xMm - margin, yMm: at.yMm - margin, widthMm: design.widthMm + 2 * margin, heightMm: design.heightMm + 2 * margin };
  const guide = placementGuide(blank, film);
  const radii = radiiOf(blank);
  const fan = radii === undefined ? undefined : fanOf(radii.upperMm, radii.lowerMm, blank, { xMm: 0, yMm: 0 });
  return guide === undefined || fan === undefined ? guide : { ...guide, curves: bentCurves(guide.curves, (x, y) => bent(fan, x, y)) };
}

/** The cut of the guide on a sheet like that of the job, in its origin corner, turned by a quarter where it fits so alone; undefined where it does not. */
export function guidePlan(job: GuideJob, design: Pick<Design, 'widthMm' | 'heightMm'>): CutPlan | undefined {
  const guide = job.layout.guide === true ? guideOf(job, design) : undefined;
  if (guide === undefined) return undefined;
  const { sheet } = job.layout;
  const lying = laid(guide.curves, cutAreaOf(sheet), sheet.origin);
  return lying === undefined ? undefined : { film: GUIDE_FILM, widthMm: sheet.widthMm, heightMm: sheet.heightMm, runs: [{ role: 'cut', ...cutRoute(lying) }] };
}

function laid(curves: Curves, area: ReturnType<typeof cutAreaOf>, origin: Job['layout']['sheet']['origin']): Curves | undefined {
  for (const turned of [curves, transformCurves(curves, rotation(Math.PI / 2, 0, 0))]) {
    const box = boundsOf(turned);
    if (box === undefined) return undefined;
    const [widthMm, heightMm] = [box.right - box.left, box.bottom - box.top];
    if (widthMm > area.widthMm || heightMm > area.heightMm) continue;
    const x = origin.endsWith('Right') ? area.xMm + area.widthMm - widthMm : area.xMm;
    const y = origin.startsWith('bottom') ? area.yMm + area.heightMm - heightMm : area.yMm;
    return transformCurves(turned, followedBy(translation(-box.left, -box.top), translation(x, y)));
  }
  return undefined;
}
