import sharp from 'sharp';
import { mendGaps } from '../src/core/clean/mendGaps.ts';
import { artFromPicture } from '../src/core/raster/art.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { finish } from '../src/core/task/task.ts';
import { randomFrom } from './drawings.ts';
import { clearRegions, falseInkPercent, inkOf } from './gaps.ts';

const SIZE = 512;
/** Gaps at a corner or a tight bend, with a blot at one or both ends, frayed at both ends, and where three lines meet. */
export const GAP_KINDS = ['corner', 'blot', 'frayed', 'three ends'] as const;
export type GapKind = (typeof GAP_KINDS)[number];

type Point = readonly [number, number];
type Random = () => number;

/** A ragged pen line: overlapping dots of changing width along it, from and to a distance along. */
function penned(points: readonly Point[], widthPx: number, random: Random): string {
  let out = '';
  let swell = 0;
  for (const [x, y] of points) {
    swell = 0.86 * swell + 0.14 * (random() - 0.5);
    out += `<circle cx="${x.toFixed(2)}" cy="${y.toFixed(2)}" r="${((widthPx / 2) * (1 + 1.1 * swell)).toFixed(2)}"/>`;
  }
  return out;
}

/** Points a px apart along a closed polygon with corners rounded by `round` px. */
function along(corners: readonly Point[], round: number): Point[] {
  const out: Point[] = [];
  const step = (a: Point, b: Point): void => {
    const n = Math.max(1, Math.round(Math.hypot(b[0] - a[0], b[1] - a[1])));
    for (let k = 0; k < n; k++) out.push([a[0] + ((b[0] - a[0]) * k) / n, a[1] + ((b[1] - a[1]) * k) / n]);
  };
  const towards = (a: Point, b: Point, d: number): Point => {
    const l = Math.hypot(b[0] - a[0], b[1] - a[1]);
    return [a[0] + ((b[0] - a[0]) * d) / l, a[1] + ((b[1] - a[1]) * d) / l];
  };
  for (let k = 0; k < corners.length; k++) {
    const [at, next, after] = [0, 1, 2].map((on) => corners[(k + on) % corners.length]);
    step(towards(at, next, round), towards(next, at, round));
    const [p, q] = [towards(next, at, round), towards(next, after, round)];
    for (let j = 0; j < 2 * round; j++) {
      const t = j / (2 * round);
      out.push([(1 - t) ** 2 * p[0] + 2 * t * (1 - t) * next[0] + t * t * q[0], (1 - t) ** 2 * p[1] + 2 * t * (1 - t) * next[1] + t * t * q[1]]);
    }
  }
  return out;
}

/** What a drawing with gaps is drawn from. */
interface Plan {
  readonly kind: GapKind;
  readonly strokePx: number;
  /** Points of the outline, a px apart, and the two between which a line crosses it. */
  readonly ring: readonly Point[];
  readonly feet: readonly [number, number];
  /** Middles of the gaps along the outline, and half their lengths between the middles of the last dots, px. */
  readonly gaps: readonly { readonly at: number; readonly half: number }[];
}

function planOf(random: Random, kind: GapKind): Plan {
  const strokePx = 3.5 + random() * 4.5;
  const count = 5 + Math.floor(random() * 3);
  const corners = Array.from({ length: count }, (_, k): Point => {
    const a = ((k + 0.5 * random()) / count) * 2 * Math.PI;
    const r = 130 + random() * 80;
    return [256 + r * Math.cos(a), 256 + r * Math.sin(a)];
  });
  const ring = along(corners, 4 + random() * 14);
  const n = ring.length;
  const cornerAt = corners.map(([x, y]) => ring.reduce((best, [px, py], k) => (Math.hypot(px - x, py - y) < Math.hypot(ring[best][0] - x, ring[best][1] - y) ? k : best), 0));
  const first = Math.floor(random() * count);
  const second = (first + 2) % count;
  const middleOf = (k: number): number => {
    const span = (cornerAt[(k + 1) % count] - cornerAt[k] + n) % n;
    return Math.floor(cornerAt[k] + span * (0.35 + 0.3 * random())) % n;
  };
  const feet = [middleOf(first), middleOf((first + 3) % count)] as const;
  const at = kind === 'three ends' ? feet : kind === 'corner' ? [cornerAt[first], cornerAt[second]].map((k) => (k + Math.round((random() - 0.5) * 6) + n) % n) : [middleOf(second), (cornerAt[first] + Math.round(30 + 10 * random())) % n];
  // Dots are round: a gap of 5 to 12 px between them is longer by their width.
  return { kind, strokePx, ring, feet, gaps: at.map((middle) => ({ at: middle, half: (5 + random() * 7 + strokePx) / 2 })) };
}

/** The line between the two feet, without some px at both of its ends. */
function acrossOf({ ring, feet }: Plan, from: number, to: number): Point[] {
  const [a, b] = [ring[feet[0]], ring[feet[1]]];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const out: Point[] = [];
  for (let s = from; s < length - to; s++) out.push([a[0] + ((b[0] - a[0]) * s) / length, a[1] + ((b[1] - a[1]) * s) / length]);
  return out;
}

