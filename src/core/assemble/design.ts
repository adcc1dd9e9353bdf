import { AppError } from '../errors/appError.ts';
import { followedBy, IDENTITY, rotation, scaling, translation, type Affine } from '../geometry/affine.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
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

/** A layer with its outlines and marks changed. */
export const changedLayer = ({ filmId, curves, marks }: DesignLayer, change: (curves: Curves) => Curves): DesignLayer => ({ filmId, curves: change(curves), ...(marks === undefined ? {} : { marks: change(marks) }) });

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

/** The box around all outlines of some layers. @throws AppError `nothingToCut` when there is none. */
export function boxAround(layers: readonly DesignLayer[]): Bounds {
  const boxes = layers.flatMap(({ curves }) => boundsOf(curves) ?? []);
  if (boxes.length === 0) throw new AppError('nothingToCut');
  const most = (pick: (box: Bounds) => number): number => Math.max(...boxes.map(pick));
  return { left: -most(({ left }) => -left), top: -most(({ top }) => -top), right: most(({ right }) => right), bottom: most(({ bottom }) => bottom) };
}
