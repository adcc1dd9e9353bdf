/** A command of path data; its numbers are given beside it. */
export type PathCommand = 'M' | 'L' | 'C' | 'Z';

const NUMBERS: Readonly<Record<PathCommand, number>> = { M: 2, L: 2, C: 6, Z: 0 };
const isCommand = (letter: string): letter is PathCommand => letter === 'M' || letter === 'L' || letter === 'C' || letter === 'Z';

/** Powers of ten that a double holds exactly. */
const TENS = Float64Array.from({ length: 23 }, (_, k) => Number(`1e${k}`));
/** Digits whose whole number a double holds exactly. */
const EXACT_DIGITS = 15;
/** A power of ten, and letters that hold any that a double has. */
const POWER = /^e[+-]?\d+/;
const MOST_OF_POWER = 6;
const [SPACE, MINUS, POINT, ZERO, NINE] = [' ', '-', '.', '0', '9'].map((sign) => sign.charCodeAt(0));

/**
 * Goes through path data of M, L, C and Z, absolute, with plain numbers between spaces: whole outlines, each begun by M, with a line or curve at least, and
 * closed by Z or left open. Nothing is set aside for it, since an outline may be megabytes of text.
 * @param visit gets each command with its numbers, which hold until the next one.
 * @param numbersAre `plain` as `pathData` writes them, or with powers of ten as well, as the language writes tiny ones.
 * @returns whether all of the text is such data; what was visited before is of no use where it is not.
 */
export function scanPath(text: string, visit: (command: PathCommand, numbers: Float64Array) => void, numbersAre: 'plain' | 'any' = 'plain'): boolean {
  const numbers = new Float64Array(6);
  let at = 0;
  /** What the text may go on with: an outline; its first side; another one, its end or the next outline. */
  let state: 'outline' | 'side' | 'more' = 'outline';
  while (at < text.length) {
    const command = text[at++];
    if (!isCommand(command)) return false;
    if (state === 'outline' ? command !== 'M' : state === 'side' && command !== 'L' && command !== 'C') return false;
    for (let k = 0; k < NUMBERS[command]; k++) {
      at = numberAt(text, at, numbers, k, numbersAre === 'any');
      if (at < 0) return false;
    }
    while (at < text.length && text.charCodeAt(at) === SPACE) at++;
    visit(command, numbers);
    state = command === 'M' ? 'side' : command === 'Z' ? 'outline' : 'more';
  }
  return state !== 'side';
}

/**
 * Reads a number into its place. Up to fifteen digits it is one exact whole number divided by another, which is rounded as `Number` rounds it (IEEE 754).
 * @returns where the text goes on; −1 where there is no number.
 */
function numberAt(text: string, from: number, numbers: Float64Array, k: number, withPowers: boolean): number {
  let at = from;
  while (at < text.length && text.charCodeAt(at) === SPACE) at++;
  const begin = at;
  const isNegative = text.charCodeAt(at) === MINUS;
  if (isNegative) at++;
  let [whole, digits, point] = [0, 0, -1];
  for (; at < text.length; at++) {
    const sign = text.charCodeAt(at);
    if (sign >= ZERO && sign <= NINE) {
      whole = whole * 10 + (sign - ZERO);
      digits++;
    } else if (sign === POINT && point < 0) point = at;
    else break;
  }
  if (digits === 0) return -1;
  const decimals = point < 0 ? 0 : at - point - 1;
  const power = withPowers && text[at] === 'e' ? (POWER.exec(text.slice(at, at + MOST_OF_POWER))?.[0] ?? '') : '';
  at += power.length;
  const value = digits <= EXACT_DIGITS && power === '' ? whole / TENS[decimals] : Math.abs(Number(text.slice(begin, at)));
  if (!Number.isFinite(value)) return -1;
  numbers[k] = isNegative ? -value : value;
  return at;
}
