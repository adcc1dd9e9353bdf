import { curvesOfRole, type CutPlan, type PathRole } from '../../core/layout/cutPlan.ts';
import { ringCount } from '../../core/outline/curves.ts';
import { writeDxf, type DxfLayer } from './writeDxf.ts';
import { writeDxfR12 } from './writeDxfR12.ts';

/** What the names of layers end in. */
const ROLE_NAMES: Readonly<Record<PathRole, string>> = { cut: '', box: 'BOXES', weedLine: 'WEED-LINES', mark: 'MARKS', fold: 'FOLDS', print: 'PRINT' };

/** Release 2000 keeps curves as splines; release 12, which every reader knows, has sides and arcs. */
export type DxfRelease = '2000' | '12';

/**
 * All sheets of a job as one DXF: for each film a layer, and one for each other role, at the place where the film lies on its sheet, so that the layers line
 * up; further sheets of a film on layers of their own.
 */
export function sheetsDxf(plans: readonly CutPlan[], release: DxfRelease = '2000'): string {
  const layers = plans.flatMap((plan) =>
    (Object.keys(ROLE_NAMES) as PathRole[]).flatMap((role): DxfLayer[] => {
      const curves = curvesOfRole(plan, role);
      return role !== 'cut' && ringCount(curves) === 0 ? [] : [{ film: plan.film, ending: [ROLE_NAMES[role], plan.number === undefined || plan.number === 1 ? '' : `SHEET-${plan.number}`].filter((word) => word !== '').join('-'), curves }];
    }),
  );
  const heightMm = Math.max(...plans.map((plan) => plan.heightMm));
  return release === '12' ? writeDxfR12(layers, heightMm) : writeDxf(layers, heightMm);
}
