import type { Rgb } from '../colour/oklab.ts';
import type { Art } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { softeningFor } from './softening.ts';

/** In art that is even too nearly all plain pixels are this near to their tone, levels of all channels; so much more a level of noise. */
const OFF_EVEN_TONE = 9;
const OFF_EVEN_NOISY = 3;
/** Nearly all: a soft shadow takes more than the rest. */
const EVEN = 0.985;
/** Drawings are plain in more of their pixels than this, grain and cloth in few. */
const MOSTLY_PLAIN = 0.5;

/** Whether art is in few tones that are even, as drawings are, and photographs and unevenly lit paper are not. */
export function isInEvenTones(art: Art): boolean {
  const softening = finish(softeningFor(art, new Uint8Array(art.alpha.length), WHITE));
  return softening.isFlat && softening.plainShare() > MOSTLY_PLAIN && softening.shareWithin(OFF_EVEN_TONE + OFF_EVEN_NOISY * softening.noise) > EVEN;
}
const WHITE: Rgb = { r: 255, g: 255, b: 255 };
