import { jobSchema, type Job } from './job.ts';
import { newJob } from './newJob.ts';
import { stepSchema, type Step } from '../clean/recipe.ts';

/** Parts of a job that are read by themselves, with what they are called. */
const PARTS = {
  name: 'its name',
  keywords: 'its keywords',
  rights: 'whose picture it is',
  blank: 'the blank',
  process: 'the process',
  picture: 'what the picture is called',
  separation: 'how it is separated',
  otherWays: 'how the other ways of separating were left',
  assembly: 'size, place and films',
  layout: 'the lay-out',
  handOff: 'how it is handed off',
} as const satisfies Partial<Record<keyof Job, string>>;

/**
 * Makes a job of what can be read of a broken one: every part that passes by itself, and of its recipe and outlines each entry that does. The rest is as in a new job.
 * @returns the job, and what was lost, in words.
 */
export function salvageJob(stored: unknown): { job: Job; lost: readonly string[] } {
  const from: Readonly<Record<string, unknown>> = typeof stored === 'object' && stored !== null ? (stored as Record<string, unknown>) : {};
  const lost: string[] = [];
  let job: Job = newJob('Repaired job');
  const take = (key: string, value: unknown, words: string): void => {
    const tried = jobSchema.safeParse({ ...job, [key]: value });
    if (tried.success) job = tried.data;
    else lost.push(words);
  };
  for (const [key, words] of Object.entries(PARTS)) if (from[key] !== undefined) take(key, from[key], words);
  const recipe = Array.isArray(from['recipe']) ? from['recipe'] : [];
  const steps = recipe.flatMap((step): Step[] => {
    const tried = stepSchema.safeParse(step);
    return tried.success ? [tried.data] : [];
  });
  if (steps.length < recipe.length) lost.push(`${recipe.length - steps.length} of ${recipe.length} steps`);
  take('recipe', steps, 'the recipe');
  const { held, ...outline }: Readonly<Record<string, unknown>> = typeof from['outline'] === 'object' && from['outline'] !== null ? (from['outline'] as Record<string, unknown>) : {};
  if (from['outline'] !== undefined) take('outline', outline, 'how outlines are traced');
  const outlines = Array.isArray(held) ? held : [];
  let kept = 0;
  for (const each of outlines) {
    const tried = jobSchema.safeParse({ ...job, outline: { ...job.outline, held: [...(job.outline.held ?? []), each] } });
    if (!tried.success) continue;
    job = tried.data;
    kept++;
  }
  if (kept < outlines.length) lost.push(`${outlines.length - kept} of ${outlines.length} outlines edited by hand`);
  return { job, lost };
}
