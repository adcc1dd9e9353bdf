import type { Design } from '../core/assemble/design.ts';
import type { CutPlan } from '../core/layout/cutPlan.ts';
import type { LaidDesign } from '../core/run/bendForBlank.ts';
import type { FontLikeness } from './fontsLike.ts';
import type { ImportedDrawing } from '../formats/drawing.ts';
import type { DesignPart, HeldDesign } from '../core/run/designRun.ts';
import type { LayoutCalls } from './layoutProtocol.ts';
import type { ProofRequest, ProofView } from './proofProtocol.ts';
import type { Figures } from '../core/check/figures.ts';
import type { MostLayers } from '../core/check/mostLayers.ts';
import type { Finding } from '../core/check/cutCheck.ts';
import type { Rgb } from '../core/colour/oklab.ts';
import type { PlainError } from '../core/errors/appError.ts';
import type { StepReport } from '../core/run/applyRecipe.ts';
import type { Proposals } from '../core/propose/proposal.ts';
import type { Job } from '../core/job/job.ts';
import type { Film } from '../core/film/film.ts';
import type { PictureInfo } from '../core/job/picture.ts';
import type { Recipe } from '../core/clean/recipe.ts';
import type { TracedPlace } from '../core/assemble/design.ts';
import type { ToneFact } from '../core/separate/toneFact.ts';
import type { Sheet } from '../core/layout/laySheet.ts';
import type { Curves } from '../core/outline/curves.ts';
import type { PrintPages } from '../core/print/printPages.ts';
import type { Frame } from '../core/raster/art.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { DecodeOptions } from '../formats/picture/decodedPicture.ts';

export type { Proposals };

export interface OpenOptions extends DecodeOptions {
  /** What a job knows the file by; what its bytes say when absent. */
  readonly id?: string | undefined;
}

/** Identifies the pixels of a picture by what a job keeps of it. */
export const pictureKeyOf = ({ id, drawnSidePx }: Pick<PictureInfo, 'id' | 'drawnSidePx'>): string => `${id}${drawnSidePx === undefined ? '' : `@${drawnSidePx}`}`;

/** `preview` works on a picture reduced for the screen, `final` on the whole one. */
export type Quality = 'preview' | 'final';

export interface OpenedPicture {
  /** What its file is known by. */
  readonly pictureId: string;
  /** Identifies the picture's pixels in every later call: `pictureKeyOf` what the job keeps of it. */
  readonly pictureKey: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly statedDpi?: number;
  readonly camera?: string;
  /** Long side at which a vector drawing was drawn, px. */
  readonly drawnSidePx?: number;
  /** The picture reduced for the screen. */
  readonly view: Rgba8;
  readonly look: PictureLook;
}

/** What a first look says about a picture. */
export interface PictureLook {
  /** Distinct colours, and how many of them cover at least a thousandth of the picture when near ones count as one. */
  readonly colours: number;
  readonly realColours: number;
  /** Whether it has clear parts. */
  readonly hasClear: boolean;
}

/** What a request is about: a job, and the part of it that is worked on. */
export interface OfJob {
  /** The picture that the part is made of; those of other parts are known by what the job keeps of them. */
  readonly pictureKey: string;
  readonly job: Job;
  /** Id of the part, a traced object; the lowest when absent. */
  readonly part?: string | undefined;
}

export interface RunRequest extends OfJob {
  readonly quality: Quality;
  /** Keys of the clean view and of the base that the caller shows already; the pixels are left out when they still hold. */
  readonly haveView?: string;
  readonly haveBase?: string;
}

export interface CleanView {
  readonly key: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly frame: Frame;
  readonly steps: readonly StepReport[];
  /** Reduced for the screen; absent when the caller has it. */
  readonly view?: Rgba8;
}

/** The picture as turned and squared: what places in the recipe are counted in. */
export interface BaseView {
  readonly key: string;
  readonly widthPx: number;
  readonly heightPx: number;
  /** Reduced for the screen; absent when the caller has it. */
  readonly view?: Rgba8;
}

