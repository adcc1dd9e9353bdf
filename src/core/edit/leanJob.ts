import type { Job } from '../job/job.ts';
import { eachOutline, LONG_OUTLINE_CHARS, withOutlines } from '../job/jobOutlines.ts';

/** Characters that are compared at a time. */
const AT_ONCE = 4096;

/** A long outline as what differs from the one that stands at the same place of the job beside: characters alike at front and back, and what lies between. */
interface OutlineCut {
  /** Which of the job's outlines. */
  readonly at: number;
  readonly front: number;
  readonly back: number;
  readonly middle: string;
}

/** A job as undo keeps it. An edit of one node leaves a few characters of what may be megabytes. */
export interface LeanJob {
  /** The job; outlines that are cut are empty in it. */
  readonly job: Job;
  readonly cuts: readonly OutlineCut[];
}

/** A job, lean, as it differs from the one that is a step away from it. One without long outlines that differ is kept as it is. */
export function leanJob(job: Job, beside: Job): LeanJob {
  const others = pathsOf(beside);
  const cuts: OutlineCut[] = [];
  let at = -1;
  const lean = withOutlines(job, (outline) => {
    const { path } = outline;
    const other = others[++at];
    if (typeof path !== 'string' || path.length < LONG_OUTLINE_CHARS || other === undefined || other === path) return outline;
    cuts.push({ at, ...cutOf(path, other) });
    return { ...outline, path: '' };
  });
  return { job: lean, cuts };
}

/** The job that `leanJob` was given, out of the one that it was given beside. */
export function wholeJob({ job, cuts }: LeanJob, beside: Job): Job {
  if (cuts.length === 0) return job;
  const others = pathsOf(beside);
  let at = -1;
  return withOutlines(job, (outline) => {
    const own = ++at;
    const cut = cuts.find((each) => each.at === own);
    if (cut === undefined) return outline;
    const other = others[own] ?? '';
    return { ...outline, path: other.slice(0, cut.front) + cut.middle + other.slice(other.length - cut.back) };
  });
}

function pathsOf(job: Job): (string | undefined)[] {
  const paths: (string | undefined)[] = [];
  eachOutline(job, ({ path }) => void paths.push(typeof path === 'string' ? path : undefined));
  return paths;
}

function cutOf(path: string, other: string): Pick<OutlineCut, 'front' | 'back' | 'middle'> {
  const front = alike(path.length, other.length, (from, to) => path.slice(from, to) === other.slice(from, to));
  const end = (text: string, from: number, to: number): string => text.slice(text.length - to, text.length - from);
  const back = alike(path.length - front, other.length - front, (from, to) => end(path, from, to) === end(other, from, to));
  // A copy: a part of a string may hold on to all of it.
  return { front, back, middle: JSON.parse(JSON.stringify(path.slice(front, path.length - back))) as string };
}

/** How many characters of two texts are alike, counted from one end. */
function alike(length: number, other: number, isAlike: (from: number, to: number) => boolean): number {
  const most = Math.min(length, other);
  let at = 0;
  for (let step = AT_ONCE; step >= 1; step = Math.floor(step / 2)) while (at + step <= most && isAlike(at, at + step)) at += step;
  return at;
}
