import type { Film } from '../../core/job/job.ts';
import { coordsOfVerb, isOpenRing, LINE, type Curves } from '../../core/outline/curves.ts';
import { flatten } from '../../core/outline/flatten.ts';
import { idFromName } from '../svg/writeSvg.ts';

export interface DxfLayer {
  readonly film: Film;
  /** In mm, y down. */
  readonly curves: Curves;
}

/** Colours of the format's fixed palette that come nearest to plain hues, with their numbers. */
const INDEXED: readonly (readonly [number, number, number, number])[] = [[1, 255, 0, 0], [2, 255, 255, 0], [3, 0, 255, 0], [4, 0, 255, 255], [5, 0, 0, 255], [6, 255, 0, 255], [7, 255, 255, 255], [8, 128, 128, 128], [9, 192, 192, 192], [250, 51, 51, 51]];

/**
 * Outlines as DXF (Autodesk's published DXF reference, release 2000), one layer for each film, millimetres, y up. Straight segments are LINE entities, cubics SPLINE entities of degree 3 whose control
 * points are those of the cubic, so no curve is broken into chords. For readers that know no splines, whole outlines as LWPOLYLINE entities instead.
 * @param heightMm of the frame: its lower edge is the format's zero line.
 * @param chordMm largest distance of polylines from the curves; curves stay curves when absent.
 */
export function writeDxf(layers: readonly DxfLayer[], heightMm: number, chordMm?: number): string {
  const out: string[] = [];
  const put = (code: number, value: string | number): void => void out.push(String(code), typeof value === 'number' ? number(value) : value);
  put(0, 'SECTION');
  put(2, 'HEADER');
  put(9, '$ACADVER');
  put(1, 'AC1015');
  put(9, '$INSUNITS');
  out.push('70', '4');
  put(9, '$MEASUREMENT');
  out.push('70', '1');
  put(0, 'ENDSEC');
  const names = layerNames(layers);
  layerTable(out, layers, names);
  put(0, 'SECTION');
  put(2, 'ENTITIES');
  for (const [k, { curves }] of layers.entries()) {
    if (chordMm === undefined) drawLayer(out, curves, names[k], heightMm);
    else drawPolylines(out, curves, names[k], heightMm, chordMm);
  }
  put(0, 'ENDSEC');
  put(0, 'EOF');
  return `${out.join('\n')}\n`;
}

/** Six decimals of a mm and no exponent, which readers do not all know. */
const number = (value: number): string => {
  const text = value.toFixed(6).replace(/\.?0+$/, '');
  return text === '-0' ? '0' : text;
};

function layerNames(layers: readonly DxfLayer[]): string[] {
  const taken = new Set<string>();
  return layers.map(({ film }) => {
    const plain = idFromName(film.name).toUpperCase();
    let name = plain;
    for (let k = 2; taken.has(name); k++) name = `${plain}-${k}`;
    taken.add(name);
    return name;
  });
}

function layerTable(out: string[], layers: readonly DxfLayer[], names: readonly string[]): void {
  out.push('0', 'SECTION', '2', 'TABLES', '0', 'TABLE', '2', 'LAYER', '70', String(layers.length));
  for (const [k, { film }] of layers.entries()) {
    const rgb = [1, 3, 5].map((at) => parseInt(film.colour.slice(at, at + 2), 16));
    out.push('0', 'LAYER', '100', 'AcDbSymbolTableRecord', '100', 'AcDbLayerTableRecord', '2', names[k], '70', '0', '62', String(indexOf(rgb)), '420', String((rgb[0] << 16) | (rgb[1] << 8) | rgb[2]), '6', 'CONTINUOUS');
  }
  out.push('0', 'ENDTAB', '0', 'ENDSEC');
}

function indexOf([r, g, b]: readonly number[]): number {
  const distance = ([, x, y, z]: readonly number[]): number => (x - r) ** 2 + (y - g) ** 2 + (z - b) ** 2;
  return INDEXED.reduce((best, each) => (distance(each) < distance(best) ? each : best))[0];
}

function drawLayer(out: string[], { verbs, coords, verbStart, coordStart, parent }: Curves, layer: string, heightMm: number): void {
  const point = (at: number, codeX: number): void => void out.push(String(codeX), number(coords[at]), String(codeX + 10), number(heightMm - coords[at + 1]), String(codeX + 20), '0');
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      const end = at + coordsOfVerb(verbs[v]);
      if (verbs[v] === LINE) {
        out.push('0', 'LINE', '100', 'AcDbEntity', '8', layer, '100', 'AcDbLine');
        point(at, 10);
        point(end, 11);
      } else {
        // Planar, degree 3, eight knots that hold the ends, four control points.
        out.push('0', 'SPLINE', '100', 'AcDbEntity', '8', layer, '100', 'AcDbSpline', '70', '8', '71', '3', '72', '8', '73', '4', '74', '0');
        for (const knot of [0, 0, 0, 0, 1, 1, 1, 1]) out.push('40', String(knot));
        for (let k = at; k <= end; k += 2) point(k, 10);
      }
      at = end;
    }
  }
}

function drawPolylines(out: string[], curves: Curves, layer: string, heightMm: number, chordMm: number): void {
  const { points, starts } = flatten(curves, chordMm);
  const { coords, coordStart } = curves;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    const open = isOpenRing(curves, ring);
    const count = starts[ring + 1] - starts[ring] + (open ? 1 : 0);
    out.push('0', 'LWPOLYLINE', '100', 'AcDbEntity', '8', layer, '100', 'AcDbPolyline', '90', String(count), '70', open ? '0' : '1');
    for (let i = starts[ring]; i < starts[ring + 1]; i++) out.push('10', number(points[2 * i]), '20', number(heightMm - points[2 * i + 1]));
    if (open) out.push('10', number(coords[coordStart[ring + 1] - 2]), '20', number(heightMm - coords[coordStart[ring + 1] - 1]));
  }
}
