import { checkLimits } from '../core/check/cutCheck.ts';
import { nestedRoom } from '../core/layout/nestedRoom.ts';
import { stockOutline } from '../core/layout/remnants.ts';
import { workingSize } from '../core/check/workingSize.ts';
import type { Job } from '../core/job/job.ts';
import { materialOf } from '../core/job/materials.ts';
import { tracedPart } from '../core/job/tracedPart.ts';
import { cutPlanOf } from '../core/layout/cutPlan.ts';
import { penDrawing, testCut } from '../core/layout/tryOuts.ts';
import { knifeWay } from '../core/layout/knifeWay.ts';
import { layoutFor } from '../core/layout/layoutFor.ts';
import { mirroringOf } from '../core/layout/mirroringOf.ts';
import { printedPlan } from '../core/layout/printedPlan.ts';
import { nestFilm } from '../core/layout/nestSheets.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import { layTogether } from '../core/layout/together.ts';
import { weedingPlan } from '../core/layout/wasteRegions.ts';
import { areaOnBlank, pagePictures, proofOnBlank, warningsOfPrint } from '../core/run/proofOnBlank.ts';
import { cutPlansOf, type CutResult } from '../core/run/runJob.ts';
import { AppError } from '../core/errors/appError.ts';
import { writePlotter } from '../formats/plotter/writePlotter.ts';
import { writePng } from '../formats/picture/writePng.ts';
import { togetherFiles } from '../formats/svg/togetherFiles.ts';
import { capitalMmOf } from '../core/proof/proofWords.ts';
import { pxPerMm } from '../core/units/length.ts';
import type { ShapeTools } from './designShapes.ts';
import { drain } from './drain.ts';
import { fileLook } from './fileLook.ts';
import { jobFiles, type JobFile } from './jobFiles.ts';
import { jobTicket, jobTicketPdf } from './jobTicket.ts';
import { proofLabel } from './proofLabel.ts';
import type { FilesRequest, LayoutCalls, PrintsView } from './layoutProtocol.ts';
import type { OfJob, Quality } from './protocol.ts';
import { shareOfTime } from './shareOfTime.ts';
import { ownCopy } from './views.ts';

/** All clean art of a job by its objects, and what is cut of it. */
export interface WholeJob {
  readonly cleans: ReadonlyMap<string, CleanResult>;
  readonly cut: CutResult;
}

/** The art of a job that is printed, to be shown on its pages. */
function printsView(job: Job, { cleans, cut }: WholeJob): PrintsView {
  const printed = pagePictures(job, cut, cleans) ?? [];
  return { key: [...cleans.values()].map(({ key }) => key).join(), pictures: printed.map(({ id, picture, toDesign, below }) => ({ id, toDesign, picture: ownCopy(picture), below: below.map(({ filmId }) => filmId) })), warnings: warningsOfPrint(job, printed) };
}

/** What the answers about sheets, pages and blanks are made from. */
interface Asked {
  readonly whole: (of: OfJob, quality: Quality) => Promise<WholeJob>;
  readonly polygons: ShapeTools['polygons'];
  readonly font: ShapeTools['font'];
  /** Tells when a call that begins now is no longer wanted. */
  readonly untilCancelled: () => () => boolean;
}

