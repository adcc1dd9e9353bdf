import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { boundsOf, CurvesBuilder, ringArea, type Bounds, type Curves } from '../outline/curves.ts';
import { flatten } from '../outline/flatten.ts';
import { ofPieces } from '../operate/pieceMarks.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { piecesOf } from '../outline/pieces.ts';
import { joinCurves } from '../outline/transformCurves.ts';
import { boxCurves } from './cutPlan.ts';
import type { LayoutSettings } from './laySheet.ts';
import { remnantSchema, type Remnant } from './remnantSchema.ts';

/** A remnant as a sheet of its own: all of it is reached, and what is not film is taken already. */
export function remnantSettings(library: PolygonLibrary, { widthMm, heightMm, outline }: Remnant, settings: LayoutSettings): LayoutSettings & { readonly lying: readonly Curves[] } {
  const sheet = { widthMm, heightMm, marginMm: { left: 0, top: 0, right: 0, bottom: 0 }, origin: 'topLeft' as const };
  const missing = outline === undefined ? undefined : combineCurves(library, 'cutOut', boxCurves([{ xMm: -1, yMm: -1, widthMm: widthMm + 2, heightMm: heightMm + 2 }]), polygon(outline));
  return { ...settings, sheet, box: { ...settings.box, on: false }, flaws: [], lying: missing === undefined ? [] : [missing] };
}

/** What a piece of stock is without its name and film. */
export type StockOutline = Pick<Remnant, 'widthMm' | 'heightMm' | 'outline'>;

/** Corners that the outline of a piece of stock has at most, and how far it may be from what was drawn or photographed, mm: finer where that takes no more of them. */
const MOST_CORNERS = 900;
const WITHIN_MM = [0.1, 0.2, 0.4, 0.8, 1.6, 3.2] as const;

/**
 * The outline of what a design shows, all its films together, as a piece of stock: the outermost edge of its largest piece, openings and all that lies beside it left out. So a remnant that was photographed on the mark sheet, or drawn,
 * becomes one that parts are laid on.
 * @returns undefined where there is nothing, or nothing as large as a remnant has to be.
 */
export function stockOutline(library: PolygonLibrary, layers: readonly Curves[]): StockOutline | undefined {
  const whole = joinOverlaps(library, joinCurves(layers));
  const [largest] = piecesOf(whole).sort((a, b) => Math.abs(ringArea(whole, b.outer)) - Math.abs(ringArea(whole, a.outer)));
  if (largest === undefined) return undefined;
  const edge = withoutOpenings(ofPieces(whole, [largest]));
  const { left, top, right, bottom } = boundsOf(edge) as Bounds;
  const cornersWithin = (within: number): number => flatten(edge, within).points.length / 2;
  const { points } = flatten(edge, WITHIN_MM.find((within) => cornersWithin(within) <= MOST_CORNERS) ?? WITHIN_MM[WITHIN_MM.length - 1]);
  // Of an edge that has more corners than that as it is, each so many-th.
  const step = Math.ceil(points.length / 2 / MOST_CORNERS);
  const rounded = (value: number): number => Math.round(value * 100) / 100;
  const outline: number[] = [];
  for (let k = 0; k < points.length; k += 2 * step) outline.push(rounded(points[k] - left), rounded(points[k + 1] - top));
  return remnantSchema.pick({ widthMm: true, heightMm: true, outline: true }).safeParse({ widthMm: rounded(right - left), heightMm: rounded(bottom - top), outline }).data;
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
