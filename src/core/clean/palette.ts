import { rgbFromOklab, writeOklab, type Rgb } from '../colour/oklab.ts';
import { wordsOf, type Rgba8 } from '../raster/raster.ts';
import { isLineMixture } from './lineMixtures.ts';
import { isLineTone } from './lineTones.ts';
import { PLAIN } from './plainPixels.ts';
import { meetAtEdges } from './tonesMeet.ts';

/** One real colour of a picture and how many of the pixels looked at have it. */
export interface Tone extends Rgb {
  readonly count: number;
}

/** What a pixel at the side counts: mixtures along soft edges are there too. */
const NARROW_WEIGHT = 0.3;

/** How many tones are wanted: so many, or as many as there are. */
export type ToneCount = number | 'auto';

/** Most tones that are told apart. */
export const MAX_TONES = 32;

const SAMPLES = 250_000;
/** Colours nearer than this (perceptual difference) belong to one heap when the heaps are first made. */
const HEAP = 5;
/** And these where more tones are asked for than there are such heaps: pale ones are as near as that. */
const HEAP_OF_GIVEN = 3;
/** Where no number is given, tones nearer than this are one, and a heap with less than this share of the plain pixels is none. */
const APART = 9;
const LEAST_SHARE = 0.003;
/** Nearer ones too are tones of their own, down to this, when each has so much of the plain pixels and they meet at edges. */
const NEAR = 5;
const LEAST_BROAD_SHARE = 0.008;
/**
 * A tone that is further than this from all others (perceptual difference), and than that from what two of them mix to, needs only this share: the ink of an
 * outline, one small bright area.
 */
const DISTINCT = 15;
const MIXED = 7;
const LEAST_DISTINCT_SHARE = 0.0008;
/** And this one where it is so far from what any two of them mix to that compression does not make it of them: the ink of one line along a coloured area. */
const STRANGE = 15;
const LEAST_STRANGE_SHARE = 0.0004;
const LEAST_STRANGE_PX = 100;
/** A tone with so many pixels inside of areas, px of the picture, is one whatever its share: mixtures lie along edges and have none. */
const LEAST_SOLID = 14;
/** Fewer do where no two others mix to it: compression ripples over most of a small area. */
const LEAST_SOLID_DISTINCT = 6;
/** Of a colour that is only there in lines of its own this share is enough; so many are looked at, the most frequent ones. */
const LEAST_LINE_SHARE = 0.0001;
const MOST_LINE_TONES = 12;
/** A heap that is smaller than this share is noise at any number of tones. */
const NOISE_SHARE = 0.0004;

interface Heap {
  l: number;
  a: number;
  b: number;
  count: number;
  /** How many of them lie inside of an area, not along an edge. */
  solid: number;
  /** It stays as it is, whatever the others do. */
  held?: boolean;
  /** It has no areas, but lines of its own. */
  line?: boolean;
}

/**
 * The real colours of a picture, most frequent first. Only plain pixels are read (those marked), so the mixtures along edges are no candidates. Their
 * colours are heaped greedily, fullest first; then the two heaps that cost least to join are joined until `count` are left. The cost is the squared
 * distance times the root of the smaller heap's weight: between Ward's criterion (J. H. Ward, JASA 58, 1963, doi:10.1080/01621459.1963.10500845), in which
 * a small pennant goes under beside a large hull, and plain distance, in which noise stays.
 * @param plain `PLAIN` or `NARROW` where a pixel is read, else 0. @param count wanted tones, 1 to 32. Fewer come back when there are not as many.
 * @param held tones that are among them in any case, as they are; more than `count` only when there are more of these.
 */
export function findPalette(picture: Rgba8, plain: Uint8Array, count: ToneCount, held: readonly Rgb[] = []): Tone[] {
  const { heaps, total, step } = heapsFor(picture, plain, count, held);
  markLineTones(heaps, picture, plain, total, step);
  const kept = heaps.filter((heap) => heap.held === true || heap.line === true || heap.count >= Math.max(4, total * NOISE_SHARE)).slice(0, 4 * MAX_TONES);
  joinLineMixtures(kept, picture, plain, step);
  // Near tones that meet at edges are not one; asked for so many, the nearest are joined all the same.
  const near = count === 'auto' ? nearTones(kept, picture, plain, total, step) : () => false;
  // What is no tone joins another, not two tones each other, however much less that costs.
  const areTones = (x: Heap, y: Heap): boolean =>
    count === 'auto' && kept.length <= MAX_TONES && distance2(x, y) >= APART * APART && isTone(x, kept, total, step) && isTone(y, kept, total, step);
  const apart = (x: Heap, y: Heap): boolean => near(x, y) || areTones(x, y);
  while (kept.length > Math.max(count === 'auto' ? 1 : count, held.length)) {
    const { first, second, distance } = cheapestPair(kept, total, apart);
    if (first < 0 || (count === 'auto' && distance >= APART && kept.length <= MAX_TONES && kept.every((heap) => isTone(heap, kept, total, step)))) break;
    join(kept, first, second);
  }
  // A held tone is given back as it came, to the last digit.
  const asGiven = new Map(held.map((tone, k) => [heaps[k], tone]));
  return kept.sort((x, y) => y.count - x.count).map((heap) => ({ ...(asGiven.get(heap) ?? rgbFromOklab(heap.l, heap.a, heap.b)), count: heap.count }));
}