/** The outline in parts, from gap to gap. */
function partsOf({ ring, gaps }: Plan): Point[][] {
  const n = ring.length;
  const isOpen = (k: number): boolean => gaps.some(({ at, half }) => Math.min((k - at + n) % n, (at - k + n) % n) < half);
  const parts: Point[][] = [];
  for (let k = 0, start = ring.findIndex((_, j) => isOpen(j)); k < n; k++) {
    const at = (start + k) % n;
    if (isOpen(at)) continue;
    if (isOpen((at + n - 1) % n)) parts.push([]);
    parts[parts.length - 1].push(ring[at]);
  }
  return parts;
}

/** What the pen left at an end of a part: a blot, or hairs. */
function tipOf({ kind, strokePx }: Plan, tip: Point, inner: Point, random: Random): string {
  const length = Math.hypot(tip[0] - inner[0], tip[1] - inner[1]) || 1;
  const [dx, dy] = [(tip[0] - inner[0]) / length, (tip[1] - inner[1]) / length];
  if (kind === 'blot') return random() < 0.7 ? `<circle cx="${tip[0] - dx * strokePx * 0.4}" cy="${tip[1] - dy * strokePx * 0.4}" r="${strokePx * (0.75 + 0.35 * random())}"/>` : '';
  if (kind !== 'frayed') return '';
  return [-0.3, 0.25]
    .map((side) => {
      const reach = 3 + strokePx * (0.2 + 0.5 * random());
      const off = strokePx * side * random();
      return `<path d="M${tip[0] - dx * 3 - dy * side * strokePx} ${tip[1] - dy * 3 + dx * side * strokePx}l${dx * reach - dy * off} ${dy * reach + dx * off}" stroke="#1d1a26" stroke-width="${strokePx * 0.35}" stroke-linecap="round"/>`;
    })
    .join('');
}

async function drawn(body: string): Promise<Rgba8> {
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${SIZE}" height="${SIZE}"><rect width="512" height="512" fill="#fff"/><g fill="#1d1a26">${body}</g></svg>`;
  const { data, info } = await sharp(await sharp(Buffer.from(svg)).flatten().jpeg({ quality: 80 }).toBuffer()).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

/** A ragged closed outline with a line across it, whole and with two gaps of one kind, 5 to 12 px between the ends of ink. */
export async function roughOutline(seed: number, kind: GapKind): Promise<{ whole: Rgba8; broken: Rgba8 }> {
  const random = randomFrom(seed * 31 + GAP_KINDS.indexOf(kind));
  const plan = planOf(random, kind);
  const { strokePx, ring, gaps } = plan;
  const pen = (): Random => randomFrom(seed * 7 + 3);
  const [whole, broken] = [pen(), pen()];
  const parts = partsOf(plan);
  const across = kind === 'three ends' ? acrossOf(plan, gaps[0].half, gaps[1].half) : acrossOf(plan, 0, 0);
  const tips = parts.map((part) => [tipOf(plan, part[0], part[Math.min(part.length - 1, 5)], random), tipOf(plan, part[part.length - 1], part[Math.max(0, part.length - 6)], random)].join(''));
  return {
    whole: await drawn(penned(ring, strokePx, whole) + penned(acrossOf(plan, 0, 0), strokePx, whole)),
    broken: await drawn([...parts, across].map((part) => penned(part, strokePx, broken)).join('') + tips.join('')),
  };
}

/** Ragged pen lines whose gaps lie where a line bends, blots, frays or meets another. */
export async function benchRoughGaps(): Promise<void> {
  const drawings = 20;
  console.log('\n### Gap mending on ragged lines, two gaps of 5 to 12 px each\n\n| | closed % | false ink % | worst % |\n|---|---|---|---|');
  for (const kind of GAP_KINDS) {
    let closed = 0;
    const wrong: number[] = [];
    for (let seed = 1; seed <= drawings; seed++) {
      const { whole, broken } = await roughOutline(seed, kind);
      const { art } = finish(mendGaps(artFromPicture(broken), 14));
      const [truth, mended] = [inkOf(whole), inkOf(art.colour)];
      const isClosed = clearRegions(mended) === clearRegions(truth);
      if (isClosed) closed++;
      wrong.push(falseInkPercent(truth, mended));
      if (process.env['LIMNER_BENCH_EACH'] !== undefined) console.log(seed, kind, isClosed, clearRegions(inkOf(broken)), clearRegions(mended), clearRegions(truth), wrong.at(-1)?.toFixed(2));
    }
    console.log(`| ${kind} | ${((100 * closed) / drawings).toFixed(0)} | ${(wrong.reduce((a, b) => a + b) / drawings).toFixed(2)} | ${Math.max(...wrong).toFixed(2)} |`);
  }
}
