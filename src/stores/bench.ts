import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import { AppError, asAppError, isAppError } from '../core/errors/appError.ts';
import { withTracedOf } from '../core/edit/bringEdits.ts';
import type { Affine } from '../core/geometry/affine.ts';
import type { Job } from '../core/job/job.ts';
import { plainObjects } from '../core/job/objects.ts';
import type { PictureInfo } from '../core/job/picture.ts';
import { pictureOf, tracedPart, withPart, withPicture, type TracedPart } from '../core/job/tracedPart.ts';
import { scaledPart } from '../core/edit/carriedPart.ts';
import { checkFileSize } from '../formats/picture/checkPicture.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import { pictureKeyOf, type OfJob, type OpenedPicture, type RegionRequest, type RunResult } from '../engine/protocol.ts';
import type { ShelfEntry } from '../storage/ports.ts';
import { benchRuns } from './benchRuns.ts';
import { jobHistory } from './jobHistory.ts';
import { keepJob } from './keepJob.ts';
import { keepShown } from './keepShown.ts';
import type { KeyedView } from './keptResult.ts';
import { pictureInfoOf } from './pictureInfo.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';
import { say } from '../core/words/say.ts';

/** The job on the bench: its settings with undo, its picture, and what the engine made of them. */
export const useBench = defineStore('bench', () => {
  const { engine, storage } = useServices();
  const shelf = useShelf();
  const entry = shallowRef<ShelfEntry>();
  const picture = shallowRef<OpenedPicture>();
  const result = shallowRef<RunResult>();
  /** The reduced clean art that is shown; kept when a run says that it has not changed. */
  const cleanView = shallowRef<KeyedView>();
  /** The reduced picture as turned and squared, kept in the same way. */
  const baseView = shallowRef<KeyedView>();
  const error = shallowRef<AppError>();
  const busy = ref<number>();
  /** The job that what is shown was made of, at full size. */
  const shownJob = shallowRef<Job>();

  const edits = jobHistory();
  const { job, undoLabel, redoLabel, dragging, commit, preview, revert, undo, redo } = edits;

  /** The traced parts of the job, lowest first, and the one that was chosen. */
  const traced = computed(() => plainObjects(job.value?.objects ?? []).filter((object) => object.kind === 'traced'));
  const focus = ref<string>();
  const focused = computed(() => traced.value.find(({ id }) => id === focus.value)?.id);
  /** Another part is cleaned and separated from now on; its picture is opened. */
  const focusOn = (id: string | undefined): void => void (focus.value = id);
  /** The part of the design that Clean and Separate work on: the lowest unless another was chosen. */
  const part = computed<TracedPart | undefined>(() => (job.value === undefined ? undefined : tracedPart(job.value, focused.value)));
  /** What the job keeps of the picture that the part is made of. */
  const pictureInfo = computed<PictureInfo | undefined>(() => (job.value === undefined || part.value === undefined ? undefined : pictureOf(job.value, part.value)));
  /** The job with that part changed; the same job when it is not. */
  const withChanged = (next: TracedPart): Job | undefined => (job.value === undefined || next === part.value ? job.value : withPart(job.value, next));
  function commitPart(label: string, next: TracedPart): void {
    const changed = withChanged(next);
    if (changed !== undefined) commit(label, changed);
  }
  function previewPart(next: TracedPart): void {
    const changed = withChanged(next);
    if (changed !== undefined) preview(changed);
  }
  /** What a request to the engine is about; undefined while the picture is not there. */
  function ofJob(): OfJob | undefined {
    return job.value === undefined || part.value === undefined || picture.value === undefined ? undefined : { pictureKey: picture.value.pictureKey, job: job.value, part: part.value.id };
  }

  /** The job that was asked for last: another one that is still being fetched then is not shown. */
  let wanted: string | undefined;

  async function open(id: string): Promise<void> {
    wanted = id;
    if (entry.value?.id === id) return;
    await saveNow();
    if (wanted !== id) return;
    close();
    const reading = storage.get(id);
    const [found, kept] = await Promise.all([reading, shown.read(id, reading)]);
    if (wanted !== id) return;
    if (found === undefined || found.deletedAt !== undefined) throw new AppError('badJob', { reason: say('it is not on this shelf any more') });
    entry.value = found;
    if (kept !== undefined) {
      shown.show(kept, found.job);
      restored = { job: found.job, picture: picture.value };
    }
    edits.begin(found.job);
    await openPicture();
  }

  function close(): void {
    shown.flush();
    restored = undefined;
    entry.value = undefined;
    picture.value = undefined;
    result.value = undefined;
    cleanView.value = undefined;
    baseView.value = undefined;
    error.value = undefined;
    pictureFailed.value = false;
    shownJob.value = undefined;
    focus.value = undefined;
    edits.begin(undefined);
  }

  /** Whether the job's picture could not be opened, and trying again is all that helps. */
  const pictureFailed = ref(false);

  /** What was kept of the job is shown, and nothing has changed since. */
  let restored: { readonly job: Job; readonly picture: OpenedPicture | undefined } | undefined;
  /** Calls that need the picture in the engine wait for it. */
  let opening: Promise<void> = Promise.resolve();
  /** The engine makes what is shown once more where it was kept, so that the next change, a closer look and a file find it there. */
  let warming: Promise<unknown> = Promise.resolve();

  function openPicture(): Promise<void> {
    opening = openOnce(2);
    return opening;
  }

  /** Opens the job's picture. An engine that is lost meanwhile, as when memory is short, is started once more. */
  async function openOnce(tries: number): Promise<void> {
    const info = pictureInfo.value;
    const at = entry.value?.id;
    if (info === undefined) return;
    if (restored === undefined) busy.value = 0;
    pictureFailed.value = false;
    try {
      for (const other of othersBeside(info)) await openFile(other);
      const opened = markRaw(await openFile(info));
      if (entry.value?.id !== at || pictureInfo.value?.id !== info.id) return;
      if (restored?.picture?.pictureKey === opened.pictureKey) warm(restored.job, opened.pictureKey);
      else picture.value = opened;
    } catch (caught) {
      if (tries > 1 && isAppError(caught) && caught.code === 'workerLost') return await openOnce(tries - 1);
      pictureFailed.value = picture.value === undefined;
      throw caught;
    } finally {
      busy.value = undefined;
    }
  }

  async function openFile({ id, drawnSidePx }: PictureInfo): Promise<OpenedPicture> {
    const file = await storage.picture(id);
    if (file === undefined) throw new AppError('pictureMissing');
    return engine.open(file.bytes.slice(), file.fileName, { id, drawnSidePx });
  }

  /** The pictures of the job's other parts. */
  function othersBeside({ id }: PictureInfo): PictureInfo[] {
    const used = new Set(plainObjects(job.value?.objects ?? []).map((object) => (object.kind === 'traced' ? object.picture : undefined)));
    return (job.value?.pictures ?? []).filter((picture) => picture.id !== id && used.has(picture.id));
  }

  function warm(current: Job, pictureKey: string): void {
    // A change that comes meanwhile has its own run, which ends this one; what cannot be made anew shows then.
    warming = engine.run({ pictureKey, job: current, quality: 'final', ...haveViews() }).catch((caught: unknown) => asAppError(caught, 'unexpected'));
  }

  const whenOpen = <Args extends unknown[], Value>(call: (...args: Args) => Promise<Value>) => async (...args: Args): Promise<Value> => {
    await opening.catch(() => undefined);
    try {
      return await call(...args);
    } catch (caught) {
      // Others were opened since, as when several jobs were laid together, and took its room.
      if (!isAppError(caught) || caught.code !== 'pictureMissing') throw caught;
      await openPicture();
      return call(...args);
    }
  };

  /** Opens the job's picture anew; what goes wrong is shown. */
  async function reopenPicture(): Promise<void> {
    await openPicture().catch((caught: unknown) => (error.value = asAppError(caught, 'unexpected')));
  }

  /**
   * Gives the job another picture. The recipe stays: it is what is reused. When another job lies here by the time that it is read, it goes to the one that it
   * was for.
   */
  async function setPicture(file: File): Promise<void> {
    const target = entry.value;
    if (target === undefined) return;
    checkFileSize(file.size, file.name);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const opened = markRaw(await engine.open(bytes.slice(), file.name));
    const info = pictureInfoOf(file.name, opened);
    const { id } = info;
    const kept = entry.value?.id === target.id ? entry.value : await storage.get(target.id);
    if (kept === undefined || kept.deletedAt !== undefined) return;
    const present = entry.value?.id === target.id ? edits.present() : undefined;
    const before = present ?? kept.job;
    const next = withPicture(before, tracedPart(before).id, info);
    const saved = await shelf.save({ ...kept, updatedAt: Date.now(), job: next }, [{ id, fileName: file.name, bytes }]);
    // Whatever was opened or changed while it was saved stands.
    if (entry.value?.id !== target.id || job.value === undefined) return;
    entry.value = saved;
    picture.value = opened;
    commit(say('Other picture'), withPicture(job.value, tracedPart(job.value).id, info));
  }

  /**
   * Adds a further picture to the job, traced as it proposes, and gives the id of its part. Nothing is added when another job lies here by then.
   * @param placement of the part in the design.
   */
  async function addPicture(file: File, placement: Affine): Promise<string | undefined> {
    const target = entry.value;
    if (target === undefined || job.value === undefined) return undefined;
    const { info, started, kept } = await shelf.traced(file, job.value);
    if (entry.value?.id !== target.id || job.value === undefined) return undefined;
    const next = withTracedOf(job.value, started, info, placement);
    entry.value = await shelf.save({ ...entry.value, updatedAt: Date.now(), job: next }, [kept]);
    commit(say('Another picture'), next);
    return tracedPart(started).id;
  }

  /** After undo and redo of another picture, or of the size at which it is drawn, that one is opened again. */
  function followPicture(info: PictureInfo | undefined): void {
    if (info !== undefined && picture.value !== undefined && picture.value.pictureKey !== pictureKeyOf(info)) void reopenPicture();
  }

  /** Draws a vector picture at another size; what was put on it moves along. */
  async function drawAt(drawnSidePx: number): Promise<void> {
    const before = pictureInfo.value;
    if (job.value === undefined || part.value === undefined || before?.drawnSidePx === undefined || drawnSidePx === before.drawnSidePx) return;
    const factor = drawnSidePx / before.drawnSidePx;
    const size = { widthPx: Math.round(before.widthPx * factor), heightPx: Math.round(before.heightPx * factor) };
    commit(say`Drawn at ${drawnSidePx} px`, withPicture(withPart(job.value, scaledPart(part.value, factor)), part.value.id, { ...before, ...size, drawnSidePx }));
  }

  function commitPreview(label: string): void {
    edits.commitPreview(label);
    void work();
  }

  const { work, haveViews } = benchRuns(engine, {
    picture, job, result, cleanView, baseView, error, busy, shownJob, dragging,
    opened: () => opening,
    reopen: openPicture,
    onStart: () => (restored = undefined),
    partId: () => focused.value,
  });

  watch([job, picture], ([now, opened]) => {
    if (restored === undefined || now !== restored.job || opened !== restored.picture) void work();
  });
  watch(pictureInfo, followPicture);

  /** A closer look at the art waits until the engine has it. */
  async function region(request: RegionRequest): Promise<Rgba8> {
    if (request.cleanKey !== undefined || request.baseKey !== undefined) await warming;
    return engine.region(request);
  }

  const shown = keepShown(storage, { entry, picture, result, cleanView, baseView, shownJob, dragging, isFirstPart: () => focused.value === undefined || focused.value === traced.value[0]?.id });
  const { saving, saveError, saveNow } = keepJob({ entry, job, present: edits.present, pictureKey: () => picture.value?.pictureKey, commit });

  /** The picture as places on it are counted: as it came, or turned and squared. */
  const base = computed(() => {
    const opened = picture.value;
    const turned = result.value?.base;
    if (opened === undefined || turned === undefined || baseView.value?.key !== turned.key) return opened;
    return { key: turned.key, widthPx: turned.widthPx, heightPx: turned.heightPx, view: baseView.value.pixels };
  });

  /** Whether what is shown is what the job says by now. */
  const isCurrent = computed(() => entry.value !== undefined && (pictureInfo.value === undefined || pictureFailed.value || shownJob.value === job.value));

  const resolutionPxPerMm = computed(() => {
    const cut = result.value?.cut;
    if (cut !== undefined) return cut.place.resolution as number;
    const current = part.value;
    const opened = picture.value;
    if (current === undefined || opened === undefined) return undefined;
    return (current.size.by === 'width' ? opened.widthPx : opened.heightPx) / current.size.sizeMm;
  });

  return {
    entry, job, part, picture, pictureInfo, base, isCurrent, result, cleanView, error, pictureFailed, saveError, busy, saving, dragging, undoLabel, redoLabel, resolutionPxPerMm,
    open, close, reopenPicture, setPicture, addPicture, traced, focus: focused, focusOn, drawAt, ofJob, commit, commitPart, preview, previewPart, commitPreview, revert, undo, redo, work, saveNow, cancel: () => engine.cancel(),
    propose: whenOpen(engine.propose.bind(engine)), reach: whenOpen(engine.reach.bind(engine)), moment: whenOpen(engine.moment.bind(engine)), region: whenOpen(region), proof: whenOpen(engine.proof.bind(engine)),
    variant: whenOpen(engine.variant.bind(engine)), parts: whenOpen(engine.parts.bind(engine)), exportFile: whenOpen(engine.export.bind(engine)), prints: whenOpen(engine.prints.bind(engine)), onBlank: whenOpen(engine.onBlank.bind(engine)), onArea: whenOpen(engine.onArea.bind(engine)), proofPng: whenOpen(engine.proofPng.bind(engine)), files: whenOpen(engine.files.bind(engine)), lookInto: whenOpen(engine.lookInto.bind(engine)), ticket: whenOpen(engine.ticket.bind(engine)), ticketPdf: whenOpen(engine.ticketPdf.bind(engine)), program: whenOpen(engine.program.bind(engine)), printedProgram: whenOpen(engine.printedProgram.bind(engine)), nest: whenOpen(engine.nest.bind(engine)), sheetPlan: whenOpen(engine.sheetPlan.bind(engine)), workingSize: whenOpen(engine.workingSize.bind(engine)), stockOutline: whenOpen(engine.stockOutline.bind(engine)), nestedRoom: whenOpen(engine.nestedRoom.bind(engine)),
  };
});