/** The calls about sheets, pages and the finished blank. */
export function layoutAnswers({ whole, polygons, font, untilCancelled }: Asked): LayoutCalls {
  async function filesOf({ kinds, name, date, ...of }: FilesRequest): Promise<JobFile[]> {
    const { cleans, cut } = await whole(of, 'final');
    const { art } = cleans.get(tracedPart(of.job, of.part).id) as CleanResult;
    const files: JobFile[] = [];
    for await (const file of jobFiles(kinds, { job: of.job, cut, arts: cleans, art, name, date, tools: { polygons, font }, encode: async (picture, scale) => writePng(picture, scale) })) files.push(file);
    return files;
  }
  return {
    prints: async (of) => printsView(of.job, await whole(of, 'preview')),
    onBlank: async ({ sidePx, turnRad = 0, filmsOn, ...of }) => {
      const { cleans, cut } = await whole(of, 'final');
      return proofOnBlank(of.job, cut, cleans, { sidePx, turnRad, ...(filmsOn === undefined ? {} : { filmsOn }) });
    },
    onArea: async ({ sidePx, ...of }) => {
      const { cleans, cut } = await whole(of, 'final');
      return areaOnBlank(of.job, cut, cleans, sidePx);
    },
    proofPng: async ({ sidePx, turnRad = 0, words, ...of }) => {
      const { cleans, cut } = await whole(of, 'final');
      const label = await proofLabel(words, capitalMmOf(of.job.blank), { polygons, font });
      const { picture, pxPerMm: scale } = proofOnBlank(of.job, cut, cleans, { sidePx, turnRad, label });
      return writePng(picture, pxPerMm(scale));
    },
    files: async (request) => filesOf(request),
    lookInto: async ({ kind, at, ...request }) => {
      const { cut } = await whole(request, 'final');
      return fileLook(kind, await filesOf({ ...request, kinds: [kind] }), at, cut, polygons);
    },
    ticket: async (of) => {
      const { cleans, cut } = await whole(of, 'final');
      return jobTicket({ job: of.job, cut, arts: cleans, tools: { polygons, font } });
    },
    ticketPdf: async ({ unit, page, date, ...of }) => {
      const { cleans, cut } = await whole(of, 'final');
      return jobTicketPdf({ job: of.job, cut, arts: cleans, tools: { polygons, font }, encode: async (picture) => writePng(picture) }, { unit, page, date });
    },
    program: async ({ filmId, sheet: number, what, done, ...of }) => {
      const { cut } = await whole(of, 'final');
      const plan = cutPlansOf(cut).find(({ film, number: own = 1 }) => film.id === filmId && own === number);
      if (plan === undefined) throw new AppError('filmMissing', { film: filmId });
      const own = materialOf(of.job, filmId).cut;
      if (what === 'pen') return writePlotter(penDrawing(plan), { fine: of.job.handOff.plotter?.fine, cut: { ...own, tool: 'pen' }, done });
      return writePlotter(what === 'test' ? testCut(plan.film) : plan, { fine: of.job.handOff.plotter?.fine, cut: own, compensated: own, done });
    },
    printedProgram: async ({ page, toBed, bed, done, ...of }) => {
      const { cut } = await whole(of, 'final');
      const plan = cut.print === undefined ? undefined : printedPlan(cut.print, page, toBed, bed, cut.sheets[page - 1]?.weedLines);
      if (plan === undefined) throw new AppError('nothingToCut');
      const own = materialOf(of.job).cut;
      return writePlotter(plan, { fine: of.job.handOff.plotter?.fine, cut: own, compensated: own, done });
    },
    nest: async ({ filmId, seconds, ...of }, onProgress) => {
      const isStale = untilCancelled();
      const { cut } = await whole(of, 'final');
      const { layout, process } = of.job;
      return drain(nestFilm(await polygons(), cut.laid.design, filmId, { ...layoutFor(layout, filmId), mirrored: mirroringOf(layout, process).mirrored }, shareOfTime(seconds)), isStale, onProgress);
    },
    sheetPlan: async ({ filmId, sheet: number, ...of }) => {
      const { cut } = await whole(of, 'final');
      const sheet = cut.sheets.find((each) => each.filmId === filmId && (each.number ?? 1) === number);
      const film = cut.rack.find(({ id }) => id === filmId);
      if (sheet === undefined || film === undefined) return undefined;
      const way = knifeWay(cutPlanOf(sheet, film), materialOf(of.job, filmId).cut, of.job.layout.machine);
      return { way, weeding: weedingPlan(await polygons(), sheet) };
    },
    nestedRoom: async (of) => {
      const isStale = untilCancelled();
      const { cut } = await whole(of, 'final');
      const { layout, process } = of.job;
      return drain(nestedRoom(await polygons(), cut.laid.design, { ...layout, mirrored: mirroringOf(layout, process).mirrored }), isStale);
    },
    stockOutline: async (of) => {
      const { cut } = await whole(of, 'final');
      return stockOutline(await polygons(), cut.design.layers.map(({ curves }) => curves));
    },
    workingSize: async (of) => {
      const { cut } = await whole(of, 'final');
      return workingSize(cut.design, (film) => checkLimits(materialOf(of.job, film)));
    },
    together: async ({ films, seconds, ...settings }, onProgress) => {
      const isStale = untilCancelled();
      const laid = await drain(layTogether(await polygons(), films, settings, shareOfTime(seconds)), isStale, onProgress);
      return laid.map((each, k) => ({ ...each, files: togetherFiles(each, k + 1) }));
    },
  };
}
