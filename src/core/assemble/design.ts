import { AppError } from '../errors/appError.ts';
import { followedBy, IDENTITY, rotation, scaling, translation, type Affine } from '../geometry/affine.ts';
import { boundsOf, type Bounds, type Curves } from '../outline/curves.ts';
import { transformCurves } from '../outline/transformCurves.ts';
import { mm, mmFromPx, px, pxPerMm, type Mm, type PxPerMm } from '../units/length.ts';

/** The outlines of one film. */
export interface DesignLayer {
  readonly filmId: string;
  readonly curves: Curves;
}

/** The design at its finished size, in mm, its box starting at 0, 0. */
export interface Design {
  readonly layers: readonly DesignLayer[];
  readonly widthMm: Mm;
  readonly heightMm: Mm;
  /** Picture pixels on one mm of the design. */
  readonly resolution: PxPerMm;
  /** From the outlines' own px to the design's mm. */
  readonly fromOutline: Affine;
}

export interface DesignSize {
  readonly by: 'width' | 'height';
  readonly sizeMm: number;
  readonly turnDeg: number;
}

/**
 * Brings the outlines of films, lowest first, from px to their finished size: turned, then scaled so that the chosen side of the box around all of them has the given length.
 * @throws AppError `nothingToCut` when there is no outline.
 */
export function makeDesign(layers: readonly DesignLayer[], size: DesignSize): Design {
  const turn = size.turnDeg === 0 ? IDENTITY : rotation((size.turnDeg * Math.PI) / 180, 0, 0);
  const turned = layers.map(({ filmId, curves }) => ({ filmId, curves: size.turnDeg === 0 ? curves : transformCurves(curves, turn) }));
  const box = boxAround(turned);
  const extentPx = size.by === 'width' ? box.right - box.left : box.bottom - box.top;
  const resolution = pxPerMm(extentPx / size.sizeMm);
  const perPx = mmFromPx(px(1), resolution);
  const toSize = followedBy(translation(-box.left, -box.top), scaling(perPx));
  const inMm = turned.map(({ filmId, curves }) => ({ filmId, curves: transformCurves(curves, toSize) }));
  return { layers: inMm, widthMm: mm((box.right - box.left) * perPx), heightMm: mm((box.bottom - box.top) * perPx), resolution, fromOutline: followedBy(turn, toSize) };
}

function boxAround(layers: readonly DesignLayer[]): Bounds {
  const boxes = layers.flatMap(({ curves }) => boundsOf(curves) ?? []);
  if (boxes.length === 0) throw new AppError('nothingToCut');
  const most = (pick: (box: Bounds) => number): number => Math.max(...boxes.map(pick));
  return { left: -most(({ left }) => -left), top: -most(({ top }) => -top), right: most(({ right }) => right), bottom: most(({ bottom }) => bottom) };
}
