import { AppError } from '../errors/appError.ts';
import { isOpaque, withAlpha, type Art } from '../raster/art.ts';
import type { RectPx } from '../raster/crop.ts';
import { lumaHistogram, throughTable } from '../raster/luma.ts';
import { otsu } from '../raster/otsu.ts';
import { makeRgba8, makeShareMap, type ShareMap } from '../raster/raster.ts';
import type { Task } from '../task/task.ts';
import { sparedOf, type Find, type Places } from './finds.ts';
import { letteringMask } from './lettering.ts';
import { inkMask, lineEnds, type LineEnd } from './lineEnds.ts';
import { paintStroke } from './paintStrokes.ts';

/** A proposed joint: a curve from one end of a line to another or to the side of something, with the half width at both of its ends. */
export interface Joint {
  /** Points of the middle, x and y by turns, art pixels. */
  readonly points: readonly number[];
  readonly fromHalfWidthPx: number;
  readonly toHalfWidthPx: number;
  /** Length of the gap between the ink on both sides, px. */
  readonly gapPx: number;
}

/** Ends that look past each other by more than this are not joined, radians: one of them, and both together. */
const MOST_TURN_RAD = 1.35;
const MOST_TURNS_RAD = 1.9;
/** A line whose other side is so many times as wide is another line. */
const MOST_WIDTH_RATIO = 2.6;
/** A gap is read from pixels that are at least half ink: it may come out so much wider than it was cut. */
const EDGE_SLACK_PX = 1;
/** Less contrast between ink and ground is no drawing, levels of 255. */
const LEAST_CONTRAST = 10;

/**
 * Mends breaks in drawn lines: ends of lines that face each other across a gap are joined by a curve in both their directions and widths, in the line's
 * own colour; an end that faces the side of other ink is carried on to it. The nearest and straightest pairs are taken first, each end once.
 * Letters end in lines that face each other by nature: what reads as lettering is left as it is, except in a frame that was drawn round it.
 * @param mostPx widest gap between the ink on both sides, px of the art. @param spared places of joints that are not drawn, px of the art. @param frame outside of which no line ends, px of the art, and within which lettering is mended too; everywhere when absent.
 * @throws AppError `oneColour` when ink and ground cannot be told apart.
 */
export function* mendGaps(art: Art, mostPx: number, spared: Places = [], frame?: RectPx): Task<{ art: Art; joints: readonly Joint[]; finds: readonly Find[] }> {
  const { width, height } = art;
  const share = inkShare(art);
  const ink = inkMask(share);
  yield 0.3;
  const all = lineEnds(share);
  const lettering = frame === undefined ? letteringMask(ink, width, height, all) : new Uint8Array(ink.length);
  const isWithin = ({ xPx, yPx }: LineEnd): boolean => frame === undefined || (xPx >= frame.xPx && yPx >= frame.yPx && xPx <= frame.xPx + frame.widthPx && yPx <= frame.yPx + frame.heightPx);
  const ends = all.filter((end) => lettering[end.pixel] === 0 && isWithin(end));
  yield 0.7;
  const found = findJoints(ends, ink, lettering, width, height, mostPx + EDGE_SLACK_PX);
  const finds = jointFinds(found, spared);
  const joints = found.filter((_, k) => !finds[k].spared);
  return { art: joints.length === 0 ? art : drawJoints(art, share, ink, joints), joints, finds };
}

/** The joints as finds, each at its middle. */
function jointFinds(joints: readonly Joint[], spared: Places): Find[] {
  const middles = joints.map(({ points }) => {
    const k = 2 * ((points.length / 2) >> 1);
    return points.length === 4 ? [(points[0] + points[2]) / 2, (points[1] + points[3]) / 2] : [points[k], points[k + 1]];
  });
  const gaps = joints.map(({ gapPx }) => gapPx);
  const isSpared = sparedOf(middles.map(([x]) => x), middles.map(([, y]) => y), gaps, spared);
  return joints.map(({ gapPx }, k) => ({ kind: 'joint', xPx: middles[k][0], yPx: middles[k][1], size: gapPx, spared: isSpared[k] !== 0 }));
}

/** How much of each pixel is ink: by its lightness on white between the two tones. */
function inkShare(art: Art): ShareMap {
  const { dark, light } = otsu(lumaHistogram(art).histogram);
  if (light - dark < LEAST_CONTRAST) throw new AppError('oneColour');
  const table = Uint8Array.from({ length: 256 }, (_, v) => Math.round(255 * Math.max(0, Math.min(1, (light - v) / (light - dark)))));
  return makeShareMap(art.width, art.height, throughTable(art, table, isOpaque(art.alpha)));
}

