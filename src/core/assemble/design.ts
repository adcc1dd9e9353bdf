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
  readonly layers: readonly DesignLayer[];
  readonly placement?: Affine | undefined;
}

/**
 * Puts objects together, lowest first: what several have of one film becomes one layer, where the film goes on first.
 * @param order films in the order of pressing; those that it does not name follow in the order of the objects.
 * @returns the design, and how the objects' common mm were moved so that its box starts at 0, 0.
 */
export function composeDesign(objects: readonly PlacedLayers[], order: readonly string[]): { readonly design: Design; readonly moved: Affine } {
  const placedLayers = objects.flatMap(({ layers, placement }) =>
    layers.map(({ filmId, curves }) => ({ filmId, curves: placement === undefined ? curves : transformCurves(curves, placement) })),
  );
  const box = boxAround(placedLayers);
  const moved = Math.hypot(box.left, box.top) < ROUNDING_MM ? IDENTITY : translation(-box.left, -box.top);
  const layers = pressingOrder(
    objects.map((object) => object.layers.map(({ filmId }) => filmId)),
    order,
  ).map((filmId): DesignLayer => {
    const own = placedLayers.filter((layer) => layer.filmId === filmId).map(({ curves }) => curves);
    const curves = own.length === 1 ? own[0] : joinCurves(own);
    return { filmId, curves: moved === IDENTITY ? curves : transformCurves(curves, moved) };
  });
  return { design: { layers, widthMm: mm(box.right - box.left), heightMm: mm(box.bottom - box.top) }, moved };
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
