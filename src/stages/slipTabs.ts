import type { Job } from '../core/job/job.ts';
import { pictureOf, tracedPart } from '../core/job/tracedPart.ts';
import { mm } from '../core/units/length.ts';
import { mirroringOf } from '../core/layout/mirroringOf.ts';
import { isLaidOut } from '../core/run/isLaidOut.ts';
import { trimNumber, formatLength, type LengthUnit } from '../core/units/parseLength.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import type { SlipTab } from '../ui/RoutingSlip.vue';
import { STAGES, type Stage } from './stages.ts';

export interface SlipState {
  readonly job: Job;
  readonly picture: OpenedPicture | undefined;
  readonly result: RunResult | undefined;
  readonly unit: LengthUnit;
  /** The traced part that is worked on; the lowest when absent. */
  readonly partId?: string | undefined;
}

const plural = (count: number, one: string, many: string): string => `${count.toLocaleString('en')} ${count === 1 ? one : many}`;

/** The six tabs of the routing slip, each with its one live fact. */
export function slipTabs(state: SlipState): SlipTab[] {
  return STAGES.map(({ stage, name }) => {
    const places = stage === 'layout' ? placesOf(state) : 0;
    return { stage, name, fact: FACTS[stage](state), places };
  });
}

/** Places to look at: findings of the cut check, and a sheet that does not fit or goes against its process. */
function placesOf({ job, result }: SlipState): number {
  const cut = result?.cut;
  if (cut === undefined) return 0;
  return cut.findings.length + (isLaidOut(cut) ? 0 : 1) + (mirroringOf(job.layout, job.process).against ? 1 : 0);
}

const FACTS: { readonly [S in Stage]: (state: SlipState) => string } = {
  // While the picture is read, the job knows its size.
  picture: ({ job, partId, picture = pictureOf(job, tracedPart(job, partId)) }) => (picture === undefined ? 'no picture yet' : `${picture.widthPx.toLocaleString('en')} × ${picture.heightPx.toLocaleString('en')} px`),
  clean: ({ job, partId, result }) => {
    const { recipe } = tracedPart(job, partId);
    const steps = recipe.length === 0 ? 'as it came' : plural(recipe.length, 'step', 'steps');
    const specks = result?.clean.steps.reduce((sum, step) => sum + (step.facts['specks'] ?? 0), 0) ?? 0;
    return specks > 0 ? `${steps} · ${plural(specks, 'speck', 'specks')}` : steps;
  },
  separate: ({ job, partId, result }) => {
    const films = result?.cut?.films;
    if (films === undefined) return result?.problem !== undefined ? 'needs a look' : tracedPart(job, partId).separation.way === 'oneTone' ? 'one colour' : 'several colours';
    const pieces = films.reduce((sum, film) => sum + film.pieces, 0);
    return `${films.length === 1 ? 'one colour' : `${films.length} colours`} · ${plural(pieces, 'piece', 'pieces')}`;
  },
  assemble: ({ job, result, unit }) => {
    const design = result?.cut?.design;
    const { by, sizeMm } = tracedPart(job).size;
    if (design === undefined) return `${by} ${formatLength(mm(sizeMm), unit)}`;
    const [w, h] = unit === 'mm' ? [design.widthMm, design.heightMm] : [design.widthMm / 25.4, design.heightMm / 25.4];
    return `${trimNumber(w, unit === 'mm' ? 0 : 2)} × ${trimNumber(h, unit === 'mm' ? 0 : 2)} ${unit}`;
  },
  layout: ({ job, result }) => {
    const mirrored = mirroringOf(job.layout, job.process).mirrored ? 'mirrored' : 'reads as it is';
    if (result?.cut !== undefined && !isLaidOut(result.cut)) return `does not fit, ${mirrored}`;
    if (result?.problem !== undefined) return `no sheet, ${mirrored}`;
    const { print } = result?.cut ?? {};
    if (print !== undefined) return `${plural(print.pages.length, 'page', 'pages')}, ${plural(print.pages.flat().length, 'motif', 'motifs')}`;
    const sheets = result?.cut?.sheets.length ?? 1;
    return `${sheets > 1 ? plural(sheets, 'sheet', 'sheets') : plural(job.layout.copies, 'copy', 'copies')}, ${mirrored}`;
  },
  handoff: ({ job, result }) => (result === undefined && job.pictures.length > 0 ? 'being made…' : result?.cut === undefined ? 'nothing to hand off' : isLaidOut(result.cut) ? 'ready' : 'waits for the layout'),
};
