import type { Job } from '../job/job.ts';
import { plainObjects, type DesignObject } from '../job/objects.ts';
import type { HeldOutline } from '../outline/outlineSettings.ts';

/** Outlines shorter than this are kept as they are, characters. */
const LEAST_CHARS = 4096;
/** Characters that are compared at a time. */
const AT_ONCE = 4096;

/** An outline held by hand as what differs from the one of the moment beside: characters alike at its front and back, and what lies between. */
interface OutlineCut {
  readonly part: string;
  readonly film: string;
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

/** A job, lean, as it differs from the one that is a step away from it. One without long outlines by hand is kept as it is. */
export function leanJob(job: Job, beside: Job): LeanJob {
  const cuts = plainObjects(job.objects).flatMap(({ id: part, ...object }): OutlineCut[] => {
    if (object.kind !== 'traced') return [];
    return (object.outline.held ?? []).flatMap(({ film, path }) => {
      const other = heldBy(beside, part, film)?.path;
      return path.length < LEAST_CHARS || other === undefined || other === path ? [] : [{ part, film, ...cutOf(path, other) }];
    });
  });
  return { job: cuts.length === 0 ? job : withPaths(job, cuts, () => ''), cuts };
}

/** The job that `leanJob` was given, out of the one that it was given beside. */
export const wholeJob = ({ job, cuts }: LeanJob, beside: Job): Job =>
  cuts.length === 0 ? job : withPaths(job, cuts, ({ part, film, front, back, middle }) => {
    const other = heldBy(beside, part, film)?.path ?? '';
    return other.slice(0, front) + middle + other.slice(other.length - back);
  });

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

function heldBy({ objects }: Job, part: string, film: string): HeldOutline | undefined {
  const found = plainObjects(objects).find(({ id }) => id === part);
  return found?.kind === 'traced' ? found.outline.held?.find((held) => held.film === film) : undefined;
}

/** The job with other texts for the outlines that are cut. */
function withPaths(job: Job, cuts: readonly OutlineCut[], pathOf: (cut: OutlineCut) => string): Job {
  const changed = (objects: readonly DesignObject[]): DesignObject[] =>
    objects.map((object) => {
      if (object.kind === 'group') return { ...object, objects: changed(object.objects) };
      const own = cuts.filter(({ part }) => part === object.id);
      if (object.kind !== 'traced' || own.length === 0) return object;
      const held = (object.outline.held ?? []).map((each) => {
        const cut = own.find(({ film }) => film === each.film);
        return cut === undefined ? each : { ...each, path: pathOf(cut) };
      });
      return { ...object, outline: { ...object.outline, held } };
    });
  return { ...job, objects: changed(job.objects) };
}
