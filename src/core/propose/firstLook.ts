import { toneLabels } from '../clean/settling/toneLabels.ts';
import { colourDifference } from '../colour/oklab.ts';
import { levelLight } from '../clean/levelLight.ts';
import { noiseLevel } from '../clean/noiseLevel.ts';
import type { Recipe } from '../clean/recipe.ts';
import { artFromPicture, isOpaque, type Art } from '../raster/art.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { finish } from '../task/task.ts';
import { say } from '../words/say.ts';

/** What kind of picture it is: drawn lines on a ground, areas of flat colour, shaded or painted, or a photo. */
export type PictureKind = 'line' | 'flat' | 'shaded' | 'photo';

export interface FirstLook {
  readonly kind: PictureKind;
  /** How sure, 0 to 1. */
  readonly sure: number;
  /** Real tones, the ground counted. */
  readonly tones: number;
  /** Share of the pixels that are one of those tones or a mixture of two, 0 to 1. */
  readonly explained: number;
  /** Noise, levels of 255. */
  readonly noise: number;
  /** How far the light on the paper falls off, per cent; 0 where it is even or there is no paper. */
  readonly fallOffPercent: number;
  readonly hasClear: boolean;
  /** Steps to start with. Their ids are `look-1` and so on. */
  readonly recipe: Recipe;
  /** In plain words, what it is and what to do first. */
  readonly words: string;
}

/** The look is taken at this size: enough for tones and light, and quick. */
const SIDE_PX = 700;
/** From this share on the few tones tell the whole picture. */
const FLAT = 0.93;
/** Light that falls off by less does no harm to a threshold, per cent. */
const EVEN_PERCENT = 7;
/** A pixel nearer to its tone than this is explained by it, levels of all three channels. */
const EXPLAINED = 72;
/** A drawing has at most this share of ink. */
const LINE_INK = 0.22;
/** Ink stands out from its paper by at least this; what is left of a mere gradient does not. */
const INK_CONTRAST = 20;
/** Ink that stands out from its paper by less is pale. */
const PALE = 45;
/** Noise from which a shaded picture is taken for a photo, levels of 255. */
const PHOTO_NOISE = 1.6;
/** How far flat art lies from its tones beside its noise, levels of all three channels: JPEG blocks and mixed pixels. More is shading. */
const FLAT_OFF = 9;
/** More tones than this are shading. */
const MOST_FLAT_TONES = 12;

/** Takes a first look at a picture and says how to start with it. About 200 ms whatever its size. */
export function firstLook(picture: Rgba8): FirstLook {
  const art = artFromPicture(shrinkToSide(picture, SIDE_PX));
  const noise = noiseLevel(picture);
  const hasClear = !isOpaque(art.alpha);
  const plain = tonesOf(art);
  if (isFlat(plain, noise)) return told({ ...plain, noise, hasClear, fallOffPercent: 0 });
  // What no few tones explain may be a drawing on shaded paper.
  const { art: levelled, fallOffPercent } = finish(levelLight(art));
  const even = tonesOf(levelled);
  if (fallOffPercent >= EVEN_PERCENT && isFlat(even, noise) && even.tones <= 4 && even.contrast >= INK_CONTRAST)
    return told({ ...even, noise, hasClear, fallOffPercent });
  return told({ ...plain, noise, hasClear, fallOffPercent: 0 });
}

interface Tones {
  readonly tones: number;
  readonly explained: number;
  /** Mean difference of the explained pixels from their tones, levels of all three channels together. */
  readonly off: number;
  /** Largest perceptual difference of a tone from the ground. */
  readonly contrast: number;
  /** Share of what is not the most frequent tone. */
  readonly ink: number;
}

const isFlat = ({ tones, explained, off }: Tones, noise: number): boolean => explained >= FLAT && tones <= MOST_FLAT_TONES && off <= FLAT_OFF + 3 * noise;

