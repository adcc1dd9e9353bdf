import { LINE, type Curves } from '../../core/outline/curves.ts';
import { trimNumber } from '../../core/units/parseLength.ts';

/** SVG path data of all rings, one closed subpath each, absolute commands. */
export function pathData(curves: Curves, digits = 4): string {
  const parts: string[] = [];
  for (let ring = 0; ring < curves.parent.length; ring++) parts.push(ringPathData(curves, ring, digits));
  return parts.join('');
}

/** SVG path data of one ring. */
export function ringPathData(curves: Curves, ring: number, digits = 4): string {
  const { verbs, coords, verbStart, coordStart } = curves;
  let at = coordStart[ring];
  const numbers = (count: number): string => {
    const out: string[] = [];
    for (let k = 0; k < count; k++) out.push(trimNumber(coords[at + k], digits));
    at += count;
    return out.join(' ');
  };
  let data = `M${numbers(2)}`;
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    // The closing line is what Z draws; writing it too would be a node twice.
    if (verbs[v] === LINE && v === verbStart[ring + 1] - 1) break;
    data += verbs[v] === LINE ? `L${numbers(2)}` : `C${numbers(6)}`;
  }
  return `${data}Z`;
}
