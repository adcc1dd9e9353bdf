import { toneLabels } from '../clean/settling/toneLabels.ts';
import { colourDifference, tintDifference, type Rgb } from '../colour/oklab.ts';
import { levelLight } from '../clean/levelLight.ts';
import { noiseLevel } from '../clean/noiseLevel.ts';
import type { Recipe } from '../clean/recipe.ts';
import { artFromPicture, isOpaque, type Art } from '../raster/art.ts';
import { isAppError } from '../errors/appError.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { shrinkToSide } from '../raster/shrink.ts';
import { flatTones } from '../separate/flatTones.ts';
import { finish } from '../task/task.ts';
import { say } from '../words/say.ts';
import { shadeGroups } from './shadeGroups.ts';

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
/** Of a drawing in one ink that did not cover everywhere this share of the pixels lies on the way from paper to ink, within so many levels. */
const INKED = 0.985;
const OFF_WAY = 16;
/** The least that a look says of how sure it is. */
const LEAST_SURE = 0.6;
/** Ink stands out from its paper by at least this; what is left of a mere gradient does not. */
const INK_CONTRAST = 20;
/** Ink that stands out from its paper by less is pale. */
const PALE = 45;
/** Ink of another tint than its paper by more, perceptual difference, has a colour. */
const COLOURED = 5;
/** Areas smaller than this do not count, px². */
const LEAST_AREA_PX2 = 40;
/** Noise from which a shaded picture is taken for a photo, levels of 255. */
const PHOTO_NOISE = 1.6;
/** How far flat art lies from its tones beside its noise, levels of all three channels: JPEG blocks and mixed pixels. More is shading. */
const FLAT_OFF = 9;
/** A drawing by hand on shaded paper has no more tones than this. */
const MOST_ON_PAPER = 8;
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
  const isOnPaper = fallOffPercent >= EVEN_PERCENT && isFlat(even, noise) && even.tones <= MOST_ON_PAPER && even.contrast >= INK_CONTRAST;
  // Art lighter than its ground may be taken for light.
  if (isOnPaper && even.tones >= areasOf(art)) return told({ ...even, noise, hasClear, fallOffPercent });
  // Or a stamp, whose ink did not cover everywhere.
  if (plain.ink < LINE_INK && plain.inked >= INKED && plain.contrast >= INK_CONTRAST) return told({ ...plain, tones: 2, noise, hasClear, fallOffPercent: 0 }, true);
  return told({ ...plain, noise, hasClear, fallOffPercent: 0 });
}

/** How many areas there are, each with its shades and the ground counted; 0 where no tones are told. */
function areasOf(art: Art): number {
  try {
    const flat = finish(flatTones(art, { count: 'auto', leastAreaPx2: LEAST_AREA_PX2 }));
    const { groupOf, ofGround } = shadeGroups(art, flat);
    return ofGround.size === 0 ? 0 : new Set(groupOf).size;
  } catch (error) {
    if (isAppError(error)) return 0;
    throw error;
  }
}