/** How many tones, how much of the picture they explain, and how much of it is not ground. */
function tonesOf(art: Art): Tones {
  const { tones, labels } = finish(toneLabels(art, 'auto', 'none'));
  const before = art.colour.data;
  let like = 0;
  let off = 0;
  let there = 0;
  let ground = 0;
  for (let i = 0, j = 0; i < labels.length; i++, j += 4) {
    if (art.alpha[i] < 128) continue;
    there++;
    if (labels[i] === 0) ground++;
    const tone = tones[labels[i]];
    const away = tones.length < 2 ? 0 : Math.abs(before[j] - tone.r) + Math.abs(before[j + 1] - tone.g) + Math.abs(before[j + 2] - tone.b);
    if (away >= EXPLAINED) continue;
    like++;
    off += away;
  }
  return {
    tones: Math.max(1, tones.length),
    explained: there === 0 ? 1 : like / there,
    off: like === 0 ? 0 : off / like,
    contrast: Math.max(0, ...tones.slice(1).map((tone) => colourDifference(tones[0], tone))),
    ink: there === 0 ? 0 : 1 - ground / there,
  };
}

type Seen = Tones & Pick<FirstLook, 'noise' | 'hasClear' | 'fallOffPercent'>;

function told(seen: Seen): FirstLook {
  const { tones, explained, off, noise, fallOffPercent, hasClear, ink } = seen;
  const flat = isFlat(seen, noise);
  const kind: PictureKind = flat ? (tones <= 3 && ink < LINE_INK ? 'line' : 'flat') : noise >= PHOTO_NOISE ? 'photo' : 'shaded';
  const room = FLAT_OFF + 3 * noise;
  const margin = flat
    ? Math.min((explained - FLAT) / (1 - FLAT), (room - off) / room)
    : Math.min(1, Math.max((FLAT - explained) / 0.2, (off - room) / room, tones > MOST_FLAT_TONES ? 0.5 : 0));
  return {
    kind,
    sure: Math.round(Math.min(0.98, 0.6 + 0.4 * margin) * 100) / 100,
    tones,
    explained,
    noise,
    fallOffPercent,
    hasClear,
    recipe: startOf(kind, seen),
    words: wordsOf(kind, seen),
  };
}

function startOf(kind: PictureKind, { noise, fallOffPercent, hasClear, contrast }: Seen): Recipe {
  const steps: Recipe[number][] = [];
  const base = () => ({ id: `look-${steps.length + 1}`, enabled: true, v: 1 as const });
  if (fallOffPercent >= EVEN_PERCENT) steps.push({ kind: 'lightLevelling', ...base(), strength: 1 });
  // A pale drawing comes out black; one in a strong ink keeps its colour.
  if (kind === 'line' && !hasClear && contrast < PALE) steps.push({ kind: 'levels', ...base(), points: 'auto', gamma: 1, saturation: 1, invert: false });
  if (kind === 'photo' || (kind === 'shaded' && noise > 1)) steps.push({ kind: 'smoothing', ...base(), strength: Math.round(Math.max(10, 4 * noise)) });
  steps.push({ kind: 'sweep', ...base(), speckMm2: 1, pinholeMm2: 1 });
  return steps;
}

function wordsOf(kind: PictureKind, { tones, noise, fallOffPercent }: Seen): string {
  const noisy = noise > 4 ? say(' It is noisy, so smoothing or fewer colours come first.') : '';
  const light = fallOffPercent >= EVEN_PERCENT ? say` The light falls off by ${fallOffPercent} %: level it first.` : '';
  switch (kind) {
    case 'line':
      return say`A drawing in ${tones <= 2 ? say('one ink') : say`${tones - 1} inks`} on a plain ground: cuts as one film, or as a stencil.${light}${noisy}`;
    case 'flat':
      return say`Flat art in ${tones} tones, the ground counted: one film for each.${light}${noisy}`;
    case 'shaded':
      return say('Shaded art: as film only what is darker than a threshold is left; a waterslide print keeps the shading.');
    case 'photo':
      return say('A photo: print it, or take the subject out and bring it to a few tones before cutting.');
  }
}
