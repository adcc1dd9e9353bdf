import { ref, shallowRef } from 'vue';
import { leanJob, wholeJob, type LeanJob } from '../core/edit/leanJob.ts';
import type { Job } from '../core/job/job.ts';
import { History } from './history.ts';

/** The job on the bench with undo and redo, and whether something of it is being dragged. */
export function jobHistory() {
  let history: History<Job, LeanJob> | undefined;
  const job = shallowRef<Job>();
  const undoLabel = ref<string>();
  const redoLabel = ref<string>();
  const dragging = ref(false);

  function show(): void {
    job.value = history?.present;
    undoLabel.value = history?.undoLabel;
    redoLabel.value = history?.redoLabel;
  }

  /** Begins anew with another job, or with none. */
  function begin(start: Job | undefined): void {
    history = start === undefined ? undefined : new History(start, { kept: leanJob, whole: wholeJob });
    show();
  }
  /** Changes the job for good; `label` names it for undo. */
  function commit(label: string, next: Job): void {
    history?.commit(label, next);
    show();
  }
  /** Changes the job while something is dragged. */
  function preview(next: Job): void {
    history?.preview(next);
    dragging.value = true;
    show();
  }
  function commitPreview(label: string): void {
    dragging.value = false;
    history?.commit(label);
    show();
  }
  const moved = (move: (of: History<Job, LeanJob>) => void) => (): void => {
    dragging.value = false;
    if (history !== undefined) move(history);
    show();
  };

  return {
    job, undoLabel, redoLabel, dragging, begin, commit, preview, commitPreview, present: () => history?.present,
    revert: moved((of) => of.revert()), undo: moved((of) => of.undo()), redo: moved((of) => of.redo()),
  };
}
