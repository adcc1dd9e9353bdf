import { AppError } from '../errors/appError.ts';
import { followedBy, IDENTITY, rotation, scaling, translation, type Affine } from '../geometry/affine.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import type { FinishedSize } from '../units/finishedSize.ts';
import { mm, mmFromPx, px, pxPerMm, type Mm, type PxPerMm } from '../units/length.ts';

/** The outlines of one film. */
export interface DesignLayer {
  readonly filmId: string;
  readonly curves: Curves;
  /** Lines that are drawn on the film and not cut, where it has any. */
  readonly marks?: Curves | undefined;
}

/** Outlines of films at their finished size, in mm, the box around them starting at 0, 0. */
export interface Design {
  /** Lowest first. */
  readonly layers: readonly DesignLayer[];
  readonly widthMm: Mm;
  readonly heightMm: Mm;
}

/** The layer of a film. @throws RangeError when the design has none. */
export function layerOf({ layers }: Pick<Design, 'layers'>, filmId: string): DesignLayer {
  const layer = layers.find((each) => each.filmId === filmId);
  if (layer === undefined) throw new RangeError(`the design has no film ${filmId}`);
  return layer;
}

/** Where a traced object lies in a design. */
export interface TracedPlace {
  /** Art pixels on one mm of the design. */
  readonly resolution: PxPerMm;
  /** From the object's art px to the design's mm. */
  readonly fromOutline: Affine;
}

/**
 * Brings the outlines of films, lowest first, from px to their finished size: turned, then scaled so that the chosen side of the box around all of them has the
 * given length.
 * @throws AppError `nothingToCut` when there is no outline.
 */
export function makeDesign(layers: readonly DesignLayer[], size: FinishedSize): Design & TracedPlace {
  const turn = size.turnDeg === 0 ? IDENTITY : rotation((size.turnDeg * Math.PI) / 180, 0, 0);
  const turned = layers.map(({ filmId, curves }) => ({ filmId, curves: size.turnDeg === 0 ? curves : transformCurves(curves, turn) }));
  const box = boxAround(turned);
  const extentPx = size.by === 'width' ? box.right - box.left : box.bottom - box.top;
  const resolution = pxPerMm(extentPx / size.sizeMm);
  const perPx = mmFromPx(px(1), resolution);
  const toSize = followedBy(translation(-box.left, -box.top), scaling(perPx));
  const inMm = turned.map(({ filmId, curves }) => ({ filmId, curves: transformCurves(curves, toSize) }));
  return {
    layers: inMm,
    widthMm: mm((box.right - box.left) * perPx),
    heightMm: mm((box.bottom - box.top) * perPx),
    resolution,
    fromOutline: followedBy(turn, toSize),
  };
}

/** What sizes differ by in their last digits, mm. */
const ROUNDING_MM = 1e-9;

/** What lies in a design as one: outlines of films in their own mm, and where they are put. */
export interface PlacedLayers {
  /** Of the object; those of a group are those of what it holds. */
  readonly id?: string;
  readonly layers: readonly DesignLayer[];
  readonly placement?: Affine | undefined;
  /** Cut out of all that lies below, instead of being there. */
  readonly cutsOut?: boolean | undefined;
}

/**
 * Puts objects together, lowest first: what several have of one film becomes one layer, where the film goes on first.
 * @param order films in the order of pressing; those that it does not name follow in the order of the objects.
 * @param cutOut what cuts outlines out of each other; not needed where no object cuts.
 * @returns the design, how the objects' common mm were moved so that its box starts at 0, 0, and the box of each object that has an id.
 */
