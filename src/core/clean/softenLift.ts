import type { Rgb } from '../colour/oklab.ts';
import { withAlpha, type Art } from '../raster/art.ts';
import { makeRgba8 } from '../raster/raster.ts';
import { byRows, within, type Task } from '../task/task.ts';
import { clearInTones } from './clearInTones.ts';
import type { SettledTones } from './settling/settledTones.ts';
import { softeningFor } from './softening.ts';

/** What is lifted from an art. */
export interface Lifted {
  /** 1 where the art goes clear. */
  readonly lifted: Uint8Array;
  /** The colour that was lifted, for places where none of it is plain. */
  readonly ground: Rgb;
  /** 1 for pixels of about the ground's colour that are art; they and what is beside them are no mixtures with the ground. */
  readonly stays?: Uint8Array;
  /** Whether the ground goes wherever it is, also where it is closed off. */
  readonly everywhere: boolean;
  /** The tones of the art, where they have been found already. */
  readonly inTones?: SettledTones;
}

/**
 * Clears what is lifted and gives the mixed pixels on both sides of its edge the share of art they hold: their colour lies on the way from the ground as it is
 * there to the art's colour beside it, both read where they are plain; the ground's tint is taken out of them (the compositing equation solved for alpha;
 * Porter & Duff, "Compositing digital images", SIGGRAPH 1984, doi:10.1145/800031.808606). So the edge stays where it was inside of the pixels. In flat
 * art its tones tell it, of all pixels together (`clearInTones`).
 */
export function* clearLifted(art: Art, what: Lifted): Task<Art> {
  const { lifted, ground, stays } = what;
  const { width, height } = art;
  const softening = yield* within(softeningFor(art, lifted, ground, stays), 0, 0.1);
  const inTones = softening.isFlat ? yield* within(clearInTones(art, what), 0.1, 1) : undefined;
  if (inTones !== undefined) return inTones;
  const alpha = yield* within(alphaWithout(art, lifted), 0.1, 0.2);
  let out: Uint8Array | undefined;
  const rim = softening.rim();
  for (const [k, i] of rim.entries()) {
    if (k % RIM_PER_TURN === RIM_PER_TURN - 1) yield 0.3 + (0.7 * k) / rim.length;
    if (!softening.isMixed(i)) continue;
    alpha[i] = Math.round(art.alpha[i] * softening.share);
    if (softening.share === 0) continue;
    out ??= new Uint8Array(art.colour.data);
    out.set(softening.colour, 4 * i);
  }
  return withAlpha(art, alpha, out === undefined ? art.colour : makeRgba8(width, height, out, art.colour.opaque === true));
}

/** Clears what is lifted with a hard edge: no mixed pixels at all. */
export function* clearHard(art: Art, lifted: Uint8Array): Task<Art> {
  return withAlpha(art, yield* alphaWithout(art, lifted));
}

/** So many pixels of the edge are read before others have their turn. */
const RIM_PER_TURN = 8192;

function* alphaWithout(art: Art, lifted: Uint8Array): Task<Uint8Array> {
  const alpha = art.alpha.slice();
  yield* byRows(art.height, (y) => clearRow(alpha, lifted, y * art.width, (y + 1) * art.width));
  return alpha;
}

function clearRow(alpha: Uint8Array, lifted: Uint8Array, from: number, to: number): void {
  for (let i = from; i < to; i++) if (lifted[i] !== 0) alpha[i] = 0;
}
