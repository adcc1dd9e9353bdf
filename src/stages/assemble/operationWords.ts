import { Bandage, BoxSelect, CircleDashed, Combine, CopyPlus, Eraser, Layers2, LoaderCircle, PaintBucket, PenLine, RectangleHorizontal, Scissors, Shirt, Sparkles, Spline, SquareRoundCorner, SwatchBook } from '@lucide/vue';
import type { Film } from '../../core/film/film.ts';
import { mm } from '../../core/units/length.ts';
import { formatLength, type LengthUnit } from '../../core/units/parseLength.ts';
import type { Operation, OperationKind } from '../../core/operate/operation.ts';
import { counted, say } from '../../core/words/say.ts';

/** What an operation is called, what it does in one line, and its picture. */
export const OPERATIONS: Readonly<Record<OperationKind, { readonly name: string; readonly about: string; readonly icon: typeof Scissors }>> = {
  thicken: { name: say('Thicken or thin'), about: say('edges further out, or in; openings stay open'), icon: CircleDashed },
  corners: { name: say('Corners'), about: say('rounded or clipped'), icon: SquareRoundCorner },
  tidy: { name: say('Tidy'), about: say('fewer nodes, specks gone, narrow gaps closed'), icon: Sparkles },
  mend: { name: say('Mend'), about: say('too thin, too narrow, too small, too sharp'), icon: Bandage },
  join: { name: say('Join overlaps'), about: say('what overlaps is cut as one'), icon: Combine },
  line: { name: say('Line of a width'), about: say('the outline drawn as a line'), icon: PenLine },
  split: { name: say('Split'), about: say('cut in two along a line'), icon: Scissors },
  border: { name: say('Border'), about: say('a film around and below it'), icon: Layers2 },
  edgeLine: { name: say('Line along the edge'), about: say('outside as a frame, or inside'), icon: Spline },
  field: { name: say('Field behind'), about: say('a bar or board, or knocked out of one'), icon: RectangleHorizontal },
  shadow: { name: say('Shadow'), about: say('a film below it, out of place'), icon: BoxSelect },
  fill: { name: say('Fill between lines'), about: say('what its lines enclose, area by area'), icon: PaintBucket },
  film: { name: say('Other film'), about: say('pieces on another film'), icon: SwatchBook },
  takeOff: { name: say('Taken off'), about: say('pieces that are left out'), icon: Eraser },
  rows: { name: say('In rows'), about: say('copies in columns and rows'), icon: CopyPlus },
  around: { name: say('Around a centre'), about: say('copies in a ring'), icon: LoaderCircle },
  allowance: { name: say('Seam allowance'), about: say('cut further out, the line drawn on it'), icon: Shirt },
};

/** What can be added by name; pieces are pointed at instead. */
export const OPERATION_GROUPS: readonly { readonly name: string; readonly kinds: readonly OperationKind[] }[] = [
  { name: say('Its edge'), kinds: ['thicken', 'corners', 'tidy', 'mend', 'join', 'line', 'split'] },
  { name: say('Around and behind it'), kinds: ['border', 'edgeLine', 'field', 'shadow', 'fill'] },
  { name: say('More of it'), kinds: ['rows', 'around', 'allowance'] },
];