interface Proposal {
  readonly from: number;
  /** The other end, −1 when it is the side of something. */
  readonly to: number;
  readonly cost: number;
  readonly joint: Joint;
}

function findJoints(ends: readonly LineEnd[], ink: Uint8Array, lettering: Uint8Array, width: number, height: number, mostPx: number): Joint[] {
  const proposals: Proposal[] = [];
  const byPlace = new Map<string, number[]>();
  const reach = Math.max(8, mostPx);
  const cell = (x: number, y: number): string => `${Math.floor(x / reach)},${Math.floor(y / reach)}`;
  for (const [k, end] of ends.entries()) byPlace.set(cell(end.xPx, end.yPx), [...(byPlace.get(cell(end.xPx, end.yPx)) ?? []), k]);
  for (const [k, end] of ends.entries()) {
    for (let dy = -1; dy <= 1; dy++) {
      for (let dx = -1; dx <= 1; dx++) {
        for (const other of byPlace.get(cell(end.xPx + dx * reach, end.yPx + dy * reach)) ?? []) {
          if (other <= k) continue;
          const proposal = betweenEnds(ends, k, other, mostPx);
          if (proposal !== undefined) proposals.push(proposal);
        }
      }
    }
    const onwards = toTheSide(ends, k, ink, lettering, width, height, mostPx);
    if (onwards !== undefined) proposals.push(onwards);
  }
  // Two ends that face each other are surer than any side.
  proposals.sort((a, b) => Number(a.to < 0) - Number(b.to < 0) || a.cost - b.cost);
  const used = new Set<number>();
  const joints: Joint[] = [];
  for (const { from, to, joint } of proposals) {
    if (used.has(from) || used.has(to)) continue;
    used.add(from);
    if (to >= 0) used.add(to);
    joints.push(joint);
  }
  return joints;
}

const turnBetween = (ax: number, ay: number, bx: number, by: number): number => Math.acos(Math.max(-1, Math.min(1, ax * bx + ay * by)));

function betweenEnds(ends: readonly LineEnd[], from: number, to: number, mostPx: number): Proposal | undefined {
  const [a, b] = [ends[from], ends[to]];
  const dx = b.xPx - a.xPx;
  const dy = b.yPx - a.yPx;
  const distance = Math.hypot(dx, dy);
  if (distance > mostPx || distance < 0.5) return undefined;
  if (Math.max(a.halfWidthPx, b.halfWidthPx) > MOST_WIDTH_RATIO * Math.min(a.halfWidthPx, b.halfWidthPx)) return undefined;
  const out = turnBetween(a.dx, a.dy, dx / distance, dy / distance);
  const into = turnBetween(b.dx, b.dy, -dx / distance, -dy / distance);
  if (out > MOST_TURN_RAD || into > MOST_TURN_RAD || out + into > MOST_TURNS_RAD) return undefined;
  return { from, to, cost: Math.max(1, distance) * (1 + out + into), joint: { points: bend(a, b, distance), fromHalfWidthPx: a.halfWidthPx, toHalfWidthPx: b.halfWidthPx, gapPx: distance } };
}

/** A cubic in the direction of both ends, as points about a px apart. */
function bend(a: LineEnd, b: LineEnd, distance: number): number[] {
  const third = distance / 3;
  const [x1, y1, x2, y2] = [a.xPx + a.dx * third, a.yPx + a.dy * third, b.xPx + b.dx * third, b.yPx + b.dy * third];
  const points: number[] = [];
  const count = Math.max(2, Math.ceil(distance));
  for (let k = 0; k <= count; k++) {
    const t = k / count;
    const s = 1 - t;
    points.push(s * s * s * a.xPx + 3 * s * s * t * x1 + 3 * s * t * t * x2 + t * t * t * b.xPx, s * s * s * a.yPx + 3 * s * s * t * y1 + 3 * s * t * t * y2 + t * t * t * b.yPx);
  }
  return points;
}

