import type { Rgb } from '../../colour/oklab.ts';
import { isOpaque, type Art } from '../../raster/art.ts';
import { isAppError } from '../../errors/appError.ts';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';
import { within, type Task } from '../../task/task.ts';
import { isRestless } from '../isRestless.ts';
import type { Tone, ToneCount } from '../palette.ts';
import { bringBack } from '../strokes/dots.ts';
import { dropOvershoots } from './dropOvershoots.ts';
import { dropSlivers } from './dropSlivers.ts';
import { sweepLabels } from './sweepLabels.ts';
import { toneLabels } from './toneLabels.ts';

/** Connected bits smaller than this are noise where art carries any, px², unless they are a dot. */
export const LEAST_NOISE_PX2 = 5;
/** In calm art a pixel that stands alone is. */
const LEAST_CALM_PX2 = 2;

export interface SettlingOptions {
  /** How many tones, what is clear not among them, or the tones themselves. */
  readonly count: ToneCount | readonly Rgb[];
  /** Tones that are among those found in any case. */
  readonly held?: readonly Rgb[];
  /** Connected bits smaller than this go to what surrounds them too, px². */
  readonly leastAreaPx2?: number;
  /** Refuse what has too many areas to be anything but noise; else its bits stay. */
  readonly refuses?: boolean;
}

export interface SettledTones {
  /** Most frequent first. */
  readonly tones: readonly Tone[];
  /** Index into `tones` for every pixel; what is clear has the nearest one too. */
  readonly labels: Uint8Array;
  /** The same with `CLEAR` for what is more clear than not. */
  readonly withClear: Uint8Array;
  /** Whether the art carries noise or what compression leaves around edges. */
  readonly restless: boolean;
}

/**
 * The tones of an art and which of them every pixel has, settled: without slivers of a third tone along edges, and without bits that noise or compression leave.
 * Cleaning and separation see the same areas by it.
 * @throws AppError `tooIntricate` for noise, where that is refused.
 */
export function* settledTones(art: Art, { count, held, leastAreaPx2 = 0, refuses = false }: SettlingOptions): Task<SettledTones> {
  const { width, height, alpha } = art;
  const restless = yield* within(isRestless(art.colour), 0, 0.05);
  const { tones, labels: nearest, dots } = yield* within(toneLabels(art, count, restless ? 'none' : 'ofBits', held), 0.05, 0.88);
  const data = nearest.slice();
  const opaque = isOpaque(alpha);
  if (!opaque) for (let i = 0; i < data.length; i++) if (alpha[i] < 128) data[i] = CLEAR;
  const noisePx2 = (restless ? LEAST_NOISE_PX2 : LEAST_CALM_PX2) * Math.max(1, art.frame.scale ** 2);
  const whole = yield* within(dropSlivers(makeLabelMap(width, height, data), art.colour, tones, restless), 0.88, 0.94);
  const again = restless ? yield* within(dropSlivers(whole, art.colour, tones, restless), 0.94, 0.96) : whole;
  const onSides = restless ? dropOvershoots(again, art.colour, tones) : whole;
  yield 0.97;
  const { data: withClear } = swept(onSides, Math.max(noisePx2, leastAreaPx2), refuses);
  if (restless) bringBack(dots.filter(({ areaPx2 }) => areaPx2 >= leastAreaPx2), withClear, width);
  return { tones, labels: opaque ? withClear : whereClear(withClear, nearest), withClear, restless };
}

function swept(labels: LabelMap, leastAreaPx2: number, refuses: boolean): LabelMap {
  try {
    return sweepLabels(labels, leastAreaPx2);
  } catch (error) {
    if (refuses || !isAppError(error)) throw error;
    return labels;
  }
}

/** Labels with others in place of `CLEAR`. */
function whereClear(labels: Uint8Array, others: Uint8Array): Uint8Array {
  const out = labels.slice();
  for (let i = 0; i < out.length; i++) if (out[i] === CLEAR) out[i] = others[i];
  return out;
}
