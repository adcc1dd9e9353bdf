import { trimNumber } from '../units/parseLength.ts';
import { CurvesBuilder, isOpenRing, LINE, type Curves } from './curves.ts';
import { scanPath } from './scanPath.ts';

/** SVG path data of all rings, one subpath each, absolute commands; open ones are not closed. */
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
    let text = trimNumber(coords[at++], digits);
    for (let k = 1; k < count; k++) text += ` ${trimNumber(coords[at++], digits)}`;
    return text;
  };
  const open = isOpenRing(curves, ring);
  // Joined: what was added up is a tree of strings, gone through anew whenever it is put to others.
  const parts = [`M${numbers(2)}`];
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    // The closing line is what Z draws; writing it too would be a node twice.
    if (!open && verbs[v] === LINE && v === verbStart[ring + 1] - 1) break;
    parts.push(verbs[v] === LINE ? `L${numbers(2)}` : `C${numbers(6)}`);
  }
  if (!open) parts.push('Z');
  return parts.join('');
}

/** Whether a text is path data as `pathData` writes it: M, L, C and Z with plain numbers, absolute. */
export const isPathData = (text: string): boolean => scanPath(text, () => undefined);

/**
 * Reads path data as `pathData` writes it, and with powers of ten in its numbers. Rings come without nesting (parent −1): `nestRings` finds it.
 * @throws RangeError for anything else.
 */
export function curvesFromPathData(text: string): Curves {
  const builder = new CurvesBuilder();
  const [start, end] = [new Float64Array(2), new Float64Array(2)];
  let isOpen = false;
  const isWhole = scanPath(text, (command, at) => {
    if (command === 'Z') {
      if (start[0] !== end[0] || start[1] !== end[1]) builder.line(start[0], start[1]);
      return;
    }
    if (command === 'M') {
      if (isOpen) builder.close();
      isOpen = true;
      start.set(at.subarray(0, 2));
      builder.start(at[0], at[1], -1);
    } else if (command === 'L') builder.line(at[0], at[1]);
    else builder.cubic(at[0], at[1], at[2], at[3], at[4], at[5]);
    const last = command === 'C' ? 4 : 0;
    end[0] = at[last];
    end[1] = at[last + 1];
  }, 'any');
  if (!isWhole) throw new RangeError('not path data of M, L, C and Z');
  if (isOpen) builder.close();
  return builder.build();
}
