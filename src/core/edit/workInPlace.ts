import type { Frame } from '../raster/art.ts';
import { PAPERS, workArea, type Paper } from '../clean/squaring/markSheet.ts';
import { inverseOf, placed } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import { tracedPart, withPart } from '../job/tracedPart.ts';
import { SHEETS } from '../layout/sheetStock.ts';
import type { TracedPlace } from '../assemble/design.ts';
import { say } from '../words/say.ts';

/** Where work that was photographed on the mark sheet lies on it, and how wide its design is then. */
export interface WorkPlace {
  readonly paper: Paper;
  /** Upper left of the design, mm from the paper's. */
  readonly xMm: number;
  readonly yMm: number;
  readonly widthMm: number;
}

/** What a squaring step told: resolution of the squared picture, and the size of what was squared. */
export interface SquaredFacts {
  readonly pxPerMm?: number | undefined;
  readonly widthMm?: number | undefined;
  readonly heightMm?: number | undefined;
}

const NEAR_MM = 0.5;

/** Where a design lies on the paper that its picture was squared by; undefined where it was not squared by a mark sheet. */
export function workPlaceOf({ pxPerMm, widthMm, heightMm }: SquaredFacts, { fromOutline, resolution }: TracedPlace, frame: Frame, design: { readonly widthMm: number }): WorkPlace | undefined {
  if (pxPerMm === undefined || widthMm === undefined || heightMm === undefined) return undefined;
  const paper = (Object.keys(PAPERS) as Paper[]).find((each) => Math.abs(workArea(each).widthMm - widthMm) < NEAR_MM && Math.abs(workArea(each).heightMm - heightMm) < NEAR_MM);
  if (paper === undefined) return undefined;
  const corner = placed(inverseOf(fromOutline), 0, 0);
  const inner = workArea(paper);
  const mm = (artPx: number, edgePx: number): number => (artPx / frame.scale + edgePx) / pxPerMm;
  return { paper, xMm: inner.xMm + mm(corner.x, frame.leftPx), yMm: inner.yMm + mm(corner.y, frame.topPx), widthMm: (design.widthMm * resolution) / frame.scale / pxPerMm };
}

/** The job laid out on the sheet that the work lies on: at its true size and place, as it reads. */
export function withWorkInPlace(job: Job, partId: string, { paper, xMm, yMm, widthMm }: WorkPlace): Job {
  const part = tracedPart(job, partId);
  const page = SHEETS.find(({ name }) => name === (paper === 'a4' ? say('A4 sheet') : say('Letter sheet'))) ?? job.layout.sheet;
  const size = { ...part.size, by: 'width' as const, sizeMm: Math.round(widthMm * 1000) / 1000 };
  const sheet = { ...page, marginMm: { left: 0, top: 0, right: 0, bottom: 0 } };
  const { tiles: _tiles, register: _register, nests: _nests, ...layout } = job.layout;
  return { ...withPart(job, { ...part, size }), layout: { ...layout, sheet, box: { ...layout.box, on: false }, copies: 1, work: { xMm: round(xMm), yMm: round(yMm) } } };
}

const round = (value: number): number => Math.round(value * 1000) / 1000;

/** The job laid out from the machine's corner again, on the sheet that it was moved to. */
export function withoutWorkPlace(job: Job): Job {
  const { work: _work, ...layout } = job.layout;
  return { ...job, layout };
}