export function composeDesign(objects: readonly PlacedLayers[], order: readonly string[], cutOut?: CutOut): ComposedDesign {
  const inPlace = objects.map(({ layers, placement, ...object }) => ({
    ...object,
    layers: layers.map(({ filmId, curves }): DesignLayer => ({ filmId, curves: placement === undefined ? curves : transformCurves(curves, placement) })),
  }));
  const placedLayers = withoutCuts(inPlace, cutOut);
  const box = boxAround(placedLayers);
  const moved = Math.hypot(box.left, box.top) < ROUNDING_MM ? IDENTITY : translation(-box.left, -box.top);
  const layers = pressingOrder(
    objects.flatMap((object) => (object.cutsOut === true ? [] : [object.layers.map(({ filmId }) => filmId)])),
    order,
  ).map((filmId): DesignLayer => {
    const own = placedLayers.filter((layer) => layer.filmId === filmId).map(({ curves }) => curves);
    const curves = own.length === 1 ? own[0] : joinCurves(own);
    return { filmId, curves: moved === IDENTITY ? curves : transformCurves(curves, moved) };
  });
  const boxes = inPlace.flatMap(({ id, layers: own }) => {
    const around = id === undefined || own.length === 0 ? undefined : boxAround(own);
    return around === undefined ? [] : [{ id: id as string, left: around.left - box.left, top: around.top - box.top, right: around.right - box.left, bottom: around.bottom - box.top }];
  });
  return { design: { layers, widthMm: mm(box.right - box.left), heightMm: mm(box.bottom - box.top) }, moved, boxes };
}

/** The first outline without the second. */
export type CutOut = (from: Curves, what: Curves) => Curves;

/** Where an object lies in a design, mm. */
export interface ObjectBox extends Bounds {
  readonly id: string;
}

export interface ComposedDesign {
  readonly design: Design;
  readonly moved: Affine;
  readonly boxes: readonly ObjectBox[];
}

/** What is left of the objects' outlines once those that cut have cut, lowest first. @throws RangeError when something cuts and nothing is there to do it. */
function withoutCuts(objects: readonly Pick<PlacedLayers, 'layers' | 'cutsOut'>[], cutOut: CutOut | undefined): DesignLayer[] {
  let left: DesignLayer[] = [];
  for (const { layers, cutsOut } of objects) {
    if (cutsOut !== true) {
      left.push(...layers);
      continue;
    }
    if (cutOut === undefined) throw new RangeError('nothing is there to cut outlines out of each other');
    for (const { curves } of layers) left = left.map((layer) => ({ ...layer, curves: overlap(layer.curves, curves) ? cutOut(layer.curves, curves) : layer.curves }));
  }
  return left.filter(({ curves }) => boundsOf(curves) !== undefined);
}

/** Whether the boxes of two outlines do: others have nothing to do with each other. */
function overlap(a: Curves, b: Curves): boolean {
  const [p, q] = [boundsOf(a), boundsOf(b)];
  return p !== undefined && q !== undefined && p.left < q.right && q.left < p.right && p.top < q.bottom && q.top < p.bottom;
}

/**
 * Films of several objects in one order. A single object's stands as it is; of several those on the rack lie as they do there, and each other film comes right
 * above the one that it lies on in its object.
 */
function pressingOrder(objects: readonly (readonly string[])[], rack: readonly string[]): string[] {
  if (objects.length === 1) return [...objects[0]];
  const all = objects.flat();
  const order = rack.filter((id) => all.includes(id));
  for (const films of objects) {
    for (const [k, id] of films.entries()) if (!order.includes(id)) order.splice(placeFor(k, films, order), 0, id);
  }
  return order;
}

/**
 * Where a film that is not in the order yet belongs in it: above the one that it lies on, or below the first of those that lie on it; on top where it has to do
 * with none.
 */
function placeFor(k: number, films: readonly string[], order: readonly string[]): number {
  if (k > 0) return order.indexOf(films[k - 1]) + 1;
  const above = films.find((id) => order.includes(id));
  return above === undefined ? order.length : order.indexOf(above);
}

function boxAround(layers: readonly DesignLayer[]): Bounds {
  const boxes = layers.flatMap(({ curves }) => boundsOf(curves) ?? []);
  if (boxes.length === 0) throw new AppError('nothingToCut');
  const most = (pick: (box: Bounds) => number): number => Math.max(...boxes.map(pick));
  return { left: -most(({ left }) => -left), top: -most(({ top }) => -top), right: most(({ right }) => right), bottom: most(({ bottom }) => bottom) };
}
