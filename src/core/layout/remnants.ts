import { combineCurves } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { boundsOf, CurvesBuilder, type Bounds, type Curves } from '../outline/curves.ts';
import { piecesOf } from '../outline/pieces.ts';
import { boxCurves } from './cutPlan.ts';
import type { LayoutSettings } from './laySheet.ts';
import type { Remnant } from './remnantSchema.ts';

/** A remnant as a sheet of its own: all of it is reached, and what is not film is taken already. */
export function remnantSettings(library: PolygonLibrary, { widthMm, heightMm, outline }: Remnant, settings: LayoutSettings): LayoutSettings & { readonly lying: readonly Curves[] } {
  const sheet = { widthMm, heightMm, marginMm: { left: 0, top: 0, right: 0, bottom: 0 }, origin: 'topLeft' as const };
  const missing = outline === undefined ? undefined : combineCurves(library, 'cutOut', boxCurves([{ xMm: -1, yMm: -1, widthMm: widthMm + 2, heightMm: heightMm + 2 }]), polygon(outline));
  return { ...settings, sheet, box: { ...settings.box, on: false }, flaws: [], lying: missing === undefined ? [] : [missing] };
}

function polygon(corners: readonly number[]): Curves {
  const builder = new CurvesBuilder();
  builder.start(corners[0], corners[1], -1);
  for (let i = 2; i + 1 < corners.length; i += 2) builder.line(corners[i], corners[i + 1]);
  builder.line(corners[0], corners[1]);
  builder.close();
  return builder.build();
}

/** How many of a part can lie on a piece of stock at most: none where it is larger any way it is turned, else as many as its area has room for. */
export function mostOn({ widthMm, heightMm }: Pick<Remnant, 'widthMm' | 'heightMm'>, curves: Curves): number {
  const { left, top, right, bottom } = boundsOf(curves) as Bounds;
  // Nothing on it is longer than its diagonal.
  if (Math.max(right - left, bottom - top) > Math.hypot(widthMm, heightMm)) return 0;
  const area = piecesOf(curves).reduce((sum, piece) => sum + piece.area, 0);
  return area === 0 ? 0 : Math.floor((widthMm * heightMm) / area);
}
