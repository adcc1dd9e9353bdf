import { AppError, isAppError, type ErrorCode } from '../errors/appError.ts';
import type { Find } from '../clean/finds.ts';
import type { FinishedSize } from '../units/finishedSize.ts';
import type { StepContext, StepFacts, StepKind, StepOutcome } from '../clean/steps/step.ts';
import type { Art } from '../raster/art.ts';
import { within, type Task } from '../task/task.ts';
import { canonicalJson, hashText } from '../task/hash.ts';
import { Memo } from '../task/memo.ts';
import { STEP_KINDS, STEP_NAMES, type Recipe, type Step } from '../clean/recipe.ts';
import { say } from '../words/say.ts';
import { drawnLarger } from './drawnLarger.ts';

/** What became of one step. A step that could not apply is passed over and says why. */
export interface StepReport {
  readonly id: string;
  readonly facts: StepFacts;
  /** What the step found by itself, in picture pixels. */
  readonly finds?: readonly Find[];
  readonly skipped?: ErrorCode;
}

export interface CleanResult {
  readonly art: Art;
  /** Identifies this result: the same picture, steps and size give the same key. */
  readonly key: string;
  readonly steps: readonly StepReport[];
  /** The picture, or what turning and squaring made of it: what places in the recipe are counted in from then on. */
  readonly base: { readonly key: string; readonly art: Art };
}

export interface RecipeInput {
  readonly picture: Art;
  /** Identifies the picture's pixels. */
  readonly pictureKey: string;
  readonly recipe: Recipe;
  readonly finished: FinishedSize;
  /** What earlier runs found out; filled as this one goes. */
  readonly kept?: KeptSteps;
}

/** Step results of earlier runs: the arts, which are large and may be dropped at any time, and what each step reported. */
export interface KeptSteps {
  readonly outcomes: Memo<StepOutcome>;
  readonly reports: Memo<KeptReport>;
}

type KeptReport = Omit<StepReport, 'id'>;

/** A report counts for so much in its memo. */
const REPORT_BYTES = 1;

/** Room for step results: for arts in bytes, and for so many reports. */
export const keepSteps = (bytes: number, reports = 2000): KeptSteps => ({ outcomes: new Memo(bytes), reports: new Memo(reports) });

/**
 * Runs a recipe's switched-on steps in order. A pure function of its input: with or without kept results the pixels are the same. It goes on after the last
 * step whose result is kept, so that a change costs only what comes after it, whatever was dropped before.
 */
export function* applyRecipe({ picture, pictureKey, recipe, finished, kept }: RecipeInput): Task<CleanResult> {
  const active = recipe.filter((step) => step.enabled);
  const keys = keysOf(active, hashText(`${pictureKey}@${picture.frame.scale}`), finished);
  const start = kept === undefined ? undefined : lastKept(active, keys, kept);
  let base = start?.base ?? { key: pictureKey, art: picture };
  let art = start?.art ?? picture;
  const steps: StepReport[] = start?.steps ?? [];
  for (let index = steps.length; index < active.length; index++) {
    const step = active[index];
    const kind = STEP_KINDS[step.kind] as StepKind<Step>;
    const key = keys[index];
    const known = kept?.reports.get(key);
    if (known?.skipped !== undefined) {
      steps.push({ id: step.id, ...known });
      continue;
    }
    const context: StepContext = { picture: base.art, finished, enlarge: drawnLarger };
    let outcome: StepOutcome;
    try {
      outcome = yield* within(kind.run(art, step, context), index / active.length, (index + 1) / active.length);
    } catch (error) {
      if (!isAppError(error))
        throw new AppError(
          'unexpected',
          {
            message: error instanceof Error ? error.message : String(error),
            at: say`doing “${STEP_NAMES[step.kind]}”`,
            change: say`Switch off or change the step “${STEP_NAMES[step.kind]}”`,
          },
          error,
        );
      const report = { facts: {}, skipped: error.code };
      kept?.reports.set(key, report, REPORT_BYTES);
      steps.push({ id: step.id, ...report });
      continue;
    }
    const report = reportOf(outcome);
    kept?.outcomes.set(key, outcome, ownBytes(outcome.art, art));
    kept?.reports.set(key, report, REPORT_BYTES);
    art = outcome.art;
    if (kind.isBase === true) base = { key, art };
    steps.push({ id: step.id, ...report });
    yield (index + 1) / active.length;
  }
  return { art, key: keys.at(-1) ?? hashText(`${pictureKey}@${picture.frame.scale}`), steps, base };
}

/** A key for the result of each step: of what went in, its settings and the revision of what it does. */
function keysOf(active: Recipe, start: string, finished: FinishedSize): string[] {
  let key = start;
  return active.map((step) => {
    const kind = STEP_KINDS[step.kind] as StepKind<Step>;
    key = hashText(`${key}|${kind.revision}|${canonicalJson(settingsOf(step))}|${kind.readsSize ? canonicalJson(finished) : ''}`);
    return key;
  });
}

interface Start {
  readonly art: Art;
  readonly base?: CleanResult['base'];
  readonly steps: StepReport[];
}

/**
 * The state after the last step whose art is kept, if all that is needed of the steps up to it is kept as well: their reports, and the art that places count
 * in.
 */
function lastKept(active: Recipe, keys: readonly string[], { outcomes, reports }: KeptSteps): Start | undefined {
  for (let last = active.length - 1; last >= 0; last--) {
    if (!outcomes.has(keys[last])) continue;
    const steps = active.slice(0, last + 1).flatMap((step, k) => {
      const report = reports.get(keys[k]);
      return report === undefined ? [] : [{ id: step.id, ...report }];
    });
    if (steps.length <= last) continue;
    const baseAt = active.findLastIndex((step, k) => k <= last && STEP_KINDS[step.kind].isBase === true && steps[k].skipped === undefined);
    const base = baseAt < 0 ? undefined : outcomes.get(keys[baseAt]);
    const outcome = outcomes.get(keys[last]);
    if (outcome === undefined || (baseAt >= 0 && base === undefined)) continue;
    return { art: outcome.art, steps, ...(base === undefined ? {} : { base: { key: keys[baseAt], art: base.art } }) };
  }
  return undefined;
}

const reportOf = ({ facts, finds }: StepOutcome): KeptReport => (finds === undefined ? { facts } : { facts, finds });

/** A step without what does not change its result. */
function settingsOf(step: Step): Record<string, unknown> {
  const { id: _id, enabled: _enabled, ...settings } = step;
  return settings;
}

/** Bytes that a result holds beyond those it shares with the art it was made from. */
function ownBytes(art: Art, from: Art): number {
  return (art.alpha === from.alpha ? 0 : art.alpha.byteLength) + (art.colour === from.colour ? 0 : art.colour.data.byteLength);
}
