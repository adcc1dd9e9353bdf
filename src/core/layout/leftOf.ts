import type { Sheet } from './laySheet.ts';

/** Narrower strips are not kept, mm. */
const WORTH_MM = 40;

/** What is left of a sheet along its length once what lies on it is cut off, mm; undefined where that is not worth keeping. */
export function leftOf({ widthMm, heightMm, used, boxes }: Pick<Sheet, 'widthMm' | 'heightMm' | 'used' | 'boxes'>): { readonly widthMm: number; readonly heightMm: number } | undefined {
  const edges = [used, ...boxes];
  const [top, bottom] = [Math.min(...edges.map(({ yMm }) => yMm)), Math.max(...edges.map((box) => box.yMm + box.heightMm))];
  const left = Math.floor(Math.max(top, heightMm - bottom));
  return left < WORTH_MM ? undefined : { widthMm, heightMm: left };
}
