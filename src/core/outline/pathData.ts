import { trimNumber } from '../units/parseLength.ts';
import { CurvesBuilder, isOpenRing, LINE, type Curves } from './curves.ts';

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
    const out: string[] = [];
    for (let k = 0; k < count; k++) out.push(trimNumber(coords[at + k], digits));
    at += count;
    return out.join(' ');
  };
  const open = isOpenRing(curves, ring);
  let data = `M${numbers(2)}`;
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    // The closing line is what Z draws; writing it too would be a node twice.
    if (!open && verbs[v] === LINE && v === verbStart[ring + 1] - 1) break;
    data += verbs[v] === LINE ? `L${numbers(2)}` : `C${numbers(6)}`;
  }
  return open ? data : `${data}Z`;
}

const COMMAND = /([MLCZ])([^MLCZ]*)/g;
const NUMBERS: Readonly<Record<string, number>> = { M: 2, L: 2, C: 6, Z: 0 };

/** Whether a text is path data as `pathData` writes it: M, L, C and Z with plain numbers, absolute. */
export const isPathData = (text: string): boolean => /^(?:M[-\d. ]+(?:[LC][-\d. ]+)+Z?)*$/.test(text) && commandsOf(text) !== undefined;

/**
 * Reads path data as `pathData` writes it. Rings come without nesting (parent −1): `nestRings` finds it.
 * @throws RangeError for anything else.
 */
export function curvesFromPathData(text: string): Curves {
  const commands = commandsOf(text);
  if (commands === undefined) throw new RangeError('not path data of M, L, C and Z');
  const builder = new CurvesBuilder();
  let start: readonly number[] | undefined;
  let end: readonly number[] = [];
  for (const { command, values } of commands) {
    if (command === 'M') {
      if (start !== undefined) builder.close();
      start = values;
      builder.start(values[0], values[1], -1);
    } else if (command === 'L') builder.line(values[0], values[1]);
    else if (command === 'C') builder.cubic(values[0], values[1], values[2], values[3], values[4], values[5]);
    else if (start !== undefined && (start[0] !== end[0] || start[1] !== end[1])) builder.line(start[0], start[1]);
    if (command !== 'Z') end = values.slice(-2);
  }
  if (start !== undefined) builder.close();
  return builder.build();
}

function commandsOf(text: string): { command: string; values: number[] }[] | undefined {
  const commands: { command: string; values: number[] }[] = [];
  for (const [, command, rest] of text.matchAll(COMMAND)) {
    const trimmed = rest.trim();
    const values = trimmed === '' ? [] : trimmed.split(/\s+/).map(Number);
    if (values.length !== NUMBERS[command] || !values.every(Number.isFinite)) return undefined;
    commands.push({ command, values });
  }
  return commands;
}
