import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Job } from '../job/job.ts';
import { materialOf } from '../job/materials.ts';
import type { OrderState } from '../job/order.ts';
import { cutPlanOf } from '../layout/cutPlan.ts';
import { knifeWay } from '../layout/knifeWay.ts';
import type { StencilUse } from '../layout/layout.ts';
import type { Sheet } from '../layout/laySheet.ts';
import { mirroringOf } from '../layout/mirroringOf.ts';
import { isByItself, layoutFor } from '../layout/layoutFor.ts';
import type { SheetStock } from '../layout/sheetStock.ts';
import type { PlacementGuide } from '../proof/placementGuide.ts';
import { guideOf } from '../run/guidePlan.ts';
import { leastDownMm, MOST_DIFFERENT } from '../layout/stencilUse.ts';
import { weedingPlan } from '../layout/wasteRegions.ts';
import { sealPlan } from '../print/sealPlan.ts';
import type { CutSettings, Material, PressSettings } from '../process/material.ts';
import { PROCESSES } from '../process/processes.ts';
import { proofMeasures } from '../proof/proofWords.ts';
import type { CutResult } from '../run/runJob.ts';

/** What a film of a job takes. */
export interface TicketFilm {
  readonly name: string;
  readonly colour: string;
  readonly material: string;
  readonly sheets: number;
  /** Of the roll, or of whole sheets; from the edge that the machine begins at. */
  readonly lengthMm: number;
  readonly widthMm: number;
  /** Its own sheet and number of copies, where it is laid out by itself. */
  readonly own?: { readonly sheet: string; readonly copies: number } | undefined;
  /** In the shop's own money; absent where the material has no price. */
  readonly cost?: number | undefined;
  readonly cut: CutSettings;
  readonly cutMm: number;
  readonly cutS: number;
  readonly weeding: { readonly bits: number; readonly picked: number; readonly hard: number; readonly takesS: number };
}

/** One thing to do after cutting or printing, in order, with the wait that it has. */
export type ApplyStep =
  | { readonly what: 'press'; readonly film: string; readonly press: PressSettings; readonly waitMin: number }
  | { readonly what: 'lay'; readonly film: string; readonly waitMin: 0 }
  | { readonly what: 'dry' | 'coat' | 'final'; readonly coat?: number | undefined; readonly waitMin: number };

/** Everything that goes with a job on its way through the shop. */
export interface Ticket {
  readonly name: string;
  readonly code?: string | undefined;
  readonly state: OrderState;
  readonly customer: string;
  readonly due?: string | undefined;
  readonly notes: string;
  readonly rights: Job['rights'];
  readonly blank: string;
  readonly process: Job['process'];
  readonly widthMm: number;
  readonly heightMm: number;
  readonly place: ReturnType<typeof proofMeasures>;
  readonly mirrored: boolean;
  readonly againstProcess: boolean;
  readonly sheet: Pick<SheetStock, 'name' | 'widthMm' | 'heightMm'>;
  readonly copies: number;
  readonly machine?: string | undefined;
  /** Whether it was bent for a blank that tapers: then its film looks bent, and lies level on the blank. */
  readonly isBent?: boolean | undefined;
  /** What a guide of card is laid at, where one is cut with the sheets. */
  readonly guideAt?: PlacementGuide['at'] | undefined;
  /** A stencil that is laid more than once: half of it, or so far from one place to the next. */
  readonly laid?: { readonly manner: StencilUse['manner']; readonly everyMm: number; readonly downMm?: number } | undefined;
  /** Lowest first; none where the job is printed. */
  readonly films: readonly TicketFilm[];
  /** Pages and motifs, where the job is printed. */
  readonly pages?: { readonly count: number; readonly motifs: number; readonly paper: string } | undefined;
  /** Of all films whose material has a price. */
  readonly cost?: number | undefined;
  readonly steps: readonly ApplyStep[];
}