/** Tells which of two near tones with broad areas are tones of their own. Looks each pair up in the picture once. */
function nearTones(heaps: readonly Heap[], picture: Rgba8, plain: Uint8Array, total: number, step: number): (a: Heap, b: Heap) => boolean {
  const isBroad = (heap: Heap): boolean => heap.count >= total * LEAST_BROAD_SHARE && heap.solid * step >= LEAST_SOLID;
  const broad = new Set(heaps.filter(isBroad));
  const known = new Map<Heap, Map<Heap, boolean>>(heaps.map((heap) => [heap, new Map<Heap, boolean>()]));
  return (a, b) => {
    if (!broad.has(a) || !broad.has(b) || distance2(a, b) >= APART * APART || distance2(a, b) < NEAR * NEAR) return false;
    const before = known.get(a)?.get(b);
    if (before !== undefined) return before;
    const isApart = meetAtEdges(picture, plain, rgbFromOklab(a.l, a.a, a.b), rgbFromOklab(b.l, b.a, b.b));
    known.get(a)?.set(b, isApart);
    return isApart;
  };
}

/** Whether areas have a heap's colour, or it is held. @param step one of so many pixels was looked at. */
const isArea = (heap: Heap, step: number): boolean => heap.held === true || heap.solid * step >= LEAST_SOLID;

/**
 * Where a colour on the way from a solid one to a stronger one is only found in thin lines of the stronger one, it joins that: it is what a hairline becomes
 * between two rows of pixels. What is nearly the same is one tone, whose colour both say.
 */
function joinLineMixtures(heaps: Heap[], picture: Rgba8, plain: Uint8Array, step: number): void {
  const isSolidHeap = (heap: Heap): boolean => isArea(heap, step);
  const rgbOf = ({ l, a, b }: Heap): Rgb => rgbFromOklab(l, a, b);
  for (let k = heaps.length - 1; k >= 0; k--) {
    const weak = heaps[k];
    if (isSolidHeap(weak) || weak.line === true) continue;
    const strong = heaps.find(
      (other) =>
        other !== weak &&
        heaps.some((ground) => isSolidHeap(ground) && ground !== other && isOnTheWay(weak, ground, other)) &&
        isLineMixture(picture, plain, rgbOf(weak), rgbOf(other), isSolidHeap(other)),
    );
    if (strong === undefined) continue;
    if (distance2(weak, strong) < APART * APART) blend(strong, weak);
    else strong.count += weak.count;
    heaps.splice(k, 1);
  }
}

/** Marks what is only there in lines of its own, so far from all areas' tones that it is none of them: a tone, however rare, although others may mix to it. */
function markLineTones(heaps: readonly Heap[], picture: Rgba8, plain: Uint8Array, total: number, step: number): void {
  const areas = heaps.filter((heap) => isArea(heap, step));
  const lines = heaps.filter((heap) => !areas.includes(heap));
  const inks = lines.filter((heap) => !areas.some((a) => areas.some((b) => isOnTheWay(heap, a, b))));
  /** What is nearly the ink of areas or of other lines, or what the latter mixes to, is no line of its own. */
  const isOfOtherLines = (heap: Heap): boolean =>
    inks.some((ink) => ink.count > heap.count && (distance2(heap, ink) < DISTINCT * DISTINCT || areas.some((ground) => isOnTheWay(heap, ground, ink))));
  const isNearly = (heap: Heap): boolean =>
    areas.some(
      (ink) => distance2(heap, ink) < DISTINCT * DISTINCT && (distance2(heap, ink) < APART * APART || areas.some((ground) => isOnTheWay(heap, ground, ink))),
    );
  const candidates = lines.filter((heap) => heap.count >= total * LEAST_LINE_SHARE && !isNearly(heap) && !isOfOtherLines(heap));
  for (const heap of candidates.slice(0, MOST_LINE_TONES)) heap.line = isLineTone(picture, plain, rgbFromOklab(heap.l, heap.a, heap.b));
}

