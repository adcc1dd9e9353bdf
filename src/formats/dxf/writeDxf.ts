import type { Film } from '../../core/film/film.ts';
import { boundsOf, coordsOfVerb, isOpenRing, LINE, type Curves } from '../../core/outline/curves.ts';
import { flatten } from '../../core/outline/flatten.ts';
import { idFromName } from '../svg/writeSvg.ts';
import { dxfFile, type DxfLayerRecord } from './dxfFrame.ts';
import type { DxfText } from './dxfText.ts';

export interface DxfLayer {
  readonly film: Film;
  /** What the layer's name ends in after the film's: layers of one film follow each other, the one without first. */
  readonly ending?: string;
  /** In mm, y down. */
  readonly curves: Curves;
}

/** Colours of the format's fixed palette that come nearest to plain hues, with their numbers. */
const INDEXED: readonly (readonly [number, number, number, number])[] = [[1, 255, 0, 0], [2, 255, 255, 0], [3, 0, 255, 0], [4, 0, 255, 255], [5, 0, 0, 255], [6, 255, 0, 255], [7, 255, 255, 255], [8, 128, 128, 128], [9, 192, 192, 192], [250, 51, 51, 51]];

/**
 * Outlines as DXF (release 2000), in layers named after their films, millimetres, y up. Straight segments are LINE entities, cubics SPLINE entities of degree 3
 * whose control points are those of the cubic, so no curve is broken into chords. For readers that know no splines, whole outlines as LWPOLYLINE entities
 * instead.
 * @param heightMm of the frame: its lower edge is the format's zero line.
 * @param chordMm largest distance of polylines from the curves; curves stay curves when absent.
 */
export function writeDxf(layers: readonly DxfLayer[], heightMm: number, chordMm?: number): string {
  const parts = recordsOf(layers);
  const right = Math.max(1, ...parts.map(({ curves }) => boundsOf(curves)?.right ?? 0));
  return dxfFile(parts.map(({ record }) => record), { widthMm: right, heightMm }, (text, owner) => {
    for (const { record, curves } of parts) {
      if (chordMm === undefined) drawLayer(text, owner, curves, record.name, heightMm);
      else drawPolylines(text, owner, curves, record.name, heightMm, chordMm);
    }
  });
}

/** Layers with names of their own and the colour that comes nearest. */
export function recordsOf(layers: readonly DxfLayer[]): { record: DxfLayerRecord; curves: Curves }[] {
  const taken = new Set<string>();
  const free = (wish: string): string => {
    let name = wish;
    for (let k = 2; taken.has(name); k++) name = `${wish}-${k}`;
    taken.add(name);
    return name;
  };
  let plain = '';
  return layers.map(({ film, ending = '', curves }) => {
    const rgb = [1, 3, 5].map((at) => parseInt(film.colour.slice(at, at + 2), 16));
    const colour = { index: indexOf(rgb), rgb: (rgb[0] << 16) | (rgb[1] << 8) | rgb[2] };
    if (ending === '') plain = free(idFromName(film.name).toUpperCase());
    return { record: { name: ending === '' ? plain : free(`${plain}-${ending}`), ...colour }, curves };
  });
}

function indexOf([r, g, b]: readonly number[]): number {
  const distance = ([, x, y, z]: readonly number[]): number => (x - r) ** 2 + (y - g) ** 2 + (z - b) ** 2;
  return INDEXED.reduce((best, each) => (distance(each) < distance(best) ? each : best))[0];
}

/** What every entity begins with. */
const entity = (text: DxfText, owner: string, kind: string, layer: string, subclass: string): void => text.put(0, kind, 5, text.handle(), 330, owner, 100, 'AcDbEntity', 8, layer, 100, subclass);

function drawLayer(text: DxfText, owner: string, { verbs, coords, verbStart, coordStart, parent }: Curves, layer: string, heightMm: number): void {
  const point = (at: number, codeX: number): void => text.put(codeX, coords[at], codeX + 10, heightMm - coords[at + 1], codeX + 20, 0);
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      const end = at + coordsOfVerb(verbs[v]);
      if (verbs[v] === LINE) {
        entity(text, owner, 'LINE', layer, 'AcDbLine');
        point(at, 10);
        point(end, 11);
      } else {
        // Planar, degree 3, eight knots that hold the ends, four control points.
        entity(text, owner, 'SPLINE', layer, 'AcDbSpline');
        text.put(70, 8, 71, 3, 72, 8, 73, 4, 74, 0);
        for (const knot of [0, 0, 0, 0, 1, 1, 1, 1]) text.put(40, knot);
        for (let k = at; k <= end; k += 2) point(k, 10);
      }
      at = end;
    }
  }
}

function drawPolylines(text: DxfText, owner: string, curves: Curves, layer: string, heightMm: number, chordMm: number): void {
  const { points, starts } = flatten(curves, chordMm);
  const { coords, coordStart } = curves;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const open = isOpenRing(curves, ring);
    const count = starts[ring + 1] - starts[ring] + (open ? 1 : 0);
    entity(text, owner, 'LWPOLYLINE', layer, 'AcDbPolyline');
    text.put(90, count, 70, open ? 0 : 1);
    for (let i = starts[ring]; i < starts[ring + 1]; i++) text.put(10, points[2 * i], 20, heightMm - points[2 * i + 1]);
    if (open) text.put(10, coords[coordStart[ring + 1] - 2], 20, heightMm - coords[coordStart[ring + 1] - 1]);
  }
}
