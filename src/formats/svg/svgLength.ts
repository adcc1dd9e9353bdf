/** Millimetres of the units of CSS; a px is a ninety-sixth of an inch. */
export const MM: Readonly<Record<string, number>> = { '': 25.4 / 96, px: 25.4 / 96, mm: 1, cm: 10, in: 25.4, pt: 25.4 / 72, pc: 25.4 / 6, q: 0.25 };

/** A length in user units; those with a unit are counted in px of CSS, as the standard says. */
export function lengthOf(text: string | undefined, otherwise: number): number {
  const found = /^\s*([-+]?[\d.]+(?:e[-+]?\d+)?)\s*([a-z]*)\s*$/i.exec(text ?? '');
  const factor = found === null ? undefined : MM[found[2].toLowerCase()];
  return found === null || factor === undefined ? otherwise : (Number(found[1]) * factor) / MM[''];
}
