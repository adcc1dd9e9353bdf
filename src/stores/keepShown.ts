import { markRaw, watch, type Ref, type ShallowRef } from 'vue';
import type { Job } from '../core/job/job.ts';
import type { OpenedPicture, RunResult } from '../engine/protocol.ts';
import type { JobStorage, ShelfEntry } from '../storage/ports.ts';
import { BUILD } from './build.ts';
import { KeptResults, type KeyedView, type Shown } from './keptResult.ts';

/** What is shown is kept this long after it was made: while settings change quickly, only the last of it. */
const KEEP_AFTER_MS = 600;
/** Outlines that take more than this are written into the database in one pause that is felt, bytes: it waits until nothing was changed for longer. */
const LARGE_BYTES = 1_000_000;
const KEEP_LARGE_AFTER_MS = 5000;

/** What is shown of the job on the bench. */
export interface ShownState {
  readonly entry: ShallowRef<ShelfEntry | undefined>;
  readonly picture: ShallowRef<OpenedPicture | undefined>;
  readonly result: ShallowRef<RunResult | undefined>;
  readonly cleanView: ShallowRef<KeyedView | undefined>;
  readonly baseView: ShallowRef<KeyedView | undefined>;
  /** The job that it was made of. */
  readonly shownJob: ShallowRef<Job | undefined>;
  readonly dragging: Ref<boolean>;
  /** Whether what is shown is of the part that a job opens with. */
  readonly isFirstPart: () => boolean;
}

/** Keeps what is shown beside the job, and shows it again when the job is opened, before its picture is even read. */
export function keepShown(storage: JobStorage, { entry, picture, result, cleanView, baseView, shownJob, dragging, isFirstPart }: ShownState) {
  const kept = new KeptResults(storage, BUILD);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let due: (() => Promise<void>) | undefined;
  /** The job that what was kept was shown for: it need not be kept again. */
  let again: Job | undefined;

  function show({ picture: opened, result: made, clean, base }: Shown, job: Job): void {
    picture.value = markRaw(opened);
    cleanView.value = markRaw(clean);
    baseView.value = base === undefined ? undefined : markRaw(base);
    result.value = markRaw(made);
    again = job;
    shownJob.value = job;
  }

  watch(shownJob, (made) => {
    clearTimeout(timer);
    due = made === undefined || made === again ? undefined : dueOf(made);
    if (due !== undefined) timer = setTimeout(flush, outlineBytes() > LARGE_BYTES ? KEEP_LARGE_AFTER_MS : KEEP_AFTER_MS);
  });

  const outlineBytes = (): number => (result.value?.cut?.films ?? []).reduce((sum, { outline }) => sum + outline.coords.byteLength, 0);

  /** What is shown now, together: by the time it is written another picture may lie here. */
  function dueOf(job: Job): (() => Promise<void>) | undefined {
    const [at, opened, made, clean, base] = [entry.value, picture.value, result.value, cleanView.value, baseView.value];
    if (dragging.value || !isFirstPart() || at === undefined || opened === undefined || made?.quality !== 'final' || made.cut === undefined || clean === undefined) return undefined;
    return () => kept.write(at.id, job, { picture: opened, result: made, clean, ...(base === undefined ? {} : { base }) });
  }

  /** Keeps now what is due. */
  function flush(): void {
    clearTimeout(timer);
    void due?.();
    due = undefined;
  }

  return { read: kept.read.bind(kept), show, flush };
}
