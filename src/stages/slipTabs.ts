import type { Job } from '../core/job/job.ts';
import { pictureOf, tracedPart } from '../core/job/tracedPart.ts';
import { mm } from '../core/units/length.ts';
import { mirroringOf } from '../core/layout/mirroringOf.ts';
import { isLaidOut } from '../core/run/isLaidOut.ts';
import { numberWords, formatLength, type LengthUnit } from '../core/units/parseLength.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import type { SlipTab } from '../ui/RoutingSlip.vue';
import { STAGES, type Stage } from './stages.ts';
import { counted, grouped, say } from '../core/words/say.ts';

export interface SlipState {
  readonly job: Job;
  readonly picture: OpenedPicture | undefined;
  readonly result: RunResult | undefined;
  readonly unit: LengthUnit;
  /** The traced part that is worked on; the lowest when absent. */
  readonly partId?: string | undefined;
}


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
  picture: ({ job, partId, picture = pictureOf(job, tracedPart(job, partId)) }) => (picture === undefined ? say('no picture yet') : `${grouped(picture.widthPx)} × ${grouped(picture.heightPx)} px`),
  clean: ({ job, partId, result }) => {
    const { recipe } = tracedPart(job, partId);
    const steps = recipe.length === 0 ? say('as it came') : counted(recipe.length, say('step'), say('steps'));
    const specks = result?.clean.steps.reduce((sum, step) => sum + (step.facts['specks'] ?? 0), 0) ?? 0;
    return specks > 0 ? `${steps} · ${counted(specks, say('speck'), say('specks'))}` : steps;
  },
  separate: ({ job, partId, result }) => {
    const films = result?.cut?.films;
    if (films === undefined) return result?.problem !== undefined ? say('needs a look') : tracedPart(job, partId).separation.way === 'oneTone' ? say('one colour') : say('several colours');
    const pieces = films.reduce((sum, film) => sum + film.pieces, 0);
    return `${films.length === 1 ? say('one colour') : say`${films.length} colours`} · ${counted(pieces, say('piece'), say('pieces'))}`;
  },
  assemble: ({ job, result, unit }) => {
    const design = result?.cut?.design;
    const { by, sizeMm } = tracedPart(job).size;
    if (design === undefined) return by === 'width' ? say`width ${formatLength(mm(sizeMm), unit)}` : say`height ${formatLength(mm(sizeMm), unit)}`;
    const [w, h] = unit === 'mm' ? [design.widthMm, design.heightMm] : [design.widthMm / 25.4, design.heightMm / 25.4];
    return `${numberWords(w, unit === 'mm' ? 0 : 2)} × ${numberWords(h, unit === 'mm' ? 0 : 2)} ${unit}`;
  },
  layout: ({ job, result }) => {
    const mirrored = mirroringOf(job.layout, job.process).mirrored ? say('mirrored') : say('reads as it is');
    if (result?.cut !== undefined && !isLaidOut(result.cut)) return say`does not fit, ${mirrored}`;
    if (result?.problem !== undefined) return say`no sheet, ${mirrored}`;
    const { print } = result?.cut ?? {};
    if (print !== undefined) return `${counted(print.pages.length, say('page'), say('pages'))}, ${counted(print.pages.flat().length, say('motif'), say('motifs'))}`;
    const sheets = result?.cut?.sheets.length ?? 1;
    return `${sheets > 1 ? counted(sheets, say('sheet'), say('sheets')) : counted(job.layout.copies, say('copy'), say('copies'))}, ${mirrored}`;
  },
  handoff: ({ job, result }) => (result === undefined && job.pictures.length > 0 ? say('being made…') : result?.cut === undefined ? say('nothing to hand off') : isLaidOut(result.cut) ? say('ready') : say('waits for the layout')),
};
