import { findTolerance } from '../core/clean/findTolerance.ts';
import { reachLevels } from '../core/clean/reachLevels.ts';
import { canonicalJson } from '../core/task/hash.ts';
import { AppError, isAppError, plainFromError } from '../core/errors/appError.ts';
import type { CleanResult } from '../core/run/applyRecipe.ts';
import { keepRuns, rememberTones, type KeptRuns } from '../core/run/keptRuns.ts';
import { propose } from '../core/propose/propose.ts';
import type { Job } from '../core/job/job.ts';
import { plainObjects } from '../core/job/objects.ts';
import { pictureOf, tracedPart, type TracedPart } from '../core/job/tracedPart.ts';
import { outlineOptionsOf } from '../core/run/outlinePart.ts';
import { cleanPart, cutJob, type CutResult } from '../core/run/runJob.ts';
import { tonesKey, traceTones } from '../core/run/traceTones.ts';
import { artXFromPicture, artYFromPicture, pictureFromArt, type Art } from '../core/raster/art.ts';
import { lumaHistogram } from '../core/raster/luma.ts';
import { amplifiedDifference } from '../core/raster/amplifiedDifference.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { shrinkToSide } from '../core/raster/shrink.ts';
import type { DecodePicture } from '../formats/picture/decodedPicture.ts';
import { writePng } from '../formats/picture/writePng.ts';
import type { ImportedDrawing } from '../formats/drawing.ts';
import { readDrawing } from '../formats/readDrawing.ts';
import { OpenPictures } from './openPictures.ts';
import { ShapeMaker, type ShapeTools } from './designShapes.ts';
import { cutView, partsOf, tellFaults } from './cutView.ts';
import { drain } from './drain.ts';
import { proofView, variantView } from './comparedViews.ts';
import { layoutAnswers, type WholeJob } from './layoutAnswers.ts';
import { baseView, ownCopy, regionView, viewOf } from './views.ts';
import { fontsLike, type FontLikeness } from './fontsLike.ts';
import { fontsWith } from './fontsWith.ts';
import type { Curves } from '../core/outline/curves.ts';
import { exportFile } from './exportFile.ts';
import { warmUp } from './warmUp.ts';
import { pictureKeyOf, type Engine, type ExportRequest, type MomentRequest, type MomentView, type OfJob, type OnProgress, type OpenOptions, type OpenedPicture, type PartsRequest, type PartsView, type ProofRequest, type ProofView, type Proposals, type ProposeRequest, type Quality, type ReachRequest, type ReachView, type RegionRequest, type RunRequest, type RunResult, type VariantRequest, type VariantView } from './protocol.ts';
import { say } from '../core/words/say.ts';

const THUMBNAIL_SIDE_PX = 320;
/** What a step removed is shown so many times as strong. */
const REMOVED_GAIN = 8;
/**
 * Room for what runs made, bytes. Of a twelve-megapixel job: a few steps with colours of their own (48 MB each) and those around them with masks (12 MB); tones
 * and mesh of the full art and of the reduced one. With the decoded pictures all is below 400 MB.
 */
const KEPT_ROOM = { steps: 130_000_000, tones: 64_000_000, outlined: 12_000_000, designs: 12_000_000, parts: 8_000_000 };
/** The same for an engine that has reduced pictures only, of at most 640,000 pixels. */
const REDUCED_ROOM = { steps: 12_000_000, tones: 6_000_000, outlined: 3_000_000, designs: 3_000_000, parts: 3_000_000 };
/** A proof of larger pictures is made on the reduced one, pixels. */
const PROOF_PIXELS = 6_000_000;
/** A variant of larger pictures is made on the reduced one, pixels. */
const VARIANT_PIXELS = 4_000_000;

/** A run that was begun before it was asked for. */
interface PreparedRun {
  /** Of its settings. */
  readonly key: string;
  readonly done: Promise<void>;
  onProgress?: OnProgress | undefined;
}

export interface LocalEngineOptions {
  /** Is told of outlines that no picture should give; the checks for that run only where it is given: in tests and while developing. */
  readonly onFault?: ((words: string) => void) | undefined;
  /** For lettering and objects that cut; jobs that have them cannot be run without. */
  readonly tools?: ShapeTools | undefined;
  /** Pictures are kept reduced for the screen and not whole: for an engine that is asked for previews alone. */
  readonly reducedOnly?: boolean;
}