/** Whether a heap is a mixture of two others, nearer to neither than a twentieth. */
function isOnTheWay(heap: Heap, from: Heap, to: Heap): boolean {
  const whole = Math.sqrt(distance2(from, to));
  return offTheWay2(heap, from, to) <= MIXED * MIXED && Math.sqrt(distance2(from, heap)) < 0.95 * whole && Math.sqrt(distance2(to, heap)) < 0.95 * whole;
}

/** @param step one of so many pixels was looked at. */
function isTone(heap: Heap, heaps: readonly Heap[], total: number, step: number): boolean {
  if (heap.held === true || heap.line === true || heap.count >= total * LEAST_SHARE || heap.solid * step >= LEAST_SOLID) return true;
  const isAlone = heaps.every((other) => other === heap || distance2(other, heap) >= DISTINCT * DISTINCT);
  const enough = heap.solid * step >= LEAST_SOLID_DISTINCT || (isAlone && heap.count >= total * LEAST_DISTINCT_SHARE);
  if (!enough && (!isAlone || heap.count < Math.max(total * LEAST_STRANGE_SHARE, LEAST_STRANGE_PX / step))) return false;
  const off = enough ? MIXED : STRANGE;
  const larger = heaps.filter(({ count }) => count > heap.count);
  return larger.every((a, k) => larger.slice(k + 1).every((b) => offTheWay2(heap, a, b) > off * off));
}

/** Squared distance of a heap from the straight way between two others. */
function offTheWay2({ l, a, b }: Heap, from: Heap, to: Heap): number {
  const [dl, da, db] = [to.l - from.l, to.a - from.a, to.b - from.b];
  const t = Math.max(0, Math.min(1, ((l - from.l) * dl + (a - from.a) * da + (b - from.b) * db) / Math.max(1e-9, dl * dl + da * da + db * db)));
  return (l - from.l - t * dl) ** 2 + (a - from.a - t * da) ** 2 + (b - from.b - t * db) ** 2;
}

/** What is kept of each bin: how many pixels, their sums by channel, and how many of them are solid. */
const BIN = 5;
/** How far around a pixel all must be alike for it to lie inside of an area, px, and how much they may differ, levels of 255. */
const SOLID_PX = 2;
const SOLID_LEVELS = 24;

/** Whether a plain pixel lies inside of an area: those some way off to all sides are plain and like it. */
function isSolid(words: Int32Array, plain: Uint8Array, width: number, i: number): boolean {
  const down = SOLID_PX * width;
  if (plain[i] !== PLAIN || i < down || i + down >= plain.length) return false;
  const word = words[i];
  return (
    isLike(words, plain, i - SOLID_PX, word) &&
    isLike(words, plain, i + SOLID_PX, word) &&
    isLike(words, plain, i - down, word) &&
    isLike(words, plain, i + down, word)
  );
}

function isLike(words: Int32Array, plain: Uint8Array, j: number, word: number): boolean {
  if (plain[j] !== PLAIN) return false;
  const other = words[j];
  if (other === word) return true;
  return (
    Math.abs((other & 255) - (word & 255)) <= SOLID_LEVELS &&
    Math.abs(((other >> 8) & 255) - ((word >> 8) & 255)) <= SOLID_LEVELS &&
    Math.abs(((other >> 16) & 255) - ((word >> 16) & 255)) <= SOLID_LEVELS
  );
}

/** Adds up the pixels that are looked at, bin by bin; gives what they weigh together. */
function fillBins(bins: Float64Array, words: Int32Array, plain: Uint8Array, width: number, step: number): number {
  let total = 0;
  for (let i = 0; i < plain.length; i += step) {
    if (plain[i] === 0) continue;
    const word = words[i];
    const bin = (((word >> 3) & 31) | ((word >> 6) & 0x3e0) | ((word >> 9) & 0x7c00)) * BIN;
    const weight = plain[i] === PLAIN ? 1 : NARROW_WEIGHT;
    bins[bin] += weight;
    bins[bin + 1] += weight * (word & 255);
    bins[bin + 2] += weight * ((word >> 8) & 255);
    bins[bin + 3] += weight * ((word >> 16) & 255);
    if (isSolid(words, plain, width, i)) bins[bin + 4]++;
    total += weight;
  }
  return total;
}

