import { bytesOf } from '../task/bytesOf.ts';
import { canonicalJson, hashText } from '../task/hash.ts';
import { Memo } from '../task/memo.ts';
import type { Task } from '../task/task.ts';
import { keepSteps, type KeptSteps } from './applyRecipe.ts';
import type { DesignRun, OwnLayers, RememberPart } from './designRun.ts';
import type { OutlinedArt } from './outlinePart.ts';
import type { Remember } from './separateArt.ts';
import type { TracedTones } from './traceTones.ts';

/**
 * What earlier runs made, by keys of what went in: for each arrow on the way from a picture to a design one memo. Dropping any of it changes nothing but time.
 */
export interface KeptRuns {
  readonly steps: KeptSteps;
  readonly tones: Memo<TracedTones>;
  readonly outlined: Memo<OutlinedArt>;
  readonly designs: Memo<DesignRun>;
  /** Objects once their operations are done. */
  readonly parts: Memo<OwnLayers>;
}

/** Room for each of them, bytes. */
export interface KeptRoom {
  readonly steps: number;
  readonly tones: number;
  readonly outlined: number;
  readonly designs: number;
  readonly parts: number;
}

export const keepRuns = ({ steps, tones, outlined, designs, parts }: KeptRoom): KeptRuns => ({
  steps: keepSteps(steps),
  tones: new Memo(tones),
  outlined: new Memo(outlined),
  designs: new Memo(designs),
  parts: new Memo(parts),
});

/** Gives what is kept under a key, or makes and keeps it. */
export function* keptOr<Value>(memo: Memo<Value> | undefined, key: string, make: () => Task<Value>): Task<Value> {
  const kept = memo?.get(key);
  if (kept !== undefined) return kept;
  const made = yield* make();
  memo?.set(key, made, bytesOf(made));
  return made;
}

/** What operations made of an object is kept, so that moving another one does not do them again. */
export const rememberParts =
  ({ parts }: Pick<KeptRuns, 'parts'>): RememberPart =>
  (key, make) => {
    const text = hashText(canonicalJson(key));
    const kept = parts.get(text);
    if (kept !== undefined) return kept;
    const made = make();
    parts.set(text, made, bytesOf(made));
    return made;
  };

/** Tones and mesh of an art are kept, so that another film, name or order does not trace again. @param artKey of the art that is traced. */
export const rememberTones =
  ({ tones }: Pick<KeptRuns, 'tones'>, artKey: string): Remember =>
  (settings, make) =>
    keptOr(tones, `${artKey} ${settings}`, make);