/** The engine in the thread that calls it. The worker holds one; tests and the command line use it directly. */
export class LocalEngine implements Engine {
  private readonly pictures: OpenPictures;
  private readonly kept: KeptRuns;
  private readonly shapes: ShapeMaker;
  private cleanArt: { readonly key: string; readonly art: Art } | undefined;
  private baseArt: { readonly key: string; readonly art: Art } | undefined;
  private proposed: { readonly key: string; readonly proposals: Proposals } | undefined;
  private readonly newest = { preview: 0, final: 0, reach: 0 };
  private prepared: PreparedRun | undefined;
  private timesCancelled = 0;
  private timesOpened = 0;
  private readonly layout = layoutAnswers({ whole: (of, quality) => this.whole(of, quality), polygons: () => this.shapes.using.polygons(), font: (name, text) => this.shapes.using.font(name, text), untilCancelled: () => this.untilCancelled() });
  readonly prints = this.layout.prints;
  readonly onBlank = this.layout.onBlank;
  readonly onArea = this.layout.onArea;
  readonly proofPng = this.layout.proofPng;
  readonly files = this.layout.files;
  readonly lookInto = this.layout.lookInto;
  readonly ticket = this.layout.ticket;
  readonly ticketPdf = this.layout.ticketPdf;
  readonly program = this.layout.program;
  readonly printedProgram = this.layout.printedProgram;
  readonly nest = this.layout.nest;
  readonly sheetPlan = this.layout.sheetPlan;
  readonly workingSize = this.layout.workingSize;
  readonly stockOutline = this.layout.stockOutline;
  readonly nestedRoom = this.layout.nestedRoom;
  readonly together = this.layout.together;

  constructor(
    decode: DecodePicture,
    private readonly options: LocalEngineOptions = {},
  ) {
    this.shapes = new ShapeMaker(options.tools);
    this.pictures = new OpenPictures(decode, options.reducedOnly === true);
    this.kept = keepRuns(options.reducedOnly === true ? REDUCED_ROOM : KEPT_ROOM);
  }

  async warm(): Promise<void> {
    const before = this.timesOpened;
    if (this.newest.final === 0 && this.newest.preview === 0) await warmUp(() => this.timesOpened === before);
  }

  async open(bytes: Uint8Array<ArrayBuffer>, file: string, options: OpenOptions = {}): Promise<OpenedPicture> {
    this.timesOpened++;
    const { facts, final } = await this.pictures.open(bytes, file, options);
    return { ...facts, view: ownCopy(viewOf(final)) };
  }

  async propose({ pictureKey, job, part, stock }: ProposeRequest): Promise<Proposals> {
    const key = JSON.stringify([pictureKey, job.blank, job.process, tracedPart(job, part).size, stock]);
    if (this.proposed?.key !== key) this.proposed = { key, proposals: await drain(propose(job, this.pictures.get(pictureKey).final, stock), this.untilCancelled()) };
    return this.proposed.proposals;
  }

  async prepare({ pictureKey, job, part }: OfJob): Promise<void> {
    const key = canonicalJson([pictureKey, job, part ?? tracedPart(job).id]);
    const isStale = this.untilCancelled(() => this.prepared?.key !== key);
    const makes = async (): Promise<void> => {
      const clean = await this.clean(pictureKey, tracedPart(job, part), 'final', isStale, (share) => this.prepared?.onProgress?.(share * 0.5));
      await this.cut(job, part, clean, 'final', isStale, (share) => this.prepared?.onProgress?.(0.5 + share * 0.5));
    };
    // Whatever is wrong is told by the run that comes after it.
    const prepared: PreparedRun = { key, done: makes().catch(() => undefined) };
    this.prepared = prepared;
    await prepared.done;
  }

  /** Lets a run that was begun for these settings come to its end, and gives up one that was begun for others. */
  private async prepareEnds(key: string, onProgress: OnProgress | undefined): Promise<void> {
    const { prepared } = this;
    if (prepared?.key === key) {
      prepared.onProgress = onProgress;
      await prepared.done;
    }
    if (this.prepared === prepared) this.prepared = undefined;
  }

