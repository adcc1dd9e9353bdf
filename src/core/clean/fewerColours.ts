import { withAlpha, type Art } from '../raster/art.ts';
import { within, type Task } from '../task/task.ts';
import type { Tone } from './palette.ts';
import { redrawEdges } from './redrawEdges.ts';
import { settledTones } from './settling/settledTones.ts';

export interface FewerColours {
  readonly art: Art;
  /** Most frequent first. */
  readonly tones: readonly Tone[];
  /** Index into `tones` for every pixel; what is clear has the nearest one too. */
  readonly labels: Uint8Array;
}

/**
 * Brings the art to its few real tones, as they are settled (`settledTones`). Along edges pixels stay mixtures of their tones, so that what follows still finds
 * the edge inside of them.
 * @param count tones including the background, 2 to 32, or `auto`.
 */
export function* fewerColours(art: Art, count: number | 'auto'): Task<FewerColours> {
  const { tones, labels } = yield* within(settledTones(art, { count }), 0, 0.8);
  if (tones.length < 2) return { art, tones, labels };
  return { art: withAlpha(art, art.alpha, yield* within(redrawEdges(art, labels, tones), 0.8, 1)), tones, labels };
}