/** Carries an end straight on until it meets ink beyond a gap. */
function toTheSide(ends: readonly LineEnd[], from: number, ink: Uint8Array, lettering: Uint8Array, width: number, height: number, mostPx: number): Proposal | undefined {
  const end = ends[from];
  // The first two px are the mixed rim of its own end.
  for (let s = 2; s <= mostPx; s += 0.5) {
    const x = end.xPx + end.dx * s;
    const y = end.yPx + end.dy * s;
    if (x < 0 || y < 0 || x >= width || y >= height) return undefined;
    const i = Math.floor(y) * width + Math.floor(x);
    if (ink[i] === 0) continue;
    if (lettering[i] === 1 || !isOpenAcross(end, s / 2, ink, width)) return undefined;
    const points = [end.xPx, end.yPx, x + end.dx * end.halfWidthPx, y + end.dy * end.halfWidthPx];
    return { from, to: -1, cost: s, joint: { points, fromHalfWidthPx: end.halfWidthPx, toHalfWidthPx: end.halfWidthPx, gapPx: s } };
  }
  return undefined;
}

/** Whether the gap is open over the whole width of the line at a distance from its end; beside a bent end it runs along its own ink. */
function isOpenAcross(end: LineEnd, s: number, ink: Uint8Array, width: number): boolean {
  for (const side of [-0.8, 0, 0.8]) {
    const x = Math.floor(end.xPx + end.dx * s - end.dy * side * end.halfWidthPx);
    const y = Math.floor(end.yPx + end.dy * s + end.dx * side * end.halfWidthPx);
    if (ink[y * width + x] === 1) return false;
  }
  return true;
}

/** Paints the joints in the colour of the ink beside them: a pixel holds as much ink as the joint brings or as it has, whichever is more. */
function drawJoints(art: Art, share: ShareMap, ink: Uint8Array, joints: readonly Joint[]): Art {
  const { width, height } = art;
  const colour = new Uint8Array(art.colour.data);
  const alpha = art.alpha.slice();
  for (const joint of joints) {
    const cover = new Map<number, number>();
    paintJoint(joint, width, height, cover);
    const tone = inkTone(art, ink, joint);
    for (const [i, covered] of cover) {
      const has = share.data[i];
      if (covered <= has) continue;
      const part = alpha[i] === 0 ? 1 : (covered - has) / (255 - has);
      for (let c = 0; c < 3; c++) colour[i * 4 + c] = Math.round(colour[i * 4 + c] + (tone[c] - colour[i * 4 + c]) * part);
      alpha[i] = Math.max(alpha[i], covered);
    }
  }
  return withAlpha(art, alpha, makeRgba8(width, height, colour, art.colour.opaque === true));
}

/** Share of each pixel under a joint, its half width going over from one end's to the other's. */
function paintJoint({ points, fromHalfWidthPx, toHalfWidthPx }: Joint, width: number, height: number, into: Map<number, number>): void {
  const margin = Math.ceil(Math.max(fromHalfWidthPx, toHalfWidthPx)) + 2;
  const xs = points.filter((_, k) => k % 2 === 0);
  const ys = points.filter((_, k) => k % 2 === 1);
  const left = Math.max(0, Math.floor(Math.min(...xs)) - margin);
  const top = Math.max(0, Math.floor(Math.min(...ys)) - margin);
  const w = Math.min(width, Math.ceil(Math.max(...xs)) + margin) - left;
  const h = Math.min(height, Math.ceil(Math.max(...ys)) + margin) - top;
  const cover = new Uint8Array(w * h);
  const last = points.length / 2 - 1;
  for (let k = 0; k < last; k++) {
    const radius = fromHalfWidthPx + ((toHalfWidthPx - fromHalfWidthPx) * (k + 0.5)) / last;
    paintStroke(cover, w, h, [points[2 * k] - left, points[2 * k + 1] - top, points[2 * k + 2] - left, points[2 * k + 3] - top], radius);
  }
  for (let i = 0; i < cover.length; i++) if (cover[i] !== 0) into.set((top + Math.floor(i / w)) * width + left + (i % w), cover[i]);
}

/** Middle colour of the ink within a few px of the joint's first point. */
function inkTone(art: Art, ink: Uint8Array, { points, fromHalfWidthPx }: Joint): [number, number, number] {
  const { width, height } = art;
  const reach = Math.ceil(fromHalfWidthPx) + 2;
  const near: number[] = [];
  const x = Math.floor(points[0]);
  const y = Math.floor(points[1]);
  for (let yy = Math.max(0, y - reach); yy <= Math.min(height - 1, y + reach); yy++) for (let xx = Math.max(0, x - reach); xx <= Math.min(width - 1, x + reach); xx++) if (ink[yy * width + xx] !== 0) near.push(yy * width + xx);
  const middle = (c: number): number => near.map((i) => art.colour.data[i * 4 + c]).sort((a, b) => a - b)[near.length >> 1] ?? 0;
  return [middle(0), middle(1), middle(2)];
}
