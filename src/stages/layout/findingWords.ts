import type { Finding } from '../../core/check/cutCheck.ts';
import { trimNumber } from '../../core/units/parseLength.ts';

/** What the cut check found, where and how small. */
export function findingWords(finding: Finding): string {
  switch (finding.kind) {
    case 'smallPiece':
      return `Piece of ${trimNumber(finding.size, 2)} mm²: may lift with the knife`;
    case 'smallHole':
      return `Hole of ${trimNumber(finding.size, 2)} mm²: hard to weed`;
    case 'island':
      return `Island of ${trimNumber(finding.size, 1)} mm²: nothing holds it, it falls out`;
    case 'thin':
      return `Only ${trimNumber(finding.size, 2)} mm wide: tears or lifts`;
    case 'jagged':
      return `Jagged edge, teeth of ${trimNumber(finding.size, 2)} mm`;
    case 'openOutline':
      return `Outline open by ${trimNumber(finding.size, 2)} mm: holds on there, or join its ends in Separate`;
    case 'coarsePicture':
      return `Only ${Math.round(finding.size)} dots per inch at this size: edges are guessed`;
  }
}