function heapsFor(picture: Rgba8, plain: Uint8Array, count: ToneCount, held: readonly Rgb[]): Heaps {
  const broad = heapsOf(picture, plain, held, HEAP);
  if (count === 'auto' || broad.heaps.filter((heap) => heap.held === true || heap.count >= broad.total * NOISE_SHARE).length >= count) return broad;
  return heapsOf(picture, plain, held, HEAP_OF_GIVEN);
}

interface Heaps {
  readonly heaps: Heap[];
  /** What all pixels that were looked at weigh. */
  readonly total: number;
  /** One of so many pixels was looked at. */
  readonly step: number;
}

/** Bins of 5 bits a channel, each with its mean colour, heaped around the held tones, which come first, and then around the fullest ones. */
function heapsOf(picture: Rgba8, plain: Uint8Array, held: readonly Rgb[], within: number): Heaps {
  const bins = new Float64Array(32768 * BIN);
  const step = Math.max(1, Math.floor(plain.length / SAMPLES)) | 1;
  const total = fillBins(bins, wordsOf(picture), plain, picture.width, step);
  const lab = new Float64Array(3);
  const colours: Heap[] = [];
  for (let bin = 0; bin < bins.length; bin += BIN) {
    const n = bins[bin];
    if (n === 0) continue;
    writeOklab(Math.round(bins[bin + 1] / n), Math.round(bins[bin + 2] / n), Math.round(bins[bin + 3] / n), lab);
    colours.push({ l: lab[0], a: lab[1], b: lab[2], count: n, solid: bins[bin + 4] });
  }
  colours.sort((x, y) => y.count - x.count);
  const heaps = held.map(({ r, g, b }): Heap => {
    writeOklab(r, g, b, lab);
    return { l: lab[0], a: lab[1], b: lab[2], count: 0, solid: 0, held: true };
  });
  const centres: Heap[] = [...heaps];
  for (const colour of colours) {
    let nearest = -1;
    let least = within * within;
    for (let k = 0; k < centres.length; k++) {
      const d = distance2(centres[k], colour);
      if (d < least) {
        least = d;
        nearest = k;
      }
    }
    if (nearest < 0) {
      if (centres.length >= 512) continue;
      centres.push(colour);
      heaps.push({ ...colour });
    } else blend(heaps[nearest], colour);
  }
  return { heaps: [...heaps.slice(0, held.length), ...heaps.slice(held.length).sort((x, y) => y.count - x.count)], total, step };
}

/** @param apart whether two of them are not to be joined. @returns −1 for both when none are. */
function cheapestPair(heaps: readonly Heap[], total: number, apart: (a: Heap, b: Heap) => boolean): { first: number; second: number; distance: number } {
  let best = { first: -1, second: -1, distance: 0 };
  let least = Infinity;
  for (let i = 0; i < heaps.length; i++) {
    for (let j = i + 1; j < heaps.length; j++) {
      if ((heaps[i].held === true && heaps[j].held === true) || apart(heaps[i], heaps[j])) continue;
      const d2 = distance2(heaps[i], heaps[j]);
      const cost = d2 * Math.sqrt(Math.min(heaps[i].count, heaps[j].count) / total);
      if (cost < least) {
        least = cost;
        best = { first: i, second: j, distance: Math.sqrt(d2) };
      }
    }
  }
  return best;
}

/** The smaller heap joins the larger, whose colour stays the tone: a tone is a colour that is there, not a mean of two. What is held is joined by others. */
function join(heaps: Heap[], first: number, second: number): void {
  const isFirst = heaps[first].held === heaps[second].held ? heaps[first].count >= heaps[second].count : heaps[first].held === true;
  const [keep, drop] = isFirst ? [first, second] : [second, first];
  const near = distance2(heaps[keep], heaps[drop]) < HEAP * HEAP * 2;
  if (near) blend(heaps[keep], heaps[drop]);
  else {
    heaps[keep].count += heaps[drop].count;
    heaps[keep].solid += heaps[drop].solid;
  }
  heaps.splice(drop, 1);
}

function blend(into: Heap, other: Heap): void {
  const count = into.count + other.count;
  into.solid += other.solid;
  if (into.held === true) {
    into.count = count;
    return;
  }
  into.l += ((other.l - into.l) * other.count) / count;
  into.a += ((other.a - into.a) * other.count) / count;
  into.b += ((other.b - into.b) * other.count) / count;
  into.count = count;
}

const distance2 = (x: Heap, y: Heap): number => (x.l - y.l) ** 2 + (x.a - y.a) ** 2 + (x.b - y.b) ** 2;
