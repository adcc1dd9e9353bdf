import { AppError } from '../errors/appError.ts';
import { z } from 'zod';
import { JOB_VERSION, jobSchema, type Job } from './job.ts';
import { migrated } from './migrations.ts';
import { isTooDeep, MAX_GROUPS_DEEP } from './objects.ts';
import { tracedPart } from './tracedPart.ts';
import { recipeSchema, STEP_KINDS, type Recipe } from '../clean/recipe.ts';
import { STEP_VERSION } from '../clean/steps/step.ts';
import { say } from '../words/say.ts';

const stepHeadSchema = z.object({ kind: z.string().max(60), v: z.number().int() });
const headSchema = z.object({ format: z.literal('limner-job'), version: z.number().int().min(1) });

/**
 * Checks a value from outside (a file, a stored row) and gives it as a job of the present version.
 * @param pictureId what the picture of a job from before version 4 is known by.
 * @throws AppError `newerVersion`, or `badJob` with the first thing that is wrong.
 */
export function readJob(value: unknown, file = say('The job'), pictureId?: string): Job {
  const head = headSchema.safeParse(value);
  if (!head.success) throw new AppError('badJob', { file, reason: say('it is not a Limner job') });
  if (head.data.version > JOB_VERSION) throw new AppError('newerVersion', { file, version: head.data.version, reads: JOB_VERSION });
  const present = migrated(value, head.data.version, pictureId);
  const { objects } = present as { objects?: unknown };
  if (isTooDeep(objects)) throw new AppError('badJob', { file, reason: say`its groups lie in each other more than ${MAX_GROUPS_DEEP} deep` });
  for (const recipe of recipesIn(objects)) refuseNewerSteps(recipe, file);
  const parsed = jobSchema.safeParse(present);
  if (!parsed.success) throw new AppError('badJob', { file, reason: firstIssue(parsed.error) });
  return parsed.data;
}

/**
 * Checks a recipe from outside: a list of steps, or a job, whose recipe is taken.
 * @throws AppError `newerVersion`, `unknownStep`, `badRecipe`, or `badJob`.
 */
export function readRecipe(value: unknown, file = say('The recipe')): Recipe {
  if (!Array.isArray(value)) return tracedPart(readJob(value, file)).recipe;
  refuseNewerSteps(value, file);
  const parsed = recipeSchema.safeParse(value);
  if (!parsed.success) throw new AppError('badRecipe', { file, reason: firstIssue(parsed.error) });
  return parsed.data;
}

/** The recipes of a value that is not checked yet, as far as they are lists. */
function recipesIn(objects: unknown): unknown[][] {
  if (!Array.isArray(objects)) return [];
  return objects.flatMap((object: unknown) => {
    if (typeof object !== 'object' || object === null) return [];
    const { recipe, objects: inner } = object as { recipe?: unknown; objects?: unknown };
    return [...(Array.isArray(recipe) ? [recipe as unknown[]] : []), ...recipesIn(inner)];
  });
}

/** A step of a later version, or of a kind that this version lacks, is told as what it is and not as a fault of the file. */
function refuseNewerSteps(steps: readonly unknown[], file: string): void {
  for (const step of steps) {
    const head = stepHeadSchema.safeParse(step);
    if (!head.success) continue;
    const { kind, v } = head.data;
    if (v > STEP_VERSION) throw new AppError('newerVersion', { file, version: v, reads: STEP_VERSION });
    if (!(kind in STEP_KINDS)) throw new AppError('unknownStep', { file, kind });
  }
}

/** What is wrong first, in plain words: where, and what belongs there. */
export function firstIssue(error: z.ZodError): string {
  return issueWords(error.issues[0]);
}

type Issue = z.ZodError['issues'][number];

function issueWords(issue: Issue): string {
  const path = issue.path.map((part) => (typeof part === 'number' ? say`entry ${part + 1}` : String(part))).join(', ');
  const where = path === '' ? say('it') : `“${path}”`;
  switch (issue.code) {
    case 'invalid_type':
      return issue.message.endsWith('received undefined')
        ? say`${where} is missing; it takes ${KIND_WORDS[issue.expected] ?? issue.expected}`
        : say`${where} should be ${KIND_WORDS[issue.expected] ?? issue.expected}`;
    case 'unrecognized_keys':
      return say`${where} has ${issue.keys.length === 1 ? say('an entry that is') : say('entries that are')} not known: ${issue.keys.join(', ')}`;
    case 'invalid_value':
      return say`${where} should be ${issue.values.map(String).join(say(' or '))}`;
    case 'too_small':
      return say`${where} is too small: the least is ${String(issue.minimum)}`;
    case 'too_big':
      return say`${where} is too large: the most is ${String(issue.maximum)}`;
    case 'invalid_union': {
      // The kind that the value came nearest to says what is wrong with it: the one whose complaint lies deepest, or that has the right shape.
      const nearest = issue.errors
        .flat()
        .filter(({ code, path: at }) => code === 'custom' || at.length > 0)
        .sort((a, b) => b.path.length - a.path.length)[0];
      return nearest === undefined ? say`${where} is of no kind that is known` : issueWords({ ...nearest, path: [...issue.path, ...nearest.path] } as Issue);
    }
    case 'invalid_format':
    case 'custom':
      return say`${where} is not as it should be: ${issue.message}`;
    default:
      return say`${where} cannot be read`;
  }
}

const KIND_WORDS: Readonly<Record<string, string>> = {
  string: say('text'),
  number: say('a number'),
  int: say('a whole number'),
  boolean: say('true or false'),
  array: say('a list'),
  object: say('a group of entries'),
  tuple: say('a pair'),
};
