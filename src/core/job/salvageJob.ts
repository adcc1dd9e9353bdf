import { stepSchema, type Step } from '../clean/recipe.ts';
import { jobSchema, type Job } from './job.ts';
import { migrated } from './migrations.ts';
import { newJob } from './newJob.ts';
import type { TracedObject } from './objects.ts';
import { FIRST_OBJECT_ID, tracedPart, withPart } from './tracedPart.ts';
import { say } from '../words/say.ts';
import { isFields, type Fields } from './fields.ts';

/** Parts of a job that are read by themselves, with what they are called. */
const PARTS = {
  name: say('its name'),
  keywords: say('its keywords'),
  rights: say('whose picture it is'),
  blank: say('the blank'),
  process: say('the process'),
  pictures: say('what the pictures are called'),
  films: say('the films'),
  place: say('where it lies on the blank'),
  layout: say('the lay-out'),
  handOff: say('how it is handed off'),
  order: say('its customer and notes'),
} as const satisfies Partial<Record<keyof Job, string>>;

/** Parts of a traced object, likewise. */
const TRACED_PARTS = {
  name: say('the name of a part'),
  placement: say('where a part lies'),
  picture: say('which picture it is made of'),
  separation: say('how it is separated'),
  otherWays: say('how the other ways of separating were left'),
  size: say('the size'),
} as const satisfies Partial<Record<keyof TracedObject, string>>;

/** Versions of the format, newest first, by what only they have. */
const versionOf = (from: Fields): number => ('objects' in from || 'films' in from ? 4 : 3);

/**
 * Makes a job of what can be read of a broken one: every part that passes by itself, and of its objects, recipes and outlines each entry that does. The rest is
 * as in a new job.
 * @param pictureId what the picture of a job from before version 4 is known by.
 * @returns the job, and what was lost, in words.
 */
export function salvageJob(stored: unknown, pictureId?: string): { job: Job; lost: readonly string[] } {
  const from = fieldsOf(migrated(fieldsOf(stored), versionOf(fieldsOf(stored)), pictureId));
  const lost: string[] = [];
  let job: Job = newJob(say('Repaired job'));
  for (const [key, words] of Object.entries(PARTS)) {
    if (from[key] === undefined) continue;
    const tried = jobSchema.safeParse({ ...job, [key]: from[key] });
    if (tried.success) job = tried.data;
    else lost.push(words);
  }
  const objects = Array.isArray(from['objects']) ? from['objects'].map(fieldsOf) : [];
  const first = objects.findIndex(({ kind }) => kind === 'traced' || kind === undefined);
  if (first >= 0) job = withTraced(job, objects[first], lost);
  for (const [k, object] of objects.entries()) {
    if (k === first) continue;
    const tried = jobSchema.safeParse({
      ...job,
      objects: k < first ? [...job.objects.slice(0, -1), object, ...job.objects.slice(-1)] : [...job.objects, object],
    });
    if (tried.success) job = tried.data;
    else lost.push(say('a part of the design'));
  }
  return { job, lost };
}

/** The job with its traced object as far as that can be read; what was lost is added. */
function withTraced(start: Job, from: Fields, lost: string[]): Job {
  let job = start;
  const take = (change: Fields, words: string): void => {
    const { films: _films, ...object } = tracedPart(job);
    const tried = jobSchema.safeParse({ ...job, objects: [{ ...object, ...change }] });
    if (tried.success) job = tried.data;
    else lost.push(words);
  };
  if (from['id'] !== undefined && from['id'] !== FIRST_OBJECT_ID) take({ id: from['id'] }, say('what a part is called by'));
  for (const [key, words] of Object.entries(TRACED_PARTS)) if (from[key] !== undefined) take({ [key]: from[key] }, words);
  const recipe = Array.isArray(from['recipe']) ? from['recipe'] : [];
  const steps = recipe.flatMap((step): Step[] => {
    const tried = stepSchema.safeParse(step);
    return tried.success ? [tried.data] : [];
  });
  if (steps.length < recipe.length) lost.push(say`${recipe.length - steps.length} of ${recipe.length} steps`);
  take({ recipe: steps }, say('the recipe'));
  const { held, ...outline } = fieldsOf(from['outline']);
  if (from['outline'] !== undefined) take({ outline }, say('how outlines are traced'));
  const outlines = Array.isArray(held) ? held : [];
  let kept = 0;
  for (const each of outlines) {
    const part = tracedPart(job);
    const tried = jobSchema.safeParse(withPart(job, { ...part, outline: { ...part.outline, held: [...(part.outline.held ?? []), each] } }));
    if (!tried.success) continue;
    job = tried.data;
    kept++;
  }
  if (kept < outlines.length) lost.push(say`${outlines.length - kept} of ${outlines.length} outlines edited by hand`);
  return job;
}

const fieldsOf = (value: unknown): Fields => (isFields(value) ? value : {});
