import type { Sheet } from '../../core/layout/laySheet.ts';
import type { Bounds } from '../../core/outline/curves.ts';
import type { RackFilm } from '../../engine/protocol.ts';

/** What lies on a light table in words, for those who do not see it: read after its name. */

/** A length in words. */
type Length = (mm: number) => string;

const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

/** A film's sheet: what is on it, where it begins, how large it is, and what was found. */
export function sheetContents(sheet: Sheet | undefined, film: string, findings: number | undefined, length: Length): string {
  if (sheet === undefined) return 'nothing to cut yet';
  const { placements, parts, boxes, used, mirrored, weedLinePlaces = [] } = sheet;
  const copies = placements.filter(({ partId }) => partId === parts[0]?.id).length;
  return [
    `${film}, ${counted(copies, 'copy', 'copies')}, ${length(used.widthMm)} by ${length(used.heightMm)}`,
    `${length(used.xMm)} from the left and ${length(used.yMm)} from the top of a sheet of ${length(sheet.widthMm)} by ${length(sheet.heightMm)}`,
    mirrored ? 'mirrored' : 'not mirrored',
    boxes.length === 0 ? 'no weeding box' : counted(boxes.length, 'weeding box', 'weeding boxes'),
    ...(weedLinePlaces.length === 0 ? [] : [counted(weedLinePlaces.filter(({ isLeftOut }) => !isLeftOut).length, 'weed line')]),
    ...(findings === undefined ? [] : [findings === 0 ? 'nothing found by the cut check' : `${counted(findings, 'place')} to look at`]),
  ].join('; ');
}

/** The films of a job, lowest first. */
export function filmsContents(rack: readonly RackFilm[] | undefined): string {
  if (rack === undefined || rack.length === 0) return 'no films yet';
  return rack.map(({ film, pieces }) => `${film.name}, ${counted(pieces, 'piece')}`).join('; ');
}

/** A part of a design. */
export interface PartLine {
  readonly name: string;
  readonly box?: Bounds | undefined;
  readonly isChosen: boolean;
}

/** The parts of a design, lowest first, with where on the blank's printable area they lie. */
export function partsContents(parts: readonly PartLine[], place: { readonly xMm: number; readonly yMm: number }, length: Length): string {
  if (parts.length === 0) return 'no parts yet';
  return parts
    .map(({ name, box, isChosen }) => `${name}${isChosen ? ', chosen' : ''}${box === undefined ? '' : `, ${length(box.right - box.left)} by ${length(box.bottom - box.top)}, ${length(box.left + place.xMm)} from the left and ${length(box.top + place.yMm)} from the top`}`)
    .join('; ');
}