interface Tones {
  readonly tones: number;
  readonly explained: number;
  /** The same, of the most frequent tone and that which stands out most from it alone. */
  readonly inked: number;
  /** Mean difference of the explained pixels from their tones, levels of all three channels together. */
  readonly off: number;
  /** Largest perceptual difference of a tone from the ground. */
  readonly contrast: number;
  /** Largest difference of a tone from the ground in tint alone, perceptual. */
  readonly tint: number;
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
  let inked = 0;
  const contrasts = tones.map((tone) => colourDifference(tones[0], tone));
  const contrast = Math.max(0, ...contrasts);
  const ink = tones[contrasts.indexOf(contrast)] ?? tones[0];
  // What is clear is the ground where there is any, and explained.
  const hasClear = !isOpaque(art.alpha);
  for (let i = 0, j = 0; i < labels.length; i++, j += 4) {
    there++;
    const isClear = art.alpha[i] < 128;
    if (hasClear ? isClear : labels[i] === 0) ground++;
    if (isClear) {
      like++;
      inked++;
      continue;
    }
    const tone = tones[labels[i]];
    if (tones.length > 1 && offTheWay(before, j, tones[0], ink) <= OFF_WAY) inked++;
    const away = tones.length < 2 ? 0 : Math.abs(before[j] - tone.r) + Math.abs(before[j + 1] - tone.g) + Math.abs(before[j + 2] - tone.b);
    if (away >= EXPLAINED) continue;
    like++;
    off += away;
  }
  return {
    tones: Math.max(1, tones.length + (hasClear ? 1 : 0)),
    explained: there === 0 ? 1 : like / there,
    off: like === 0 ? 0 : off / like,
    inked: there === 0 ? 0 : inked / there,
    contrast,
    tint: Math.max(0, ...tones.slice(1).map((tone) => tintDifference(tones[0], tone))),
    ink: there === 0 ? 0 : 1 - ground / there,
  };
}

/** How far a pixel is from the straight way between two colours, levels of the channel that is furthest off; what is darker than the ink is on it. */
function offTheWay(data: Uint8Array, j: number, paper: Rgb, ink: Rgb): number {
  const [dr, dg, db] = [ink.r - paper.r, ink.g - paper.g, ink.b - paper.b];
  const [r, g, b] = [data[j] - paper.r, data[j + 1] - paper.g, data[j + 2] - paper.b];
  const t = Math.max(0, Math.min(1.3, (r * dr + g * dg + b * db) / Math.max(1, dr * dr + dg * dg + db * db)));
  return Math.max(Math.abs(r - t * dr), Math.abs(g - t * dg), Math.abs(b - t * db));
}

type Seen = Tones & Pick<FirstLook, 'noise' | 'hasClear' | 'fallOffPercent'>;

/** @param isInk whether it is a drawing in one ink, however well that covered; never sure. */
function told(seen: Seen, isInk = false): FirstLook {
  const { tones, explained, off, noise, fallOffPercent, hasClear, ink } = seen;
  const flat = isFlat(seen, noise);
  const kind: PictureKind = isInk ? 'line' : flat ? (tones <= 3 && ink < LINE_INK ? 'line' : 'flat') : noise >= PHOTO_NOISE ? 'photo' : 'shaded';
  const room = FLAT_OFF + 3 * noise;
  const margin = flat
    ? Math.min((explained - FLAT) / (1 - FLAT), (room - off) / room)
    : Math.min(1, Math.max((FLAT - explained) / 0.2, (off - room) / room, tones > MOST_FLAT_TONES ? 0.5 : 0));
  return {
    kind,
    sure: isInk ? LEAST_SURE : Math.round(Math.min(0.98, LEAST_SURE + (1 - LEAST_SURE) * margin) * 100) / 100,
    tones,
    explained,
    noise,
    fallOffPercent,
    hasClear,
    recipe: startOf(kind, seen),
    words: wordsOf(kind, seen),
  };
}

function startOf(kind: PictureKind, { noise, fallOffPercent, hasClear, contrast, tint }: Seen): Recipe {
  const steps: Recipe[number][] = [];
  const base = () => ({ id: `look-${steps.length + 1}`, enabled: true, v: 1 as const });
  if (fallOffPercent >= EVEN_PERCENT) steps.push({ kind: 'lightLevelling', ...base(), strength: 1 });
  // A pale grey drawing comes out black; one in a strong ink or in a colour keeps it.
  if (kind === 'line' && !hasClear && contrast < PALE && tint < COLOURED) steps.push({ kind: 'levels', ...base(), points: 'auto', gamma: 1, saturation: 1, invert: false });
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
      return say('Shaded art: a waterslide print keeps the shading; as film each area has one tone, or only what is dark is left.');
    case 'photo':
      return say('A photo: print it, or take the subject out and bring it to a few tones before cutting.');
  }
}
