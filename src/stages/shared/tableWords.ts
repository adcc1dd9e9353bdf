import type { Sheet } from '../../core/layout/laySheet.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import type { RackFilm } from '../../engine/protocol.ts';
import { counted, say } from '../../core/words/say.ts';

/** What lies on a light table in words, for those who do not see it: read after its name. */

/** A length in words. */
type Length = (mm: number) => string;


/** A film's sheet: what is on it, where it begins, how large it is, and what was found. */
export function sheetContents(sheet: Sheet | undefined, film: string, findings: number | undefined, length: Length): string {
  if (sheet === undefined) return say('nothing to cut yet');
  const { placements, parts, boxes, used, mirrored, weedLinePlaces = [] } = sheet;
  const copies = placements.filter(({ partId }) => partId === parts[0]?.id).length;
  return [
    say`${film}, ${counted(copies, say('copy'), say('copies'))}, ${length(used.widthMm)} by ${length(used.heightMm)}`,
    say`${length(used.xMm)} from the left and ${length(used.yMm)} from the top of a sheet of ${length(sheet.widthMm)} by ${length(sheet.heightMm)}`,
    mirrored ? say('mirrored') : say('not mirrored'),
    boxes.length === 0 ? say('no weeding box') : counted(boxes.length, say('weeding box'), say('weeding boxes')),
    ...(weedLinePlaces.length === 0 ? [] : [counted(weedLinePlaces.filter(({ isLeftOut }) => !isLeftOut).length, say('weed line'), say('weed lines'))]),
    ...(findings === undefined ? [] : [findings === 0 ? say('nothing found by the cut check') : say`${counted(findings, say('place'), say('places'))} to look at`]),
  ].join('; ');
}

/** The films of a job, lowest first. */
export function filmsContents(rack: readonly RackFilm[] | undefined): string {
  if (rack === undefined || rack.length === 0) return say('no films yet');
  return rack.map(({ film, pieces }) => `${film.name}, ${counted(pieces, say('piece'), say('pieces'))}`).join('; ');
}

/** A part of a design. */
export interface PartLine {
  readonly name: string;
  readonly box?: Bounds | undefined;
  readonly isChosen: boolean;
}

/** The parts of a design, lowest first, with where on the blank's printable area they lie. */
export function partsContents(parts: readonly PartLine[], place: { readonly xMm: number; readonly yMm: number }, length: Length): string {
  if (parts.length === 0) return say('no parts yet');
  return parts
    .map(({ name, box, isChosen }) => `${name}${isChosen ? say(', chosen') : ''}${box === undefined ? '' : say`, ${length(box.right - box.left)} by ${length(box.bottom - box.top)}, ${length(box.left + place.xMm)} from the left and ${length(box.top + place.yMm)} from the top`}`)
    .join('; ');
}
