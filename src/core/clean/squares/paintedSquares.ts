import type { Rgb } from '../../colour/oklab.ts';
import { levelsApart, lumaOf } from '../../colour/hex.ts';
import { isOpaque, withAlpha, type Art } from '../../raster/art.ts';
import { fillRegions, labelRegions } from '../../raster/labelRegions.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { byRows, within, type Task } from '../../task/task.ts';
import { latticeOf, NEITHER, type Lattice } from './lattice.ts';

/** A ground painted in squares of two greys by turns, as programs show by them what is clear. */
export interface PaintedSquares {
  /** 1 where the squares are. */
  readonly mask: Uint8Array;
  /** 1 where the art itself has one of the greys. */
  readonly stays: Uint8Array;
  /** The art on a plain ground: all squares in the lighter grey, and the mixed pixels beside them as they would be on it. */
  readonly plain: Art;
  /** That grey. */
  readonly ground: Rgb;
}

/** The greys of squares differ by so many levels, and each channel of a grey from its others by no more than this. */
const [LEAST_APART, MOST_APART] = [8, 90];
const GREY = 14;
/** So much of one side of the border is squares. */
const OF_SIDE = 0.6;
/** Where across the picture lines are looked for changes in, shares of it: along the border, and where art that reaches it leaves them. */
const ALONG = [0, 1, 0.1, 0.9, 0.25, 0.5, 0.75];
/** A pixel this near to a grey is of it: this share of what lies between the two, and so many levels. */
const NEAR = 0.45;
const NEAR_LEVELS = 6;
/** What has more tint than this, of 255, is no grey, however near: compression leaves less on squares, and takes some of a pale colour beside them. */
const TINTED = 20;
/** An area is squares when so many of its pixels have the grey that their place has. */
const IN_TURN = 0.85;
/** Squares are about as high as they are wide. */
const SQUARE = 0.12;

/** The squares that a picture's ground is painted in; undefined where it is not. Art with anything clear has no need of them. */
export function* paintedSquares(art: Art): Task<PaintedSquares | undefined> {
  const { width, height } = art;
  const greys = isOpaque(art.alpha) ? greysAlong(art) : undefined;
  if (greys === undefined) return undefined;
  const kindAt = (x: number, y: number): number => kindOf(greys, art.colour.data, 4 * (y * width + x));
  const across = bestLattice(ALONG.map((share) => Math.round(1 + share * (height - 3))).map((y) => Uint8Array.from({ length: width }, (_, x) => kindAt(x, y))));
  const down = bestLattice(ALONG.map((share) => Math.round(1 + share * (width - 3))).map((x) => Uint8Array.from({ length: height }, (_, y) => kindAt(x, y))));
  if (across === undefined || down === undefined || Math.abs(across.period - down.period) > SQUARE * across.period) return undefined;
  const kinds = new Uint8Array(width * height);
  yield* within(byRows(height, (y) => kindsOfRow(art, greys, kinds, y)), 0, 0.3);
  const turn = turnOf(across, down);
  const areas = yield* within(areasInTurn(kinds, width, height, turn), 0.3, 0.6);
  if (areas === undefined) return undefined;
  const { mask, darkTurn } = areas;
  const plain = yield* within(onPlain(art, mask, greys, (x, y) => turn(x, y) === darkTurn), 0.6, 1);
  const stays = kinds.map((kind, i) => (kind !== NEITHER && mask[i] === 0 ? 1 : 0));
  return { mask, stays, plain, ground: greys.light };
}

interface Greys {
  readonly light: Rgb;
  readonly dark: Rgb;
  /** How far from one of them a pixel may be, levels of each channel. */
  readonly near: number;
}

/** The two greys of most of one side of the border. */
function greysAlong({ width, height, colour: { data } }: Art): Greys | undefined {
  const sides = [0, (height - 1) * width].map((from) => Array.from({ length: width }, (_, x) => colourAt(data, from + x)));
  const ends = [0, width - 1].map((from) => Array.from({ length: height }, (_, y) => colourAt(data, from + y * width)));
  return [...sides, ...ends].map(greysOf).find((greys) => greys !== undefined);
}

function greysOf(seen: readonly Rgb[]): Greys | undefined {
  const lumas = seen.map(lumaOf).sort((a, b) => a - b);
  const middle = (lumas[Math.floor(0.1 * lumas.length)] + lumas[Math.floor(0.9 * lumas.length)]) / 2;
  const [dark, light] = [seen.filter((each) => lumaOf(each) <= middle), seen.filter((each) => lumaOf(each) > middle)].map(middleOf);
  const apart = lumaOf(light) - lumaOf(dark);
  if (!(apart >= LEAST_APART && apart <= MOST_APART) || !isGrey(light) || !isGrey(dark)) return undefined;
  const greys = { light, dark, near: NEAR * apart + NEAR_LEVELS };
  return seen.filter((each) => Math.min(levelsApart(each, light), levelsApart(each, dark)) <= greys.near).length >= OF_SIDE * seen.length ? greys : undefined;
}

const colourAt = (data: Uint8Array, i: number): Rgb => ({ r: data[4 * i], g: data[4 * i + 1], b: data[4 * i + 2] });
const middleOf = (colours: readonly Rgb[]): Rgb => {
  const middle = (channel: keyof Rgb): number => colours.map((colour) => colour[channel]).sort((a, b) => a - b)[colours.length >> 1] ?? 0;
  return { r: middle('r'), g: middle('g'), b: middle('b') };
};
const isGrey = ({ r, g, b }: Rgb): boolean => Math.max(r, g, b) - Math.min(r, g, b) <= GREY;

