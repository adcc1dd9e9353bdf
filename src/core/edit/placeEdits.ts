import { followedBy, IDENTITY, inverseOf, mirrorAbout, rotation, translation, type Affine } from '../geometry/affine.ts';
import type { Job } from '../job/job.ts';
import type { DesignObject, FigureObject } from '../job/objects.ts';
import type { Figure } from '../figure/figure.ts';
import type { Lettering } from '../lettering/lettering.ts';
import type { Bounds } from '../outline/curves.ts';
import { objectOf } from './objectEdits.ts';

/** A part by its box in the design, mm. */
export interface Boxed {
  readonly id: string;
  readonly box: Bounds;
}

/** The job with objects moved, turned or mirrored by a transform of the objects' common mm. Those inside of groups are moved as seen from outside. */
export function withPlaced(job: Job, ids: ReadonlySet<string>, by: Affine): Job {
  const place = (object: DesignObject, around: Affine): DesignObject => {
    if (object.kind === 'base' || object.kind === 'holes') return object;
    if (!ids.has(object.id)) return object.kind === 'group' ? { ...object, objects: object.objects.map((inner) => place(inner, followedBy(object.placement ?? IDENTITY, around))) } : object;
    const own = followedBy(followedBy(around, by), inverseOf(around));
    const { a, b, c, d, e, f } = followedBy(object.placement ?? IDENTITY, own);
    return { ...object, placement: { a, b, c, d, e, f } };
  };
  return { ...job, objects: job.objects.map((object) => place(object, IDENTITY)) };
}

export const withShifted = (job: Job, ids: ReadonlySet<string>, xMm: number, yMm: number): Job => (xMm === 0 && yMm === 0 ? job : withPlaced(job, ids, translation(xMm, yMm)));
/** Turned about a place, clockwise on screen. */
export const withTurned = (job: Job, ids: ReadonlySet<string>, rad: number, x: number, y: number): Job => withPlaced(job, ids, rotation(rad, x, y));
export const withMirrored = (job: Job, ids: ReadonlySet<string>, way: 'leftRight' | 'upDown', x: number, y: number): Job =>
  withPlaced(job, ids, way === 'leftRight' ? mirrorAbout(x) : { a: 1, b: 0, c: 0, d: -1, e: 0, f: 2 * y });

/**
 * The job with an object larger or smaller about a place of the common mm, which stays where it is. Figures, lettering and traced art change their own measures, so that what is told of them stays true; lengths of
 * operations stay as they were set.
 */
export function withScaled(job: Job, id: string, factor: number, x: number, y: number): Job {
  if (!(factor > 0) || factor === 1) return job;
  const object = objectOf(job.objects, id);
  if (object === undefined || object.kind === 'base' || object.kind === 'holes') return job;
  const isWhole = job.objects.some((each) => each.id === id);
  const scale: Affine = { a: factor, b: 0, c: 0, d: factor, e: x - factor * x, f: y - factor * y };
  if (!isWhole || object.kind === 'group' || object.kind === 'imported') return withPlaced(job, new Set([id]), scale);
  const { a, b, c, d, e, f } = object.placement ?? IDENTITY;
  const placement = { a, b, c, d, e: x + factor * (e - x), f: y + factor * (f - y) };
  const sized: DesignObject =
    object.kind === 'traced'
      ? { ...object, placement, size: { ...object.size, sizeMm: object.size.sizeMm * factor } }
      : object.kind === 'figure'
        ? { ...object, placement, shape: scaledFigure(object.shape, factor) }
        : { ...object, placement, lettering: scaledLettering(object.lettering, factor) };
  return { ...job, objects: job.objects.map((each) => (each.id === id ? sized : each)) };
}

/** The job with an object broader and higher by factors of their own about a place of the common mm. A figure that is not turned changes its own measures, so that its corners stay as they are; all others are stretched as they lie. */
export function withStretched(job: Job, id: string, across: number, down: number, x: number, y: number): Job {
  if (!(across > 0 && down > 0)) return job;
  const object = job.objects.find((each) => each.id === id);
  if (object?.kind === 'figure') {
    const { a, b, c, d, e, f } = object.placement ?? IDENTITY;
    if (b === 0 && c === 0) {
      const { widthMm, heightMm } = object.shape;
      const stretched: FigureObject = { ...object, placement: { a, b, c, d, e: x + across * (e - x), f: y + down * (f - y) }, shape: { ...object.shape, widthMm: widthMm * across, heightMm: heightMm * down } };
      return { ...job, objects: job.objects.map((each) => (each === object ? stretched : each)) };
    }
  }
  return withPlaced(job, new Set([id]), { a: across, b: 0, c: 0, d: down, e: x - across * x, f: y - down * y });
}