/** The ticket of a job: what is known of it, what it takes and what is done with it. */
export function ticketOf(job: Job, cut: CutResult, library: PolygonLibrary): Ticket {
  const { order = {}, layout, blank, process, place } = job;
  const { mirrored, against } = mirroringOf(layout, process);
  const isPrinted = cut.print !== undefined;
  const films = isPrinted ? [] : cut.rack.map((film) => filmOf(job, film, cut.sheets.filter(({ filmId }) => filmId === film.id), library));
  const costs = films.flatMap(({ cost }) => (cost === undefined ? [] : [cost]));
  return {
    name: job.name,
    ...(order.code === undefined ? {} : { code: order.code }),
    state: order.state ?? 'asked',
    customer: order.customer ?? '',
    ...(order.due === undefined ? {} : { due: order.due }),
    notes: order.notes ?? '',
    rights: job.rights,
    blank: blank.name,
    process,
    widthMm: cut.design.widthMm,
    heightMm: cut.design.heightMm,
    place: proofMeasures(blank, place, cut.design),
    mirrored,
    againstProcess: against,
    sheet: layout.sheet,
    copies: layout.copies,
    ...(layout.machine === undefined ? {} : { machine: layout.machine.name }),
    ...laidOf(job, cut),
    ...(cut.laid.fan === undefined ? {} : { isBent: true }),
    ...(cut.guide === undefined ? {} : { guideAt: guideOf(job, cut.design)?.at }),
    films,
    ...(cut.print === undefined ? {} : { pages: { count: cut.print.pages.length, motifs: cut.print.pages.flat().length, paper: materialOf(job).name } }),
    ...(costs.length === 0 ? {} : { cost: costs.reduce((sum, cost) => sum + cost, 0) }),
    steps: stepsOf(job, cut, isPrinted),
  };
}

/** How a stencil is laid more than once; half of one whose halves are not alike was cut whole, and is laid once. */
function laidOf({ layout: { stencil }, process }: Job, { laid: { design }, sheets }: Pick<CutResult, 'laid' | 'sheets'>): Pick<Ticket, 'laid'> {
  if (stencil === undefined || !PROCESSES[process].artIsOpening || (sheets[0]?.halvesDiffer ?? 0) > MOST_DIFFERENT) return {};
  const { manner, everyMm = design.widthMm, downMm, holeMm } = stencil;
  return { laid: { manner, everyMm, ...(downMm === undefined ? {} : { downMm: Math.max(downMm, leastDownMm(design.heightMm, holeMm)) }) } };
}

function filmOf(job: Job, film: { readonly id: string; readonly name: string; readonly colour: string }, sheets: readonly Sheet[], library: PolygonLibrary): TicketFilm {
  const material = materialOf(job, film.id);
  const ways = sheets.map((sheet) => knifeWay(cutPlanOf(sheet, film), material.cut, job.layout.machine));
  const plans = sheets.map((sheet) => weedingPlan(library, sheet));
  const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);
  const { sheet, copies } = layoutFor(job.layout, film.id);
  const { widthMm, heightMm, origin } = sheet;
  const isRoll = material.lengthMm === undefined;
  // What lies on remnants takes no new film.
  const fresh = sheets.filter(({ remnant }) => remnant === undefined);
  const lengthMm = isRoll ? sum(fresh.map(({ used }) => (origin.startsWith('bottom') ? heightMm - used.yMm : used.yMm + used.heightMm))) : fresh.length * heightMm;
  return {
    name: film.name,
    colour: film.colour,
    material: material.name,
    sheets: sheets.length,
    ...(isByItself(job.layout, film.id) ? { own: { sheet: sheet.name, copies } } : {}),
    lengthMm,
    widthMm,
    ...costOf(material, widthMm, lengthMm),
    cut: material.cut,
    cutMm: sum(ways.map(({ cutMm }) => cutMm)),
    cutS: sum(ways.map(({ atS }) => atS[atS.length - 1] ?? 0)),
    weeding: {
      bits: sum(plans.map(({ waste }) => waste.length)),
      picked: sum(plans.map(({ picked }) => picked)),
      hard: sum(plans.map(({ waste }) => waste.filter(({ ease }) => ease === 'hard').length)),
      takesS: sum(plans.map(({ takesS }) => takesS)),
    },
  };
}

const MM2_A_M2 = 1e6;
const costOf = ({ pricePerM2 }: Material, widthMm: number, lengthMm: number): { cost?: number } => (pricePerM2 === undefined ? {} : { cost: (pricePerM2 * widthMm * lengthMm) / MM2_A_M2 });

const SECONDS_A_MINUTE = 60;

/** Films go on from the lowest; prints are dried and sealed. */
function stepsOf(job: Job, cut: CutResult, isPrinted: boolean): ApplyStep[] {
  if (isPrinted) {
    const { seal } = materialOf(job);
    return seal === undefined ? [] : sealPlan(seal);
  }
  return cut.rack.map(({ id, name }): ApplyStep => {
    const { press } = materialOf(job, id);
    return press === undefined ? { what: 'lay', film: name, waitMin: 0 } : { what: 'press', film: name, press, waitMin: press.timeS / SECONDS_A_MINUTE };
  });
}