export interface ToneView {
  readonly threshold: number;
  readonly inkIs: 'dark' | 'light';
  readonly ink: Rgb;
  readonly histogram: Float64Array;
}

/** What is cut of one film of the part that is worked on. */
export interface FilmView extends Figures {
  readonly film: Film;
  /** In picture px, whatever the quality. */
  readonly outline: Curves;
  /** Says which outline the program found: what one held by hand is made from. */
  readonly mark: string;
  /** Held by hand; `changed` when the program would find another one by now. */
  readonly held?: 'asMade' | 'changed';
}

/** A film of the whole design. */
export interface RackFilm extends Figures {
  readonly film: Film;
}

export interface CutView {
  /** Those of the part that is worked on, lowest first. */
  readonly films: readonly FilmView[];
  /** The palette, where the art is separated into several tones. */
  readonly tones?: readonly ToneFact[];
  /** Lightness at which the tones of a photo pass into each other. */
  readonly steps?: readonly number[];
  /** How much of a photo is how light, 256 counts. */
  readonly histogram?: Float64Array;
  /** Where the most films lie over each other; places in mm of the design. */
  readonly mostLayers: MostLayers;
  readonly design: Design;
  /** The design as it is cut or printed and how it was bent to that, where its blank tapers. */
  readonly bent?: Required<LaidDesign>;
  /** The card of its placement guide, where it is cut with the sheets. */
  readonly guide?: CutPlan;
  /** Where the part that is worked on lies in it. */
  readonly place: TracedPlace;
  /** The films of the design, lowest first, each with what is cut of it in all parts. */
  readonly rack: readonly RackFilm[];
  /** One for each film of the rack. */
  readonly sheets: readonly Sheet[];
  /** The objects of the design as they lie in it, lowest first, and the zero of their common mm. */
  readonly parts: readonly DesignPart[];
  readonly originMm: { readonly x: number; readonly y: number };
  /** How the islands of a stencil are held. */
  readonly held?: HeldDesign | undefined;
  /** The pages of what is printed. */
  readonly print?: PrintPages | undefined;
  readonly findings: readonly Finding[];
  /** Where each finding lies, in picture px whatever the quality. */
  readonly findingsAt: readonly { readonly xPx: number; readonly yPx: number }[];
}

export interface RunResult {
  readonly quality: Quality;
  readonly clean: CleanView;
  /** Absent while the picture lies as it came. */
  readonly base?: BaseView;
  readonly tone?: ToneView;
  readonly cut?: CutView;
  /** Why there is no cut. */
  readonly problem?: PlainError;
  readonly ms: { readonly clean: number; readonly cut: number };
}

export interface ReachRequest extends OfJob {
  /** The steps before the lift. */
  readonly recipe: Recipe;
  readonly at: { readonly xPx: number; readonly yPx: number };
}

/** How far a lift from a point goes at every tolerance, on the reduced picture. */
export interface ReachView {
  readonly width: number;
  readonly height: number;
  readonly frame: Frame;
  readonly levels: Uint8Array;
  readonly areaByLevel: Float64Array;
  readonly tolerance: number;
  readonly holdsFrom: number;
  readonly holdsTo: number;
}

export interface RegionRequest {
  readonly pictureKey: string;
  /** The clean art of a finished run, or its base; neither for the picture itself. */
  readonly cleanKey?: string;
  readonly baseKey?: string;
  /** In picture px. */
  readonly xPx: number;
  readonly yPx: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly outWidth: number;
  readonly outHeight: number;
}

/** The art at a moment, and how much of it is how light (256 counts). */
export interface MomentView extends CleanView {
  readonly histogram: Float64Array;
}

export interface MomentRequest extends OfJob {
  /** The steps up to the moment. */
  readonly recipe: Recipe;
  /** Shows what the last of the steps took away instead of what it left. */
  readonly removed?: boolean;
}

export interface VariantRequest extends OfJob {
  /** `small`: only to be looked at, so that the reduced picture will do; `full`: on the whole one however large. Large ones are reduced when absent. */
  readonly size?: 'small' | 'full';
}

