import { hasLetters, SHIPPED_FONTS } from '../core/lettering/fonts.ts';
import type { ShapeTools } from './designShapes.ts';

/** So many are told. */
const TOLD = 3;

/** Shipped fonts that have every letter of a text, in the order of the list; at most three. */
export async function fontsWith(text: string, font: ShapeTools['font']): Promise<readonly string[]> {
  const found: string[] = [];
  for (const { name } of SHIPPED_FONTS) {
    if (found.length === TOLD) break;
    if (hasLetters(await font(name, text), text)) found.push(name);
  }
  return found;
}
