import { USUAL_WEED_LINES, type Layout, type OwnWeedLine } from '../layout/layout.ts';
import type { WeedLinePlace } from '../layout/weedLines.ts';

type WeedLineLayout = NonNullable<Layout['weedLines']>;
/** A line of one of a film's sheets. */
export type WeedLineName = Pick<OwnWeedLine, 'film' | 'sheet' | 'box' | 'strip'>;

const isSame = (a: WeedLineName, b: WeedLineName): boolean => a.film === b.film && a.sheet === b.sheet && a.box === b.box && a.strip === b.strip;

/** The layout with a weed line where it was put: `share` along its box's longer side, 0 to 1; left out without one. */
export function withOwnWeedLine({ weedLines = USUAL_WEED_LINES }: Pick<Layout, 'weedLines'>, line: WeedLineName, share?: number): { readonly weedLines: WeedLineLayout } {
  const { film, sheet, box, strip } = line;
  const { own = [] } = weedLines as WeedLineLayout;
  const changed: OwnWeedLine = { film, sheet, box, strip, ...(share === undefined ? {} : { share: Math.max(0, Math.min(1, share)) }) };
  return { weedLines: { ...weedLines, own: [...own.filter((each) => !isSame(each, line)), changed] } };
}

/** The layout with a weed line, or all of them, where the program puts it. */
export function withFoundWeedLines({ weedLines = USUAL_WEED_LINES }: Pick<Layout, 'weedLines'>, line?: WeedLineName): { readonly weedLines: WeedLineLayout } {
  const { own = [], ...rest } = weedLines as WeedLineLayout;
  const left = line === undefined ? [] : own.filter((each) => !isSame(each, line));
  return { weedLines: left.length === 0 ? rest : { ...rest, own: left } };
}

/** Where a place on the sheet is along the box that a line parts, as a share. */
export function shareAlong({ isUpright }: Pick<WeedLinePlace, 'isUpright'>, box: { readonly xMm: number; readonly yMm: number; readonly widthMm: number; readonly heightMm: number }, { x, y }: { readonly x: number; readonly y: number }): number {
  const share = isUpright ? (x - box.xMm) / box.widthMm : (y - box.yMm) / box.heightMm;
  return Math.max(0, Math.min(1, share));
}
