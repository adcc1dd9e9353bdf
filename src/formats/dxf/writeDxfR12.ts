import { boundsOf } from '../../core/outline/curves.ts';
import { arcsOf, OF_ARC_NODE } from '../../core/outline/arcsOf.ts';
import { DxfText } from './dxfText.ts';
import { recordsOf, type DxfLayer } from './writeDxf.ts';

/** How far arcs may lie from the curves, mm. */
const WITHIN_MM = 0.005;

/**
 * Outlines as DXF of release 12 (AC1009), which every reader knows: polylines whose sides are straight or arcs, in layers named after their films, millimetres, y up.
 * @param heightMm of the frame: its lower edge is the format's zero line.
 */
export function writeDxfR12(layers: readonly DxfLayer[], heightMm: number): string {
  const parts = recordsOf(layers);
  const right = Math.max(1, ...parts.map(({ curves }) => boundsOf(curves)?.right ?? 0));
  const text = new DxfText();
  text.put(0, 'SECTION', 2, 'HEADER', 9, '$ACADVER', 1, 'AC1009', 9, '$INSUNITS', 70, 4, 9, '$EXTMIN', 10, 0, 20, 0, 30, 0, 9, '$EXTMAX', 10, right, 20, heightMm, 30, 0, 0, 'ENDSEC');
  text.put(0, 'SECTION', 2, 'TABLES');
  text.put(0, 'TABLE', 2, 'LTYPE', 70, 1, 0, 'LTYPE', 2, 'CONTINUOUS', 70, 64, 3, 'Solid line', 72, 65, 73, 0, 40, 0, 0, 'ENDTAB');
  text.put(0, 'TABLE', 2, 'LAYER', 70, parts.length + 1, 0, 'LAYER', 2, '0', 70, 0, 62, 7, 6, 'CONTINUOUS');
  for (const { record } of parts) text.put(0, 'LAYER', 2, record.name, 70, 0, 62, record.index, 6, 'CONTINUOUS');
  text.put(0, 'ENDTAB', 0, 'ENDSEC', 0, 'SECTION', 2, 'ENTITIES');
  for (const { record, curves } of parts) {
    for (const { open, nodes } of arcsOf(curves, WITHIN_MM)) {
      text.put(0, 'POLYLINE', 8, record.name, 66, 1, 10, 0, 20, 0, 30, 0, 70, open ? 0 : 1);
      // Turned over with the y axis, arcs bulge the other way.
      for (let i = 0; i < nodes.length; i += OF_ARC_NODE) text.put(0, 'VERTEX', 8, record.name, 10, nodes[i], 20, heightMm - nodes[i + 1], 30, 0, 42, -nodes[i + 2]);
      text.put(0, 'SEQEND', 8, record.name);
    }
  }
  text.put(0, 'ENDSEC', 0, 'EOF');
  return text.toString();
}
