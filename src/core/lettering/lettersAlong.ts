import { offsetCurves } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { followedBy, rotation, translation } from '../geometry/affine.ts';
import { signedArea } from '../geometry/rings.ts';
import { CurvesBuilder, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { finishLetters, type LetteredText, type SetLetter } from './letterCurves.ts';
import { DEFAULT_LETTERING, type Lettering } from './lettering.ts';

/** Chords for measuring along an outline, mm. */
const CHORD_MM = 0.005;

/**
 * Letters on an outline: each stands upright on it at the middle of its room, turned as the outline goes over that room. A text longer than the outline is made smaller.
 * @param text set on straight lines. @param edge the largest ring of these outlines is followed, mm.
 * @returns outlines in the mm of the edge; undefined where there is none to stand on.
 */
export function lettersAlong(library: PolygonLibrary, { curves, letters = [] }: LetteredText, edge: Curves, lettering: Lettering): Curves | undefined {
  const { along, heightMm, lineSpacing = DEFAULT_LETTERING.lineSpacing } = lettering;
  if (along === undefined) throw new RangeError('the text follows no outline');
  const { heads, at, awayMm } = along;
  const sense = heads === 'out' ? 1 : -1;
  const lines = new Map<number, Line | undefined>();
  const lineOf = (linesBelow: number): Line | undefined => {
    if (!lines.has(linesBelow)) {
      const way = wayAlong(offsetCurves(library, edge, awayMm + sense * linesBelow * lineSpacing * heightMm)) ?? wayAlong(edge);
      const taken = 2 * letters.reduce((most, letter) => (letter.linesBelow === linesBelow ? Math.max(most, Math.abs(letter.fromMiddleMm) + letter.advanceMm / 2) : most), 0);
      lines.set(linesBelow, way === undefined ? undefined : { way, scale: Math.min(1, way.lengthMm / taken) });
    }
    return lines.get(linesBelow);
  };
  const builder = new CurvesBuilder();
  let count = 0;
  for (const letter of letters) {
    const line = lineOf(letter.linesBelow);
    if (line === undefined) return undefined;
    const { way, scale } = line;
    const place = (mm: number): Place => way.at(at * way.lengthMm + sense * mm * scale);
    const own = transformCurves(ringsOf(curves, letter), followedBy(upright(letter, scale), turnedTo(place(letter.fromMiddleMm), place(letter.fromMiddleMm - letter.advanceMm / 2), place(letter.fromMiddleMm + letter.advanceMm / 2))));
    for (let ring = 0; ring < letter.rings; ring++) builder.copy(own, ring, own.parent[ring] < 0 ? -1 : count + own.parent[ring]);
    count += letter.rings;
  }
  return finishLetters(library, builder.build(), lettering);
}

interface Place {
  readonly x: number;
  readonly y: number;
}

/** A ring as one goes along it, clockwise from above its middle. */
interface Way {
  readonly lengthMm: number;
  at(mm: number): Place;
}

/** What a line of the text stands on, and how much smaller it is made to have room there. */
interface Line {
  readonly way: Way;
  readonly scale: number;
}

/** The letter alone, its foot's middle at 0, 0. */
const upright = ({ xMm, footMm }: SetLetter, scale: number) => followedBy(translation(-xMm, -footMm), { a: scale, b: 0, c: 0, d: scale, e: 0, f: 0 });

const turnedTo = (at: Place, from: Place, to: Place) => followedBy(rotation(Math.atan2(to.y - from.y, to.x - from.x), 0, 0), translation(at.x, at.y));

function ringsOf(curves: Curves, { firstRing, rings }: SetLetter): Curves {
  const builder = new CurvesBuilder();
  for (let k = 0; k < rings; k++) builder.copy(curves, firstRing + k, curves.parent[firstRing + k] < 0 ? -1 : curves.parent[firstRing + k] - firstRing);
  return builder.build();
}

function wayAlong(curves: Curves): Way | undefined {
  const { points, starts } = flatten(curves, CHORD_MM);
  const areas = Array.from({ length: starts.length - 1 }, (_, ring) => signedArea(points, starts[ring], starts[ring + 1]));
  const largest = areas.reduce((best, area, ring) => (Math.abs(area) > Math.abs(areas[best]) ? ring : best), 0);
  const [from, to] = [starts[largest], starts[largest + 1]];
  if (areas.length === 0 || to - from < 3) return undefined;
  const count = to - from;
  const clockwise = areas[largest] > 0;
  const x = new Float64Array(count + 1);
  const y = new Float64Array(count + 1);
  for (let k = 0; k <= count; k++) {
    const i = from + ((clockwise ? k : count - k) % count);
    [x[k], y[k]] = [points[2 * i], points[2 * i + 1]];
  }
  const along = new Float64Array(count + 1);
  for (let k = 1; k <= count; k++) along[k] = along[k - 1] + Math.hypot(x[k] - x[k - 1], y[k] - y[k - 1]);
  const lengthMm = along[count];
  const start = aboveMiddle(x, y, along);
  const at = (mm: number): Place => {
    const s = (((start + mm) % lengthMm) + lengthMm) % lengthMm;
    let [low, high] = [0, count];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (along[middle] <= s) low = middle;
      else high = middle;
    }
    const t = along[high] === along[low] ? 0 : (s - along[low]) / (along[high] - along[low]);
    return { x: x[low] + (x[high] - x[low]) * t, y: y[low] + (y[high] - y[low]) * t };
  };
  return { lengthMm, at };
}

/** How far along a closed way its uppermost crossing with the upright through its middle is. */
function aboveMiddle(x: Float64Array, y: Float64Array, along: Float64Array): number {
  const middle = (x.reduce((a, b) => Math.min(a, b)) + x.reduce((a, b) => Math.max(a, b))) / 2;
  let [best, found] = [Infinity, 0];
  for (let k = 0; k + 1 < x.length; k++) {
    if (x[k] > middle === x[k + 1] > middle) continue;
    const t = (middle - x[k]) / (x[k + 1] - x[k]);
    const height = y[k] + (y[k + 1] - y[k]) * t;
    if (height < best) [best, found] = [height, along[k] + (along[k + 1] - along[k]) * t];
  }
  return found;
}
