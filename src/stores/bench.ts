import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, watch } from 'vue';
import { AppError, asAppError, isAppError, plainFromError } from '../core/errors/appError.ts';
import { hashBytes } from '../core/job/hash.ts';
import type { Job, PictureInfo } from '../core/job/job.ts';
import { scaledJob } from '../core/job/carriedJob.ts';
import { checkFileSize } from '../formats/picture/checkPicture.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import type { ShelfEntry } from '../storage/ports.ts';
import { History } from './history.ts';
import { keepJob } from './keepJob.ts';
import { pictureInfo } from './pictureInfo.ts';
import { useServices } from './services.ts';
import { useShelf } from './shelf.ts';

/** The job on the bench: its settings with undo, its picture, and what the engine made of them. */
export const useBench = defineStore('bench', () => {
  const { engine, storage } = useServices();
  const shelf = useShelf();
  const entry = shallowRef<ShelfEntry>();
  const picture = shallowRef<OpenedPicture>();
  const result = shallowRef<RunResult>();
  /** The reduced clean art that is shown; kept when a run says that it has not changed. */
  const cleanView = shallowRef<{ key: string; pixels: NonNullable<RunResult['clean']['view']> }>();
  /** The reduced picture as turned and squared, kept in the same way. */
  const baseView = shallowRef<{ key: string; pixels: NonNullable<RunResult['clean']['view']> }>();
  const error = shallowRef<AppError>();
  const busy = ref<number>();
  /** The job that what is shown was made of, at full size. */
  const shownJob = shallowRef<Job>();

  let history: History<Job> | undefined;
  const job = shallowRef<Job>();
  const undoLabel = ref<string>();
  const redoLabel = ref<string>();

  function showHistory(): void {
    job.value = history?.present;
    undoLabel.value = history?.undoLabel;
    redoLabel.value = history?.redoLabel;
  }

  /** The job that was asked for last: another one that is still being fetched then is not shown. */
  let wanted: string | undefined;

  async function open(id: string): Promise<void> {
    wanted = id;
    if (entry.value?.id === id) return;
    await saveNow();
    if (wanted !== id) return;
    close();
    const found = await storage.get(id);
    if (wanted !== id) return;
    if (found === undefined || found.deletedAt !== undefined) throw new AppError('badJob', { reason: 'it is not on this shelf any more' });
    entry.value = found;
    if (found.job.picture !== undefined && found.pictureId !== undefined) fileOf.set(found.job.picture, found.pictureId);
    history = new History(found.job);
    showHistory();
    await openPicture();
  }

  function close(): void {
    entry.value = undefined;
    picture.value = undefined;
    result.value = undefined;
    cleanView.value = undefined;
    baseView.value = undefined;
    error.value = undefined;
    history = undefined;
    pictureFailed.value = false;
    shownJob.value = undefined;
    showHistory();
  }

  /** Whether the job's picture could not be opened, and trying again is all that helps. */
  const pictureFailed = ref(false);

  /** Opens the job's picture. An engine that is lost meanwhile, as when memory is short, is started once more. */
  async function openPicture(tries = 2): Promise<void> {
    const id = entry.value?.pictureId;
    if (id === undefined) return;
    busy.value = 0;
    pictureFailed.value = false;
    try {
      const file = await storage.picture(id);
      if (file === undefined) throw new AppError('pictureMissing');
      const opened = markRaw(await engine.open(file.bytes.slice(), file.fileName, { drawnSidePx: job.value?.picture?.drawnSidePx }));
      if (entry.value?.pictureId === id) picture.value = opened;
    } catch (caught) {
      if (tries > 1 && isAppError(caught) && caught.code === 'workerLost') return await openPicture(tries - 1);
      pictureFailed.value = picture.value === undefined;
      throw caught;
    } finally {
      busy.value = undefined;
    }
  }

  /** Opens the job's picture anew; what goes wrong is shown. */
  async function reopenPicture(): Promise<void> {
    await openPicture().catch((caught: unknown) => (error.value = asAppError(caught, 'unexpected')));
  }

  /** Which picture file each state of the job goes with: undo brings the one before back. */
  const fileOf = new WeakMap<PictureInfo, string>();

  /** Gives the job another picture. The recipe stays: it is what is reused. When another job lies here by the time that it is read, it goes to the one that it was for. */
  async function setPicture(file: File): Promise<void> {
    const target = entry.value;
    if (target === undefined) return;
    checkFileSize(file.size, file.name);
    const bytes = new Uint8Array(await file.arrayBuffer());
    const opened = markRaw(await engine.open(bytes.slice(), file.name));
    const id = hashBytes(bytes);
    const info = pictureInfo(file.name, opened);
    fileOf.set(info, id);
    const kept = entry.value?.id === target.id ? entry.value : await storage.get(target.id);
    if (kept === undefined || kept.deletedAt !== undefined) return;
    const present = entry.value?.id === target.id ? history?.present : undefined;
    const next: Job = { ...(present ?? kept.job), picture: info };
    const saved = await shelf.save({ ...kept, pictureId: id, updatedAt: Date.now(), job: next }, { id, fileName: file.name, bytes });
    // Whatever was opened or changed while it was saved stands.
    if (entry.value?.id !== target.id || job.value === undefined) return;
    entry.value = saved;
    picture.value = opened;
    commit('Other picture', { ...job.value, picture: info });
  }

  /** After undo and redo of another picture the job goes with that one's file again. */
  function followPicture(info: PictureInfo | undefined): void {
    const id = info === undefined ? undefined : fileOf.get(info);
    if (id === undefined || entry.value === undefined || entry.value.pictureId === id) return;
    entry.value = { ...entry.value, pictureId: id };
    void reopenPicture();
  }

  /** Draws a vector picture at another size; what was put on it moves along. */
  async function drawAt(drawnSidePx: number): Promise<void> {
    const before = job.value?.picture;
    if (job.value === undefined || before?.drawnSidePx === undefined || drawnSidePx === before.drawnSidePx) return;
    const factor = drawnSidePx / before.drawnSidePx;
    const size = { widthPx: Math.round(before.widthPx * factor), heightPx: Math.round(before.heightPx * factor) };
    commit(`Drawn at ${drawnSidePx} px`, { ...scaledJob(job.value, factor), picture: { ...before, ...size, drawnSidePx } });
  }

  /** Changes the job for good; `label` names it for undo. */
  function commit(label: string, next: Job): void {
    history?.commit(label, next);
    showHistory();
  }
  /** Changes the job while something is dragged. */
  function preview(next: Job): void {
    history?.preview(next);
    dragging.value = true;
    showHistory();
  }
  function commitPreview(label: string): void {
    dragging.value = false;
    history?.commit(label);
    showHistory();
    void work();
  }
  function revert(): void {
    dragging.value = false;
    history?.revert();
    showHistory();
  }
  function undo(): void {
    dragging.value = false;
    history?.undo();
    showHistory();
  }
  function redo(): void {
    dragging.value = false;
    history?.redo();
    showHistory();
  }

  const dragging = ref(false);
  let turn = 0;
  /** The turn that is being worked on. Progress comes on a channel of its own and may arrive after the result it led to. */
  let underWay = 0;

  /** Brings what is shown up to date: a reduced run first when the picture is large, then, unless something is being dragged, the whole one. */
  async function work(): Promise<void> {
    const opened = picture.value;
    const current = job.value;
    if (opened === undefined || current === undefined) return;
    const mine = ++turn;
    underWay = mine;
    try {
      const large = opened.widthPx * opened.heightPx > 1_600_000;
      if (large) await runOnce(opened.pictureKey, current, 'preview', mine);
      // A newer change has its own run by now, which the rest of this one would cancel.
      if (mine !== turn) return;
      if (!dragging.value || !large) await runOnce(opened.pictureKey, current, 'final', mine);
    } catch (caught) {
      await onRunError(caught, mine);
    } finally {
      if (mine === turn) {
        underWay = 0;
        busy.value = undefined;
      }
    }
  }

  async function runOnce(pictureKey: string, current: Job, quality: 'preview' | 'final', mine: number): Promise<void> {
    const held = cleanView.value?.key;
    const heldBase = baseView.value?.key;
    const request = { pictureKey, job: current, quality, ...(held === undefined ? {} : { haveView: held }), ...(heldBase === undefined ? {} : { haveBase: heldBase }) };
    const done = await engine.run(request, (share) => {
      if (mine === underWay) busy.value = share;
    });
    if (mine !== turn) return;
    if (done.clean.view !== undefined) cleanView.value = markRaw({ key: done.clean.key, pixels: done.clean.view });
    if (done.base?.view !== undefined) baseView.value = markRaw({ key: done.base.key, pixels: done.base.view });
    result.value = markRaw(done);
    error.value = undefined;
    if (quality === 'final') shownJob.value = current;
  }

  async function onRunError(caught: unknown, mine: number): Promise<void> {
    const appError = asAppError(caught, 'unexpected');
    if (appError.code === 'cancelled' || mine !== turn) return;
    if (appError.code === 'pictureMissing' || appError.code === 'workerLost') {
      // The engine was started anew and has forgotten the picture.
      if (appError.code === 'workerLost') error.value = appError;
      await openPicture();
      return;
    }
    error.value = appError;
    shownJob.value = job.value;
    // What is shown was cut from other settings: it stands no longer, until a run succeeds.
    const { cut: _cut, tone: _tone, ...rest } = result.value ?? {};
    if (result.value !== undefined) result.value = markRaw({ ...rest, problem: plainFromError(appError) } as RunResult);
  }

  watch([job, picture], () => void work());
  watch(() => job.value?.picture, followPicture);
  // Undo and redo of the drawn size open the picture anew as well.
  watch(() => job.value?.picture?.drawnSidePx, (wanted) => {
    if (wanted !== undefined && picture.value !== undefined && picture.value.drawnSidePx !== wanted) void reopenPicture();
  });

  const { saving, saveError, saveNow } = keepJob({ entry, job, present: () => history?.present, pictureKey: () => picture.value?.pictureKey, commit, reopenPicture });

  /** The picture as places on it are counted: as it came, or turned and squared. */
  const base = computed(() => {
    const opened = picture.value;
    const turned = result.value?.base;
    if (opened === undefined || turned === undefined || baseView.value?.key !== turned.key) return opened;
    return { key: turned.key, widthPx: turned.widthPx, heightPx: turned.heightPx, view: baseView.value.pixels };
  });

  /** Whether what is shown is what the job says by now. */
  const isCurrent = computed(() => entry.value !== undefined && (entry.value.pictureId === undefined || pictureFailed.value || shownJob.value === job.value));

  const resolutionPxPerMm = computed(() => {
    const cut = result.value?.cut;
    if (cut !== undefined) return cut.design.resolution as number;
    const current = job.value;
    const opened = picture.value;
    if (current === undefined || opened === undefined) return undefined;
    return (current.assembly.by === 'width' ? opened.widthPx : opened.heightPx) / current.assembly.sizeMm;
  });

  return {
    entry, job, picture, base, isCurrent, result, cleanView, error, pictureFailed, saveError, busy, saving, dragging, undoLabel, redoLabel, resolutionPxPerMm,
    open, close, reopenPicture, setPicture, drawAt, commit, preview, commitPreview, revert, undo, redo, work, saveNow, cancel: () => engine.cancel(),
    propose: engine.propose.bind(engine), reach: engine.reach.bind(engine), moment: engine.moment.bind(engine), region: engine.region.bind(engine), proof: engine.proof.bind(engine), variant: engine.variant.bind(engine), parts: engine.parts.bind(engine), exportFile: engine.export.bind(engine),
  };
});