  async run({ pictureKey, job, part, quality, haveView, haveBase }: RunRequest, onProgress?: OnProgress): Promise<RunResult> {
    const turn = ++this.newest[quality];
    const isStale = this.untilCancelled(() => turn !== this.newest[quality]);
    if (quality === 'final') await this.prepareEnds(canonicalJson([pictureKey, job, part ?? tracedPart(job).id]), onProgress);
    const started = performance.now();
    const clean = await this.clean(pictureKey, tracedPart(job, part), quality, isStale, (share) => onProgress?.(share * 0.5));
    if (quality === 'final') {
      this.cleanArt = { key: clean.key, art: clean.art };
      this.baseArt = clean.base;
    }
    const cleaned = performance.now();
    const { art, key, steps } = clean;
    const base = { key, widthPx: art.width, heightPx: art.height, frame: art.frame, steps };
    const turned = clean.base.key === pictureKey ? {} : { base: baseView(clean.base, haveBase) };
    const view = key === haveView ? base : { ...base, view: ownCopy(viewOf(pictureFromArt(art))) };
    try {
      const cut = await this.cut(job, part, clean, quality, isStale, (share) => onProgress?.(0.5 + share * 0.5));
      const tone = cut.tone === undefined ? {} : { tone: { threshold: cut.tone.threshold, inkIs: cut.tone.inkIs, ink: cut.tone.ink, histogram: cut.tone.histogram } };
      return { quality, clean: view, ...turned, ...tone, cut: cutView(cut, art), ms: { clean: cleaned - started, cut: performance.now() - cleaned } };
    } catch (error) {
      if (isAppError(error) && error.code === 'cancelled') throw error;
      const problem = isAppError(error) ? error : new AppError('unexpected', { message: error instanceof Error ? error.message : String(error), at: say('taking the art apart'), change: say('Change the way of separating or the number of tones') }, error);
      return { quality, clean: view, ...turned, problem: plainFromError(problem), ms: { clean: cleaned - started, cut: performance.now() - cleaned } };
    }
  }

  async reach({ pictureKey, job, part, recipe, at }: ReachRequest): Promise<ReachView> {
    const turn = ++this.newest.reach;
    const isStale = this.untilCancelled(() => turn !== this.newest.reach);
    const { art } = await this.clean(pictureKey, { ...tracedPart(job, part), recipe: [...recipe] }, 'preview', isStale);
    const x = Math.floor(artXFromPicture(art.frame, at.xPx));
    const y = Math.floor(artYFromPicture(art.frame, at.yPx));
    if (x < 0 || y < 0 || x >= art.width || y >= art.height || art.alpha[y * art.width + x] === 0) throw new AppError('nothingThere');
    const reach = await drain(reachLevels(art, x, y), isStale);
    return { width: art.width, height: art.height, frame: art.frame, levels: reach.levels, areaByLevel: reach.areaByLevel, ...findTolerance(reach.areaByLevel) };
  }

  async moment({ pictureKey, job, part, recipe, removed }: MomentRequest): Promise<MomentView> {
    const isStale = this.untilCancelled();
    const { art, key, steps } = await this.clean(pictureKey, { ...tracedPart(job, part), recipe: [...recipe] }, 'preview', isStale);
    const shown = { key, widthPx: art.width, heightPx: art.height, frame: art.frame, steps, histogram: lumaHistogram(art).histogram };
    if (removed !== true) return { ...shown, view: pictureFromArt(art) };
    const before = await this.clean(pictureKey, { ...tracedPart(job, part), recipe: recipe.slice(0, -1) }, 'preview', isStale);
    return { ...shown, key: `${key}-removed`, view: amplifiedDifference(before.art.colour, art.colour, REMOVED_GAIN) };
  }

  async region(request: RegionRequest): Promise<Rgba8> {
    return regionView(request, { picture: this.pictures.get(request.pictureKey).final, base: this.baseArt, clean: this.cleanArt });
  }

  async proof({ pictureKey, job, part, shift }: ProofRequest): Promise<ProofView> {
    const isStale = this.untilCancelled();
    const { widthPx, heightPx } = this.sizeOf(pictureKey);
    const quality = widthPx * heightPx > PROOF_PIXELS ? 'preview' : 'final';
    const traced = tracedPart(job, part);
    const clean = await this.clean(pictureKey, traced, quality, isStale);
    const cut = await this.cut(job, part, clean, quality, isStale);
    return proofView(job, traced, clean, cut, shift);
  }

  /** All clean art of a job, and what is cut of it. */
  private async whole({ pictureKey, job, part }: OfJob, quality: Quality, isStale = this.untilCancelled()): Promise<WholeJob> {
    const clean = await this.clean(pictureKey, tracedPart(job, part), quality, isStale);
    const cleans = await this.cleansOf(job, tracedPart(job, part).id, clean, quality, isStale);
    return { cleans, cut: await this.cut(job, part, clean, quality, isStale) };
  }

  private sizeOf(pictureKey: string): { widthPx: number; heightPx: number } {
    const { final } = this.pictures.get(pictureKey);
    return { widthPx: final.width, heightPx: final.height };
  }

