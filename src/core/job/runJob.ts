import { makeDesign, type Design } from '../assemble/design.ts';
import { cutCheck, type Finding } from '../check/cutCheck.ts';
import { artResolution, type FinishedSize } from '../clean/finishedSize.ts';
import { AppError } from '../errors/appError.ts';
import { laySheet, type Sheet } from '../layout/laySheet.ts';
import { DEFAULT_OUTLINE, traceOutline, type OutlineOptions } from '../outline/traceOutline.ts';
import type { Curves } from '../outline/curves.ts';
import { ringCount } from '../outline/curves.ts';
import type { Art } from '../raster/art.ts';
import { oneTone, type OneTone } from '../separate/oneTone.ts';
import type { Task } from '../task/task.ts';
import type { Job, Layout } from './job.ts';
import { PROCESSES, type Process } from './processes.ts';

/** Whether a job's sheets are mirrored, and whether that goes against its process. */
export function mirroringOf(layout: Pick<Layout, 'mirror'>, process: Process): { mirrored: boolean; against: boolean } {
  const wanted = PROCESSES[process].mirrored;
  const mirrored = layout.mirror === 'process' ? wanted : layout.mirror === 'always';
  return { mirrored, against: mirrored !== wanted };
}

export const finishedSizeOf = (job: Pick<Job, 'assembly'>): FinishedSize => ({ by: job.assembly.by, sizeMm: job.assembly.sizeMm });

/** The art read as one ink by the job's separation. */
export const separate = (job: Pick<Job, 'separation'>, art: Art): OneTone => oneTone(art, job.separation);

/** How the job's outline settings read for an art of a given scale and finished size. */
export function outlineOptionsOf(job: Pick<Job, 'outline' | 'assembly'>, art: Art): OutlineOptions {
  const perMm2 = artResolution(art, finishedSizeOf(job)) ** 2;
  return {
    ...DEFAULT_OUTLINE,
    followPx: job.outline.followPx,
    cornerRad: (job.outline.cornerDeg * Math.PI) / 180,
    leastAreaPx2: Math.max(DEFAULT_OUTLINE.leastAreaPx2, job.outline.leastPieceMm2 * perMm2),
  };
}

/** Clean art to outlines in art pixels. @throws AppError `nothingToCut` when no piece is left. */
export function* outlineArt(job: Job, art: Art): Task<{ outline: Curves; tone: OneTone }> {
  const tone = separate(job, art);
  yield 0.2;
  const outline = yield* traceOutline(tone.share, outlineOptionsOf(job, art));
  if (ringCount(outline) === 0) throw new AppError('nothingToCut');
  return { outline, tone };
}

/** Outlines to the design at its finished size. */
export const designOf = (job: Pick<Job, 'assembly'>, outline: Curves): Design => makeDesign(job.assembly.films[0].id, outline, job.assembly);

/** The design laid out on its sheet. */
export function sheetOf(job: Pick<Job, 'assembly' | 'layout' | 'process'>, design: Design): Sheet {
  return laySheet(design, job.assembly.films[0].id, { ...job.layout, mirrored: mirroringOf(job.layout, job.process).mirrored });
}

export const checkOf = (job: Pick<Job, 'process'>, design: Design): Finding[] => cutCheck(design, PROCESSES[job.process]);
