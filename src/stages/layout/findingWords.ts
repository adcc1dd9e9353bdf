import type { Finding } from '../../core/check/cutCheck.ts';
import { mm } from '../../core/units/length.ts';
import { formatArea, formatLength, type LengthUnit } from '../../core/units/parseLength.ts';

/** Pieces below this are no pieces any more but what dust leaves, mm². */
const SPECK_MM2 = 0.005;

/** What the cut check found, where and how small. */
export function findingWords(finding: Finding, unit: LengthUnit = 'mm'): string {
  const area = (digits: number): string => (finding.size < SPECK_MM2 ? 'next to nothing' : formatArea(finding.size, unit, digits));
  const length = formatLength(mm(finding.size), unit, unit === 'mm' ? 2 : 3);
  switch (finding.kind) {
    case 'smallPiece':
      return `Piece of ${area(2)}: may lift with the knife`;
    case 'smallHole':
      return `Hole of ${area(2)}: hard to weed`;
    case 'island':
      return `Island of ${area(1)}: nothing holds it, it falls out`;
    case 'thin':
      return `Only ${length} wide: tears or lifts`;
    case 'jagged':
      return `Jagged edge, teeth of ${length}`;
    case 'openOutline':
      return `Outline open by ${length}: holds on there, or join its ends in Separate`;
    case 'coarsePicture':
      return `Only ${Math.round(finding.size)} dots per inch at this size: edges are guessed`;
  }
}
