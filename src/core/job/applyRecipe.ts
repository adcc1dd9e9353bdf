import { isAppError, type ErrorCode } from '../errors/appError.ts';
import type { Find } from '../clean/finds.ts';
import type { FinishedSize } from '../clean/finishedSize.ts';
import type { StepContext, StepFacts, StepKind, StepOutcome } from '../clean/steps/step.ts';
import type { Art } from '../raster/art.ts';
import { within, type Task } from '../task/task.ts';
import { canonicalJson, hashText } from './hash.ts';
import type { Memo } from './memo.ts';
import { STEP_KINDS, type Recipe, type Step } from './recipe.ts';

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
  /** Step results of earlier runs; filled as this one goes. */
  readonly memo?: Memo<StepOutcome>;
}

/** Runs a recipe's switched-on steps in order. A pure function of its input: with or without the memo the pixels are the same. */
export function* applyRecipe({ picture, pictureKey, recipe, finished, memo }: RecipeInput): Task<CleanResult> {
  let base = { key: pictureKey, art: picture };
  const active = recipe.filter((step) => step.enabled);
  const steps: StepReport[] = [];
  let art = picture;
  let key = hashText(`${pictureKey}@${picture.frame.scale}`);
  for (const [index, step] of active.entries()) {
    const kind = STEP_KINDS[step.kind] as StepKind<Step>;
    key = hashText(`${key}|${kind.revision}|${canonicalJson(settingsOf(step))}|${kind.readsSize ? canonicalJson(finished) : ''}`);
    let outcome = memo?.get(key);
    if (outcome === undefined) {
      const context: StepContext = { picture: base.art, finished };
      try {
        outcome = yield* within(kind.run(art, step, context), index / active.length, (index + 1) / active.length);
      } catch (error) {
        if (!isAppError(error)) throw error;
        steps.push({ id: step.id, facts: {}, skipped: error.code });
        continue;
      }
      memo?.set(key, outcome, ownBytes(outcome.art, art));
    }
    art = outcome.art;
    if (kind.isBase === true) base = { key, art };
    steps.push({ id: step.id, facts: outcome.facts, ...(outcome.finds === undefined ? {} : { finds: outcome.finds }) });
    yield (index + 1) / active.length;
  }
  return { art, key, steps, base };
}

/** A step without what does not change its result. */
function settingsOf(step: Step): Record<string, unknown> {
  const { id: _id, enabled: _enabled, ...settings } = step;
  return settings;
}

/** Bytes that a result holds beyond those it shares with the art it was made from. */
function ownBytes(art: Art, from: Art): number {
  return (art.alpha === from.alpha ? 0 : art.alpha.byteLength) + (art.colour === from.colour ? 0 : art.colour.data.byteLength);
}
