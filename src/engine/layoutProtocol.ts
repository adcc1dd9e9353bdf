import type { WorkingSize } from '../core/check/workingSize.ts';
import type { StockOutline } from '../core/layout/remnants.ts';
import type { FileKind } from '../core/job/handOff.ts';
import type { Affine } from '../core/geometry/affine.ts';
import type { KnifeWay } from '../core/layout/knifeWay.ts';
import type { NestRecord } from '../core/layout/layout.ts';
import type { FilmTogether, JobFilm, TogetherSettings } from '../core/layout/together.ts';
import type { WeedingPlan } from '../core/layout/wasteRegions.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { LengthUnit } from '../core/units/parseLength.ts';
import type { FileLook } from './fileLook.ts';
import type { JobFile } from './jobFiles.ts';
import type { TicketView } from './jobTicket.ts';
import type { OfJob, OnProgress } from './protocol.ts';

/** Pictures as they are printed, by the objects that they are of; reduced for the screen. */
export interface PrintsView {
  readonly key: string;
  readonly pictures: readonly { readonly id: string; readonly picture: Rgba8; /** From its px to the design's mm. */ readonly toDesign: Affine; /** Films that lie below it. */ readonly below: readonly string[] }[];
  /** What is to be said before it is printed. */
  readonly warnings: readonly string[];
}

/** The finished blank as a picture at a scale. */
export interface OnBlankView {
  readonly picture: Rgba8;
  readonly pxPerMm: number;
}

export interface NestRequest extends OfJob {
  readonly filmId: string;
  readonly seconds: number;
}

export interface OnBlankRequest extends OfJob {
  readonly sidePx: number;
  /** How far a round blank is turned, radians. */
  readonly turnRad?: number;
  /** Only so many of the films, the lowest; all when absent. */
  readonly filmsOn?: number;
}

export interface SheetPlanRequest extends OfJob {
  readonly filmId: string;
  /** Which of several sheets of the film, from 1. */
  readonly sheet: number;
}

/** How a sheet is cut and weeded. */
export interface SheetPlanView {
  readonly way: KnifeWay;
  readonly weeding: WeedingPlan;
}

export interface TogetherRequest extends TogetherSettings {
  readonly films: readonly JobFilm[];
  readonly seconds: number;
}

/** The sheets of a film that jobs share, with a cut file for each. */
export type FilmTogetherView = FilmTogether & { readonly files: readonly { readonly name: string; readonly svg: string }[] };

export interface FilesRequest extends OfJob {
  readonly kinds: readonly FileKind[];
  /** What their names begin with. */
  readonly name: string;
  /** On the proof, as `2026-11-28`. */
  readonly date: string;
}

export interface LookRequest extends Omit<FilesRequest, 'kinds'> {
  readonly kind: FileKind;
  /** Which of several files is shown, from 0. */
  readonly at: number;
}

export interface ProgramRequest extends SheetPlanRequest {
  /** The sheet itself, its outlines with a pen on paper, or a small cut to try the film with. */
  readonly what: 'cut' | 'pen' | 'test';
  /** Strokes that were done already and are left out. */
  readonly done: number;
}

export interface PrintedProgramRequest extends OfJob {
  /** From 1. */
  readonly page: number;
  /** From the page's mm to the cutter's bed, both y down, as its marks told. */
  readonly toBed: Affine;
  readonly bed: { readonly widthMm: number; readonly heightMm: number };
  readonly done: number;
}

/** What is asked of the engine about sheets, pages and the finished blank. */
export interface LayoutCalls {
  /** The art of a job that is printed, to be shown on its pages. */
  prints(request: OfJob): Promise<PrintsView>;
  /** The finished blank. */
  onBlank(request: OnBlankRequest): Promise<OnBlankView>;
  /** What lies on the blank's printable area, clear elsewhere. */
  onArea(request: Pick<OnBlankRequest, keyof OfJob | 'sidePx'>): Promise<Rgba8>;
  /** The finished blank as a PNG at its true size, with words under it. */
  proofPng(request: OnBlankRequest & { readonly words: readonly string[] }): Promise<Uint8Array<ArrayBuffer>>;
  /** The files of a job in the kinds that are asked for. */
  files(request: FilesRequest): Promise<readonly JobFile[]>;
  /** What a reader finds in the files of a kind. */
  lookInto(request: LookRequest): Promise<FileLook>;
  /** The ticket of a job as it is shown. */
  ticket(request: OfJob): Promise<TicketView>;
  /** The ticket of a job as a PDF. */
  ticketPdf(request: OfJob & { readonly unit: LengthUnit; readonly page: 'a4' | 'letter'; readonly date: string }): Promise<Uint8Array<ArrayBuffer>>;
  /** What a cutter is sent for a sheet: plotter language. */
  program(request: ProgramRequest): Promise<string>;
  /** What a cutter is sent for a printed page, along its cut lines. @throws AppError `nothingToCut` for a page without one. */
  printedProgram(request: PrintedProgramRequest): Promise<string>;
  /** Looks for a shorter way to lay the parts of a film on its sheets; what is best when the time is over. */
  nest(request: NestRequest, onProgress?: OnProgress): Promise<NestRecord>;
  /** How a sheet is cut and weeded; undefined where there is no such sheet. */
  sheetPlan(request: SheetPlanRequest): Promise<SheetPlanView | undefined>;
  /** Down to which size a job's design works. */
  workingSize(request: OfJob): Promise<WorkingSize>;
  /** How many whole copies one sheet holds, nested. */
  nestedRoom(request: OfJob): Promise<number>;
  /** The outermost edge of the design as a piece of stock; undefined where there is none. */
  stockOutline(request: OfJob): Promise<StockOutline | undefined>;
  /** Several jobs on the sheets of the films that they share. */
  together(request: TogetherRequest, onProgress?: OnProgress): Promise<readonly FilmTogetherView[]>;
}