/** What the colour at a place of RGBA bytes is: 0 for the lighter grey, 1 for the darker, or neither. */
function kindOf({ light, dark, near }: Greys, data: Uint8Array, j: number): number {
  const [r, g, b] = [data[j], data[j + 1], data[j + 2]];
  const toLight = Math.max(Math.abs(r - light.r), Math.abs(g - light.g), Math.abs(b - light.b));
  const toDark = Math.max(Math.abs(r - dark.r), Math.abs(g - dark.g), Math.abs(b - dark.b));
  if (Math.min(toLight, toDark) > near || Math.max(r, g, b) - Math.min(r, g, b) > TINTED) return NEITHER;
  return toLight <= toDark ? 0 : 1;
}

function kindsOfRow({ width, colour: { data } }: Art, greys: Greys, kinds: Uint8Array, y: number): void {
  for (let i = y * width; i < (y + 1) * width; i++) kinds[i] = kindOf(greys, data, 4 * i);
}

const bestLattice = (lines: readonly Uint8Array[]): Lattice | undefined =>
  lines
    .map(latticeOf)
    .filter((lattice) => lattice !== undefined)
    .sort((a, b) => b.count - a.count)[0];

/** Which of two kinds of squares a pixel lies in, by its place. */
type TurnOf = (x: number, y: number) => 0 | 1;
const turnOf = (across: Lattice, down: Lattice): TurnOf => {
  const number = ({ at, period }: Lattice, place: number): number => Math.floor((place + 0.5 - at) / period);
  return (x, y) => ((number(across, x) + number(down, y)) & 1) as 0 | 1;
};

/** The connected areas of both greys in which they take turns, and which turn the darker has; undefined when none reaches the border. */
function* areasInTurn(kinds: Uint8Array, width: number, height: number, turn: TurnOf): Task<{ mask: Uint8Array; darkTurn: 0 | 1 } | undefined> {
  const either = kinds.map((kind) => (kind === NEITHER ? 0 : 1));
  yield 0.1;
  const regions = labelRegions(either, width, height, 1, true);
  const even = new Float64Array(regions.count);
  for (let run = 0; run < regions.runStart.length; run++) {
    const y = Math.floor(regions.runStart[run] / width);
    for (let i = regions.runStart[run]; i < regions.runEnd[run]; i++) if (kinds[i] === turn(i - y * width, y)) even[regions.regionOfRun[run]]++;
    if (run % RUNS_PER_TURN === RUNS_PER_TURN - 1) yield 0.1 + (0.8 * run) / regions.runStart.length;
  }
  // Which grey is in which squares is what most of the border's area says.
  let balance = 0;
  for (let region = 0; region < regions.count; region++) if (regions.touchesBorder[region] === 1) balance += 2 * even[region] - regions.area[region];
  const isEven = balance >= 0;
  const chosen = regions.area.map((px2, region) => ((isEven ? even[region] : px2 - even[region]) >= IN_TURN * px2 ? 1 : 0));
  if (!chosen.some((is, region) => is === 1 && regions.touchesBorder[region] === 1)) return undefined;
  return { mask: fillRegions(regions, chosen, new Uint8Array(kinds.length)), darkTurn: isEven ? 1 : 0 };
}

/** So many runs of pixels are looked at before others have their turn. */
const RUNS_PER_TURN = 20_000;
/** How far from squares a pixel may be mixed with one, px. */
const RIM_PX = 2;

function* onPlain(art: Art, mask: Uint8Array, { light, dark }: Greys, isDark: (x: number, y: number) => boolean): Task<Art> {
  const { width, height } = art;
  const data = new Uint8Array(art.colour.data);
  const paint = (y: number): void => {
    for (let x = 0, i = y * width; x < width; x++, i++) {
      if (mask[i] !== 0) [data[4 * i], data[4 * i + 1], data[4 * i + 2]] = [light.r, light.g, light.b];
      else if (isDark(x, y) && isNear(mask, width, height, x, y)) {
        const share = 1 - shareOf(art, mask, x, y, dark);
        for (const [c, channel] of (['r', 'g', 'b'] as const).entries()) data[4 * i + c] = Math.min(255, Math.round(art.colour.data[4 * i + c] + share * (light[channel] - dark[channel])));
      }
    }
  };
  yield* byRows(height, paint);
  return withAlpha(art, art.alpha, makeRgba8(width, height, data, art.colour.opaque === true));
}

function isNear(mask: Uint8Array, width: number, height: number, x: number, y: number): boolean {
  for (let v = Math.max(0, y - RIM_PX); v <= Math.min(height - 1, y + RIM_PX); v++)
    for (let u = Math.max(0, x - RIM_PX); u <= Math.min(width - 1, x + RIM_PX); u++) if (mask[v * width + u] !== 0) return true;
  return false;
}

/** The share of art in a pixel beside a square: how far it is from the square's grey, of how far the strongest pixel around it is. */
function shareOf({ width, height, colour: { data } }: Art, mask: Uint8Array, x: number, y: number, grey: Rgb): number {
  const own = levelsApart(colourAt(data, y * width + x), grey);
  let most = own;
  for (let v = Math.max(0, y - RIM_PX); v <= Math.min(height - 1, y + RIM_PX); v++)
    for (let u = Math.max(0, x - RIM_PX); u <= Math.min(width - 1, x + RIM_PX); u++) if (mask[v * width + u] === 0) most = Math.max(most, levelsApart(colourAt(data, v * width + u), grey));
  return most === 0 ? 1 : own / most;
}
