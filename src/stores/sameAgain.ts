import { ref, shallowRef } from 'vue';
import { sameAgain, type Again } from '../core/edit/sameAgain.ts';
import type { Job } from '../core/job/job.ts';
import { useServices } from './services.ts';
import { openPicturesOf } from './openPicturesOf.ts';

/** What a job is at a size: its measures, and how many places the cut check would look at. */
export interface AgainView {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly findings: number;
}

/** A job of the shelf that is about to be made once more: what it is now, and what the new one would be. Called in a setup. */
export function useSameAgain() {
  const services = useServices();
  const job = shallowRef<Job>();
  const before = shallowRef<AgainView>();
  const after = shallowRef<AgainView>();
  const working = ref(false);
  let pictureKey: string | undefined;
  let turn = 0;

  async function look(of: Job, key: string): Promise<AgainView> {
    const { design, findings } = await services.engine.variant({ pictureKey: key, job: of });
    return { widthMm: design.widthMm, heightMm: design.heightMm, findings };
  }

  /** Looks at a job as it is. @throws AppError of the engine, `pictureMissing`. */
  async function begin(start: Job): Promise<void> {
    const mine = ++turn;
    [job.value, before.value, after.value, working.value] = [start, undefined, undefined, true];
    try {
      const key = await openPicturesOf(start, services);
      const seen = await look(start, key);
      if (mine !== turn) return;
      [pictureKey, before.value, after.value] = [key, seen, seen];
    } finally {
      if (mine === turn) working.value = false;
    }
  }

  const made = (again: Again): Job | undefined => (job.value === undefined ? undefined : sameAgain(job.value, again, before.value?.widthMm ?? 0));

  /** Looks at what the new one would be; the newest question counts. @throws AppError of the engine. */
  async function check(again: Again): Promise<void> {
    const next = made(again);
    if (next === undefined || pictureKey === undefined) return;
    const mine = ++turn;
    working.value = true;
    try {
      const seen = await look(next, pictureKey);
      if (mine === turn) after.value = seen;
    } finally {
      if (mine === turn) working.value = false;
    }
  }

  /** Nothing that is still under way counts any more. */
  function leave(): void {
    turn++;
    job.value = undefined;
  }

  return { job, before, after, working, begin, check, made, leave };
}
