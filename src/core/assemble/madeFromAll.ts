import { z } from 'zod';
import { combineCurves, joinOverlaps } from '../combine/combineCurves.ts';
import { offsetCurves, OFFSET_CORNERS } from '../combine/offsetCurves.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import { figureCurves } from '../figure/figureCurves.ts';
import { translation } from '../geometry/affine.ts';
import { CurvesBuilder, type Bounds, type Curves } from '../outline/curves.ts';
import { withoutOpenings } from '../outline/offsetOutline.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { boxAround, type DesignLayer } from './design.ts';

/** What lies under everything: a border along the edge of all, or a board around it. */
export const baseSettingsSchema = z.strictObject({
  form: z.enum(['edge', 'rectangle', 'bar', 'round']),
  /** How far it reaches beyond what lies on it. */
  marginMm: z.number().min(0).max(500),
  /** Corners of a rectangle. */
  cornerMm: z.number().min(0).max(500),
  corners: z.enum(OFFSET_CORNERS),
  /** A band as broad along its edge on every other film too, so that the sheets of a panel are alike outside. */
  bandMm: z.number().min(0.1).max(500).optional(),
});
export type BaseSettings = z.infer<typeof baseSettingsSchema>;

/** Places that one object of holes may have. */
export const MAX_HOLE_PLACES = 100;
const fromEdgeMm = z.number().min(-5000).max(5000);
/** A hole by how far its middle is from the left and the upper edge, and others that mirror it in the middle of the design. */
const holePlaceSchema = z.strictObject({ fromLeftMm: fromEdgeMm, fromTopMm: fromEdgeMm, mirrored: z.enum(['none', 'across', 'down', 'both']) });
export type HolePlace = z.infer<typeof holePlaceSchema>;

/** Round holes through all films: one in the middle on top, a pair as far from both sides, one in each corner, or where `places` say. */
export const holesSettingsSchema = z.strictObject({
  where: z.enum(['top', 'pair', 'corners', 'places']),
  places: z.array(holePlaceSchema).max(MAX_HOLE_PLACES).optional(),
  /** Film around each hole on every sheet, so broad: an eyelet, which may reach beyond the edge. */
  eyeletMm: z.number().min(0.1).max(200).optional(),
  diameterMm: z.number().min(0.5).max(200),
  /** From the upper edge, and the lower one, to the middle of a hole. */
  fromTopMm: z.number().min(-500).max(5000),
  fromSideMm: z.number().min(-500).max(5000),
});
export type HolesSettings = z.infer<typeof holesSettingsSchema>;

/** The outline of a base under some layers, mm. */
export function baseCurves(library: PolygonLibrary, { form, marginMm, cornerMm, corners }: BaseSettings, all: readonly DesignLayer[]): Curves {
  if (form === 'edge') return withoutOpenings(offsetCurves(library, withoutOpenings(joinOverlaps(library, joinCurves(all.map(({ curves }) => curves)))), marginMm, corners));
  const { left, top, right, bottom } = boxAround(all);
  // A round goes through the corners of the box around everything.
  const stretch = form === 'round' ? Math.SQRT2 : 1;
  const [widthMm, heightMm] = [(right - left) * stretch + 2 * marginMm, (bottom - top) * stretch + 2 * marginMm];
  const shape = form === 'rectangle' ? ({ form, widthMm, heightMm, cornerMm } as const) : form === 'bar' ? ({ form, widthMm, heightMm, ends: 'round' } as const) : ({ form, widthMm, heightMm } as const);
  return transformCurves(figureCurves(shape), translation((left + right - widthMm) / 2, (top + bottom - heightMm) / 2));
}

/** The band along the edge of a base that every film gets. */
export function bandCurves(library: PolygonLibrary, base: Curves, bandMm: number): Curves {
  return combineCurves(library, 'cutOut', base, offsetCurves(library, base, -bandMm));
}

/** Holes by their distances from the edges of some layers, mm. */
export function holeCurves(settings: HolesSettings, all: readonly DesignLayer[]): Curves {
  const { diameterMm } = settings;
  const hole = figureCurves({ form: 'round', widthMm: diameterMm, heightMm: diameterMm });
  const builder = new CurvesBuilder();
  for (const [x, y] of holeMiddles(settings, boxAround(all))) builder.copy(transformCurves(hole, translation(x - diameterMm / 2, y - diameterMm / 2)), 0, -1);
  return builder.build();
}

function holeMiddles({ where, places = [], fromTopMm, fromSideMm }: HolesSettings, { left, top, right, bottom }: Bounds): (readonly [x: number, y: number])[] {
  const [upper, lower] = [top + fromTopMm, bottom - fromTopMm];
  const pair = [left + fromSideMm, right - fromSideMm];
  switch (where) {
    case 'top':
      return [[(left + right) / 2, upper]];
    case 'pair':
      return pair.map((x) => [x, upper]);
    case 'corners':
      return pair.flatMap((x) => [[x, upper], [x, lower]] as const);
    case 'places':
      return places.flatMap(({ fromLeftMm, fromTopMm: down, mirrored }) => {
        const across = mirrored === 'across' || mirrored === 'both' ? [left + fromLeftMm, right - fromLeftMm] : [left + fromLeftMm];
        const rows = mirrored === 'down' || mirrored === 'both' ? [top + down, bottom - down] : [top + down];
        return across.flatMap((x) => rows.map((y) => [x, y] as const));
      });
  }
}

/** Film around holes on a sheet: what it has, with a ring around each. */
export const withEyelets = (library: PolygonLibrary, film: Curves, holes: Curves, eyeletMm: number): Curves => combineCurves(library, 'join', film, joinOverlaps(library, offsetCurves(library, holes, eyeletMm)));
