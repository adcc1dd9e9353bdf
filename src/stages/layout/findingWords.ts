import type { Finding } from '../../core/check/cutCheck.ts';
import { mm } from '../../core/units/length.ts';
import { formatArea, formatLength, type LengthUnit } from '../../core/units/parseLength.ts';
import { decimals, grouped, say } from '../../core/words/say.ts';

/** Pieces below this are no pieces any more but specks, mm². */
const SPECK_MM2 = 0.1;

/** What the cut check found, where and how small. */
export function findingWords(finding: Finding, unit: LengthUnit = 'mm'): string {
  const area = (digits: number): string => formatArea(finding.size, unit, digits);
  const isSpeck = finding.size < SPECK_MM2;
  const length = formatLength(mm(finding.size), unit, unit === 'mm' ? 2 : 3);
  switch (finding.kind) {
    case 'smallPiece':
      return say`${isSpeck ? say('A speck') : say`Piece of ${area(2)}`}: may lift with the knife`;
    case 'smallHole':
      return say`${isSpeck ? say('A speck of a hole') : say`Hole of ${area(2)}`}: hard to weed`;
    case 'island':
      return say`${isSpeck ? say('A speck of an island') : say`Island of ${area(1)}`}: nothing holds it, it falls out`;
    case 'thin':
      return say`Only ${length} wide: tears or lifts`;
    case 'narrowGap':
      return say`Gap of only ${length}: hard to weed`;
    case 'sharp':
      return say`Tip of ${Math.round(finding.size)}°: lifts with the knife`;
    case 'jagged':
      return say`Jagged edge, teeth of ${length}`;
    case 'openOutline':
      return say`Outline open by ${length}: holds on there, or join its ends in Separate`;
    case 'cutTwice':
      return say`Overlap of ${area(1)}: cut twice there; join it in Assemble`;
    case 'crowded':
      return say`${finding.size} nodes in a row less than 0.05 mm apart: the tool stutters`;
    case 'backwards':
      return say`${finding.size} ${finding.size === 1 ? say('sign reads') : say('signs read')} backwards: turn the lettering over`;
    case 'coarsePicture':
      return say`Only ${Math.round(finding.size)} dots per inch at this size: edges are guessed`;
    case 'likeBlank':
      return say`Hardly shows on the blank: difference ${decimals(finding.size, 1)}, seen well from 10`;
    case 'holdsNone':
      return say`${area(1)} lie on film that takes none on top: inset it, or press it first`;
  }
}

/** The same of many places of a kind, of which the largest is so large. */
export function manyWords(kind: Finding['kind'], count: number, largest: number, unit: LengthUnit = 'mm'): string {
  const number = grouped(count);
  const area = largest < SPECK_MM2 ? say('a speck') : say`up to ${formatArea(largest, unit, 2)}`;
  const length = formatLength(mm(largest), unit, unit === 'mm' ? 2 : 3);
  switch (kind) {
    case 'smallPiece':
      return say`${number} pieces of ${area}: may lift with the knife`;
    case 'smallHole':
      return say`${number} holes of ${area}: hard to weed`;
    case 'island':
      return say`${number} islands of ${area}: nothing holds them, they fall out`;
    case 'thin':
      return say`${number} strips at most ${length} wide: tear or lift`;
    case 'narrowGap':
      return say`${number} gaps at most ${length} wide: hard to weed`;
    case 'sharp':
      return say`${number} tips of at most ${Math.round(largest)}°: lift with the knife`;
    case 'jagged':
      return say`${number} jagged edges, teeth of up to ${length}`;
    case 'openOutline':
      return say`${number} outlines open by up to ${length}: hold on there, or join their ends in Separate`;
    case 'cutTwice':
      return say`${number} overlaps of ${area}: cut twice there; join them in Assemble`;
    case 'crowded':
      return say`${number} stretches of up to ${largest} nodes less than 0.05 mm apart: the tool stutters`;
    case 'backwards':
      return say`${number} letterings read backwards: turn them over`;
    case 'coarsePicture':
      return say`${number} pictures too coarse for their size`;
    case 'likeBlank':
      return say`${number} films that hardly show on the blank`;
    case 'holdsNone':
      return say`${number} films on film that takes none on top, ${area}`;
  }
}