/** How far an object is turned, clockwise on screen, degrees above −180 and up to 180. */
export function turnDegOf(object: DesignObject): number {
  if (object.kind === 'base' || object.kind === 'holes') return 0;
  const { a, b } = object.placement ?? IDENTITY;
  const deg = (Math.atan2(b, a) * 180) / Math.PI + (object.kind === 'traced' ? object.size.turnDeg : 0);
  return deg - 360 * Math.ceil((deg - 180) / 360);
}

/** A figure with all its lengths scaled. */
export const scaledFigure = (figure: Figure, factor: number): Figure =>
  Object.fromEntries(Object.entries(figure).map(([key, value]) => [key, key.endsWith('Mm') && typeof value === 'number' ? value * factor : value])) as Figure;

function scaledLettering(lettering: Lettering, factor: number): Lettering {
  const { heightMm, around, thickenMm, widthMm, mostWidthMm } = lettering;
  return {
    ...lettering,
    heightMm: heightMm * factor,
    ...(around === undefined ? {} : { around: { ...around, diameterMm: around.diameterMm * factor } }),
    ...(thickenMm === undefined ? {} : { thickenMm: thickenMm * factor }),
    ...(widthMm === undefined ? {} : { widthMm: widthMm * factor }),
    ...(mostWidthMm === undefined ? {} : { mostWidthMm: mostWidthMm * factor }),
  };
}

/** Nine places of a box. */
export const ANCHORS = ['topLeft', 'top', 'topRight', 'left', 'middle', 'right', 'bottomLeft', 'bottom', 'bottomRight'] as const;
export type Anchor = (typeof ANCHORS)[number];

/** Where an anchor of a box lies. */
export function anchorOf({ left, top, right, bottom }: Bounds, anchor: Anchor): { x: number; y: number } {
  const name = anchor.toLowerCase();
  return {
    x: name.includes('left') ? left : name.includes('right') ? right : (left + right) / 2,
    y: name.includes('top') ? top : name.includes('bottom') ? bottom : (top + bottom) / 2,
  };
}

export const ALIGNMENTS = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof ALIGNMENTS)[number];

/** The job with parts brought to one line: an edge or a middle of the box around all of them, or of another box. */
export function withAligned(job: Job, parts: readonly Boxed[], how: Alignment, within: Bounds = boxAroundAll(parts)): Job {
  const place = (box: Bounds): number =>
    how === 'left' ? box.left : how === 'right' ? box.right : how === 'centre' ? (box.left + box.right) / 2 : how === 'top' ? box.top : how === 'bottom' ? box.bottom : (box.top + box.bottom) / 2;
  const isAcross = how === 'left' || how === 'right' || how === 'centre';
  return parts.reduce((left, { id, box }) => {
    const by = place(within) - place(box);
    return withShifted(left, new Set([id]), isAcross ? by : 0, isAcross ? 0 : by);
  }, job);
}

/** The job with parts moved so that the gaps between neighbours are equal; the outermost stay. */
export function withSpread(job: Job, parts: readonly Boxed[], way: 'across' | 'down'): Job {
  if (parts.length < 3) return job;
  const [from, to]: readonly [keyof Bounds, keyof Bounds] = way === 'across' ? ['left', 'right'] : ['top', 'bottom'];
  const sorted = [...parts].sort((a, b) => a.box[from] + a.box[to] - b.box[from] - b.box[to]);
  const taken = sorted.reduce((sum, { box }) => sum + box[to] - box[from], 0);
  const gap = (sorted[sorted.length - 1].box[to] - sorted[0].box[from] - taken) / (sorted.length - 1);
  let at = sorted[0].box[from];
  return sorted.reduce((left, { id, box }) => {
    const by = at - box[from];
    at += box[to] - box[from] + gap;
    return withShifted(left, new Set([id]), way === 'across' ? by : 0, way === 'across' ? 0 : by);
  }, job);
}

/** The box around several. @throws RangeError for none. */
export function boxAroundAll(parts: readonly Pick<Boxed, 'box'>[]): Bounds {
  if (parts.length === 0) throw new RangeError('no parts');
  const boxes = parts.map(({ box }) => box);
  return {
    left: Math.min(...boxes.map(({ left }) => left)),
    top: Math.min(...boxes.map(({ top }) => top)),
    right: Math.max(...boxes.map(({ right }) => right)),
    bottom: Math.max(...boxes.map(({ bottom }) => bottom)),
  };
}

/** The job with all of its design larger or smaller. Borders, boards and holes are made anew around it, in the lengths that were set. */
export const withAllScaled = (job: Job, factor: number): Job => job.objects.reduce((scaled, { id }) => withScaled(scaled, id, factor, 0, 0), job);