/** What another job would cut of the same picture. */
export interface VariantView {
  readonly films: readonly FilmView[];
  readonly tones?: readonly ToneFact[];
  readonly together: Figures;
  /** Places that the cut check would look at. */
  readonly findings: number;
  /** Read on the reduced picture: figures are near, not exact. */
  readonly isReduced: boolean;
  /** All parts together, and the films of it, lowest first. */
  readonly design: Design;
  readonly rack: readonly Film[];
}

/** The job's blank, process and size are taken into account. */
export interface ProposeRequest extends OfJob {
  /** The films that lie on the shelf. */
  readonly stock: readonly Film[];
}

export interface PartsRequest extends OfJob {
  /** Number of the tone in the palette. */
  readonly tone: number;
}

/** How a tone can be parted. Places are px of the picture as turned and squared. */
export interface PartsView {
  /** Its areas: a pixel of each, and its middle. */
  readonly areas: readonly { readonly xPx: number; readonly yPx: number; readonly middleXPx: number; readonly middleYPx: number }[];
  /** The two colours that are in it, the more frequent first; absent when it is even. */
  readonly colours?: readonly [string, string];
}

export type ExportKind = 'svg' | 'penSvg' | 'testSvg' | 'svgs' | 'png' | 'thumbnail';

export interface ExportRequest extends OfJob {
  readonly kind: ExportKind;
  /** For `svg`, and for `penSvg` and `testSvg`, which try it out: whose sheet; may be absent where there is only one film. For `svgs` and `filmPngs` all come in one zip, for `dxf` in one file. */
  readonly filmId?: string;
  /** For `svg`: which of several sheets of the film, from 1; the first when absent. */
  readonly sheet?: number;
}

export type OnProgress = (share: number) => void;

export type { ProofRequest, ProofView };

/**
 * The engine: everything that takes time, off the main thread. Of `run` and `reach` the newest call wins and the older one ends with
 * `cancelled`. Errors are AppErrors; `pictureMissing` means that the picture must be opened (again) first.
 */
export interface Engine extends LayoutCalls {
  /** Gets ready for the first picture while it is being chosen; ends as soon as one is opened. Nothing is left to be done once a job has been run. */
  warm(): Promise<void>;
  open(bytes: Uint8Array<ArrayBuffer>, file: string, options?: OpenOptions): Promise<OpenedPicture>;
  /** What kind of picture it is and how to start with it. */
  propose(request: ProposeRequest): Promise<Proposals>;
  run(request: RunRequest, onProgress?: OnProgress): Promise<RunResult>;
  /** Begins the run of the whole picture that is about to be asked for, which then goes on from where this is; another run ends it. */
  prepare(request: OfJob): Promise<void>;
  reach(request: ReachRequest): Promise<ReachView>;
  /** The art as it is after some of the steps, reduced for the screen. */
  moment(request: MomentRequest): Promise<MomentView>;
  region(request: RegionRequest): Promise<Rgba8>;
  /** The films laid over each other beside the clean art. */
  proof(request: ProofRequest): Promise<ProofView>;
  /** What another job would cut of the same picture. */
  variant(request: VariantRequest): Promise<VariantView>;
  /** How a tone of flat colours can be parted. */
  parts(request: PartsRequest): Promise<PartsView>;
  export(request: ExportRequest): Promise<Uint8Array<ArrayBuffer>>;
  /** The outlines of an SVG or DXF file at their true size. */
  drawing(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<ImportedDrawing>;
  /** What a font file calls itself; ends with `badFont` for what is none. */
  fontName(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<string>;
  /** The shipped fonts that letters are most like, the likeliest first. @param letters outlines, mm. */
  fontsLike(letters: Curves): Promise<readonly FontLikeness[]>;
  /** Names of shipped fonts that have every letter of a text, three at most. */
  fontsWith(text: string): Promise<readonly string[]>;
  cancel(): Promise<void>;
}
