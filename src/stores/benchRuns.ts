import { markRaw, type Ref, type ShallowRef } from 'vue';
import { asAppError, isAppError, plainFromError, type AppError } from '../core/errors/appError.ts';
import type { Job } from '../core/job/job.ts';
import type { Rgba8 } from '../core/raster/raster.ts';
import type { Engine, OpenedPicture, Quality, RunRequest, RunResult } from '../engine/protocol.ts';
import type { KeyedView } from './keptResult.ts';

/** Of a larger picture a reduced run is shown until the whole one is done, px. */
const LARGE_PX = 1_600_000;

/** What of the bench runs read and write. */
export interface RunState {
  readonly picture: ShallowRef<OpenedPicture | undefined>;
  readonly job: Ref<Job | undefined>;
  readonly result: ShallowRef<RunResult | undefined>;
  readonly cleanView: ShallowRef<KeyedView | undefined>;
  readonly baseView: ShallowRef<KeyedView | undefined>;
  readonly error: ShallowRef<AppError | undefined>;
  readonly busy: Ref<number | undefined>;
  /** The job that what is shown was made of, at full size. */
  readonly shownJob: ShallowRef<Job | undefined>;
  readonly dragging: Ref<boolean>;
  /** Resolves once the engine has the picture. */
  readonly opened: () => Promise<void>;
  /** Opens the picture anew in an engine that has forgotten it. */
  readonly reopen: () => Promise<void>;
  readonly onStart: () => void;
  /** The traced part that is worked on. */
  readonly partId: () => string | undefined;
}

interface Views {
  readonly clean?: KeyedView | undefined;
  readonly base?: KeyedView | undefined;
}

/** Brings what is shown of a job up to date. */
export function benchRuns(engine: Engine, { picture, job, result, cleanView, baseView, error, busy, shownJob, dragging, opened, reopen, onStart, partId }: RunState) {
  let turn = 0;
  /** The turn that is being worked on. Progress comes on a channel of its own and may arrive after the result it led to. */
  let underWay = 0;
  /** What the last run of the whole picture showed: the next one leaves the pixels out where they still hold, whatever a reduced one shows meanwhile. */
  let ofWhole: Views = {};

  /** Of a large picture a reduced run, and beside it, unless something is being dragged, the whole one. */
  async function work(): Promise<void> {
    const current = job.value;
    const of = picture.value;
    if (of === undefined || current === undefined) return;
    const mine = ++turn;
    underWay = mine;
    onStart();
    try {
      await opened().catch(() => undefined);
      if (mine !== turn) return;
      const large = of.widthPx * of.heightPx > LARGE_PX;
      const reduced = large ? runOnce(of.pictureKey, current, 'preview', mine).catch(unlessCancelled) : undefined;
      const whole = !dragging.value || !large ? runOnce(of.pictureKey, current, 'final', mine) : undefined;
      await Promise.all([reduced, whole]);
    } catch (caught) {
      await onRunError(caught, mine);
    } finally {
      if (mine === turn) {
        underWay = 0;
        busy.value = undefined;
      }
    }
  }

  async function runOnce(pictureKey: string, current: Job, quality: Quality, mine: number): Promise<void> {
    const have: Views = quality === 'final' ? ofWhole : { clean: cleanView.value, base: baseView.value };
    const done = await engine.run({ pictureKey, job: current, part: partId(), quality, ...keysOf(have) }, (share) => {
      if (mine === underWay && (quality === 'final' || dragging.value)) busy.value = share;
    });
    // What the whole picture gave stands, should the reduced one come after it.
    if (mine !== turn || (quality === 'preview' && shownJob.value === current)) return;
    const shown: Views = { clean: keyed(done.clean, have.clean), base: done.base === undefined ? baseView.value : keyed(done.base, have.base) };
    cleanView.value = shown.clean;
    baseView.value = shown.base;
    result.value = markRaw(done);
    error.value = undefined;
    if (quality === 'preview') return;
    ofWhole = shown;
    shownJob.value = current;
  }

  async function onRunError(caught: unknown, mine: number): Promise<void> {
    const appError = asAppError(caught, 'unexpected');
    if (appError.code === 'cancelled' || mine !== turn) return;
    if (appError.code === 'pictureMissing' || appError.code === 'workerLost') {
      // The engine was started anew and has forgotten the picture.
      if (appError.code === 'workerLost') error.value = appError;
      await reopen();
      return;
    }
    error.value = appError;
    shownJob.value = job.value;
    // What is shown was cut from other settings: it stands no longer, until a run succeeds.
    const { cut: _cut, tone: _tone, ...rest } = result.value ?? {};
    if (result.value !== undefined) result.value = markRaw({ ...rest, problem: plainFromError(appError) } as RunResult);
  }

  /** Keys of what is shown, whose pixels a run may leave out. */
  const haveViews = (): Pick<RunRequest, 'haveView' | 'haveBase'> => keysOf({ clean: cleanView.value, base: baseView.value });

  return { work, haveViews };
}

const keysOf = ({ clean, base }: Views): Pick<RunRequest, 'haveView' | 'haveBase'> => ({ ...(clean === undefined ? {} : { haveView: clean.key }), ...(base === undefined ? {} : { haveBase: base.key }) });

/** The pixels that came with a run, or those that it left out because they were there. */
const keyed = ({ key, view }: { readonly key: string; readonly view?: Rgba8 }, had: KeyedView | undefined): KeyedView | undefined => (view === undefined ? had : markRaw({ key, pixels: view }));

/** A reduced run that was given up for a newer one is no fault. */
function unlessCancelled(caught: unknown): void {
  if (!isAppError(caught) || caught.code !== 'cancelled') throw caught;
}