  async export({ pictureKey, job, part, kind, filmId, sheet }: ExportRequest): Promise<Uint8Array<ArrayBuffer>> {
    const isStale = this.untilCancelled();
    const clean = await this.clean(pictureKey, tracedPart(job, part), kind === 'thumbnail' ? 'preview' : 'final', isStale);
    return kind === 'thumbnail' ? writePng(shrinkToSide(pictureFromArt(clean.art), THUMBNAIL_SIDE_PX)) : exportFile(kind, await this.cut(job, part, clean, 'final', isStale), job, clean.art, { ...(filmId === undefined ? {} : { filmId }), ...(sheet === undefined ? {} : { sheet }) });
  }

  /** What another job would cut of the same picture, beside the one on the bench; large pictures are read on the reduced one. */
  async variant({ pictureKey, job, part, size }: VariantRequest): Promise<VariantView> {
    const { widthPx, heightPx } = this.sizeOf(pictureKey);
    const isReduced = size === 'small' || (size !== 'full' && widthPx * heightPx > VARIANT_PIXELS);
    const isStale = this.untilCancelled();
    const quality = isReduced ? 'preview' : 'final';
    const clean = await this.clean(pictureKey, tracedPart(job, part), quality, isStale);
    return variantView(await this.cut(job, part, clean, quality, isStale), clean.art, isReduced);
  }

  async parts({ pictureKey, job, part, tone }: PartsRequest): Promise<PartsView> {
    const isStale = this.untilCancelled();
    const traced = tracedPart(job, part);
    const { art, key } = await this.clean(pictureKey, traced, 'final', isStale);
    const { separation } = traced;
    if (separation.way !== 'flat') throw new RangeError(`parts of flat colours only, not of ${separation.way}`);
    const options = outlineOptionsOf(traced, art);
    const toned = await drain(rememberTones(this.kept, key)(tonesKey(separation, options), () => traceTones(separation, art, options)), isStale);
    return partsOf(toned, art, tone);
  }

  drawing(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<ImportedDrawing> {
    return readDrawing(bytes, file, () => this.shapes.using.polygons());
  }

  async fontName(bytes: Uint8Array<ArrayBuffer>, file: string): Promise<string> {
    return (await this.shapes.using.readFont(bytes, file)).name;
  }

  fontsWith(text: string): Promise<readonly string[]> {
    return fontsWith(text, this.shapes.using.font);
  }

  fontsLike(letters: Curves): Promise<readonly FontLikeness[]> {
    return fontsLike(letters, this.shapes.using, this.untilCancelled());
  }

  async cancel(): Promise<void> {
    this.timesCancelled++;
  }

  /** Tells when a call is no longer wanted: once it was cancelled, or for a reason of its own. */
  private untilCancelled(isOver: () => boolean = () => false): () => boolean {
    const before = this.timesCancelled;
    return () => before !== this.timesCancelled || isOver();
  }

  private clean(pictureKey: string, part: TracedPart, quality: Quality, isStale: () => boolean, onProgress?: OnProgress): Promise<CleanResult> {
    const { final, preview, previewScale } = this.pictures.get(pictureKey);
    if (quality === 'final' && this.options.reducedOnly === true) throw new RangeError('the whole picture is not kept here');
    const [picture, scale] = quality === 'final' ? [final, 1] : [preview, previewScale];
    return drain(cleanPart(part, picture, pictureKey, this.kept.steps, scale), isStale, onProgress);
  }

  private async cut(job: Job, partId: string | undefined, clean: CleanResult, quality: Quality, isStale: () => boolean, onProgress?: OnProgress): Promise<CutResult> {
    const { id: focus } = tracedPart(job, partId);
    const cleans = await this.cleansOf(job, focus, clean, quality, isStale);
    const cut = await drain(cutJob(job, cleans, focus, this.kept, await this.shapes.of(job)), isStale, onProgress);
    if (this.options.onFault !== undefined) tellFaults(cut, this.options.onFault);
    return cut;
  }

  /** The clean art of every traced object that has a picture, in the objects' order. */
  private async cleansOf(job: Job, focus: string, clean: CleanResult, quality: Quality, isStale: () => boolean): Promise<Map<string, CleanResult>> {
    const cleans = new Map<string, CleanResult>();
    for (const object of plainObjects(job.objects)) {
      if (object.kind !== 'traced') continue;
      const picture = pictureOf(job, object);
      if (object.id === focus) cleans.set(focus, clean);
      else if (picture !== undefined) cleans.set(object.id, await this.clean(pictureKeyOf(picture), tracedPart(job, object.id), quality, isStale));
    }
    return cleans;
  }
}
