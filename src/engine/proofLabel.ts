import { translation } from '../core/geometry/affine.ts';
import { letterCurves } from '../core/lettering/letterCurves.ts';
import { boundsOf, type Curves } from '../core/outline/curves.ts';
import { joinCurves, transformCurves } from '../core/outline/transformCurves.ts';
import type { ShapeTools } from './designShapes.ts';

/** The words under a proof as outlines: the first line larger. @param capitalMm of the first line. */
export async function proofLabel(lines: readonly string[], capitalMm: number, { polygons, font }: Pick<ShapeTools, 'polygons' | 'font'>): Promise<{ curves: Curves; heightMm: number }> {
  const library = await polygons();
  const set: Curves[] = [];
  let y = 0;
  for (const [k, text] of lines.entries()) {
    const heightMm = k === 0 ? capitalMm : capitalMm * 0.6;
    const { curves } = letterCurves(library, await font('Hanken Grotesk', text), { text, font: 'Hanken Grotesk', heightMm, align: 'left' });
    const box = boundsOf(curves);
    if (box === undefined) continue;
    set.push(transformCurves(curves, translation(-box.left, y - box.top)));
    y += heightMm * 1.9;
  }
  return { curves: joinCurves(set), heightMm: y };
}