/** An operation as it is first. @param film what it lays down, where it does. @param box of the part, mm. */
export function newOperation(kind: OperationKind, id: string, film: string, box: { readonly widthMm: number; readonly heightMm: number }): Operation | undefined {
  switch (kind) {
    case 'thicken':
      return { id, kind, byMm: 0.3 };
    case 'corners':
      return { id, kind, radiusMm: 2, manner: 'round' };
    case 'tidy':
      return { id, kind, withinMm: 0.05, leastMm2: 1, gapMm: 0, straight: true };
    case 'mend':
      return { id, kind, stripMm: 0.8, openGapMm: 0.4, leastMm2: 1.5 };
    case 'join':
      return { id, kind };
    case 'line':
      return { id, kind, widthMm: 1, corners: 'round', ends: 'round' };
    case 'border':
      return { id, kind, film, widthMm: 2, corners: 'round', openings: 'filled' };
    case 'edgeLine':
      return { id, kind, film, awayMm: 2, widthMm: 1.5, corners: 'round' };
    case 'field':
      return { id, kind, film, form: 'rectangle', paddingMm: 4, cornerMm: 2, knocksOut: false };
    case 'shadow':
      return { id, kind, film, xMm: 1.5, yMm: 1.5, isLong: false };
    case 'fill':
      return { id, kind, film, at: [], reachMm: 0.4, gapMm: 0 };
    case 'rows':
      return { id, kind, columns: 2, rows: 1, xMm: Math.round(box.widthMm + 5), yMm: Math.round(box.heightMm + 5) };
    case 'around':
      return { id, kind, count: 6, radiusMm: Math.round(box.heightMm), turns: true };
    case 'allowance':
      return { id, kind, widthMm: 6, corners: 'round' };
    case 'split':
    case 'film':
    case 'takeOff':
      return undefined;
  }
}

/** What an operation is set to, in a few words. */
export function operationWords(operation: Operation, unit: LengthUnit, films: readonly Film[]): string {
  const length = (value: number): string => formatLength(mm(value), unit);
  const film = (id: string): string => films.find((each) => each.id === id)?.name ?? say('a film that is gone');
  const some = 'pieces' in operation && operation.pieces !== undefined ? counted(operation.pieces.length, say('piece'), say('pieces')) : undefined;
  const words = ((): string => {
    switch (operation.kind) {
      case 'thicken':
        return operation.byMm >= 0 ? say`thicker by ${length(operation.byMm)}` : say`thinner by ${length(-operation.byMm)}`;
      case 'corners':
        return `${operation.manner === 'round' ? say('rounded') : say('clipped')} ${length(operation.radiusMm)}`;
      case 'tidy':
        return say`within ${length(operation.withinMm)}`;
      case 'mend':
        return mendWords(operation, length);
      case 'join':
        return say('one outline');
      case 'line':
        return say`${length(operation.widthMm)} wide`;
      case 'split':
        return operation.gapMm > 0 ? say`${length(operation.gapMm)} apart` : say('along a line');
      case 'border':
        return say`${length(operation.widthMm)} in ${film(operation.film)}`;
      case 'edgeLine':
        return say`${length(Math.abs(operation.awayMm))} ${operation.awayMm < 0 ? say('inside') : say('outside')} in ${film(operation.film)}`;
      case 'field':
        return `${operation.knocksOut ? say('knocked out of') : say('on')} ${film(operation.film)}`;
      case 'shadow':
        return say`in ${film(operation.film)}`;
      case 'fill':
        return operation.at.length === 0 ? say('point at areas on the table') : say`${counted(operation.at.length, say('area'), say('areas'))} in ${film(operation.film)}`;
      case 'film':
        return say`on ${film(operation.film)}`;
      case 'takeOff':
        return say('left out');
      case 'rows':
        return `${operation.columns} × ${operation.rows}`;
      case 'around':
        return say`${operation.count} in a ring`;
      case 'allowance':
        return length(operation.widthMm);
    }
  })();
  return some === undefined ? words : `${some}, ${words}`;
}

function mendWords({ stripMm, openGapMm, closeGapMm, leastMm2, tipDeg, teethMm, at }: Extract<Operation, { kind: 'mend' }>, length: (value: number) => string): string {
  const done = [
    stripMm === undefined ? [] : [say`strips to ${length(stripMm)}`],
    openGapMm === undefined ? [] : [say`gaps opened to ${length(openGapMm)}`],
    closeGapMm === undefined ? [] : [say`gaps closed up to ${length(closeGapMm)}`],
    leastMm2 === undefined ? [] : [say`less than ${leastMm2} mm² left out`],
    tipDeg === undefined ? [] : [say('tips rounded')],
    teethMm === undefined ? [] : [say('edges smoothed')],
  ].flat();
  return `${done.join(', ')}${at === undefined ? '' : `, ${counted(at.length, say('place'), say('places'))}`}`;
}

