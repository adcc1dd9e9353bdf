import type { Task } from '../task/task.ts';

/**
 * Path data as bytes, for keeping: a third to a half of its size, and read without looking for numbers. After a byte that names the form each command is one byte; its
 * coordinates follow as whole millionths, each as what it differs from the one of the same axis before, in zigzag varints (Protocol Buffers, "Encoding").
 */
const FORM = 1;
const COMMANDS = 'MLCZ';
const NUMBERS = [2, 2, 6, 0];
const DIGITS = 6;
const UNIT = 1_000_000;
/** Whole digits of a number at most: with its decimals, differences and all, it is exact in a double. */
const MAX_WHOLE_DIGITS = 9;
const MAX_UNITS = UNIT * 10 ** MAX_WHOLE_DIGITS;
const [SPACE, MINUS, POINT, ZERO, NINE] = [' ', '-', '.', '0', '9'].map((sign) => sign.charCodeAt(0));
/** Bytes that a command takes at most. */
const MOST_AT_ONCE = 1 + 6 * 8;

/** Commands that are packed before others may have their turn. */
const COMMANDS_A_TURN = 4000;

/**
 * Packs path data that is written as `pathData` writes it with up to six decimals, in turns. It comes back letter for letter.
 * @returns undefined for a text that is written otherwise: it is kept as it is.
 */
export function* packPath(text: string): Task<Uint8Array<ArrayBuffer> | undefined> {
  let bytes = new Uint8Array(text.length / 2 + MOST_AT_ONCE);
  let size = 0;
  bytes[size++] = FORM;
  const before = [0, 0];
  const number = { units: 0, next: 0 };
  for (let at = 0, commands = 1; at < text.length; commands++) {
    if (commands % COMMANDS_A_TURN === 0) yield at / text.length;
    const command = COMMANDS.indexOf(text[at++]);
    if (command < 0) return undefined;
    if (size + MOST_AT_ONCE > bytes.length) bytes = grown(bytes);
    bytes[size++] = command;
    for (let k = 0; k < NUMBERS[command]; k++) {
      if (k > 0 && text.charCodeAt(at++) !== SPACE) return undefined;
      if (!readUnits(text, at, number)) return undefined;
      at = number.next;
      size = putVarint(bytes, size, number.units - before[k % 2]);
      before[k % 2] = number.units;
    }
  }
  return bytes.slice(0, size);
}

function grown(bytes: Uint8Array<ArrayBuffer>): Uint8Array<ArrayBuffer> {
  const more = new Uint8Array(2 * bytes.length);
  more.set(bytes);
  return more;
}

/** Reads a number as it is written without anything that could be left out, in millionths. @returns whether there is one. */
function readUnits(text: string, from: number, into: { units: number; next: number }): boolean {
  let at = from;
  const isNegative = text.charCodeAt(at) === MINUS;
  if (isNegative) at++;
  const begin = at;
  let units = 0;
  for (let sign = text.charCodeAt(at); sign >= ZERO && sign <= NINE; sign = text.charCodeAt(++at)) units = units * 10 + (sign - ZERO);
  const digits = at - begin;
  if (digits === 0 || digits > MAX_WHOLE_DIGITS || (digits > 1 && text.charCodeAt(begin) === ZERO)) return false;
  units *= UNIT;
  if (text.charCodeAt(at) === POINT) {
    const point = at++;
    let part = UNIT;
    for (let sign = text.charCodeAt(at); sign >= ZERO && sign <= NINE && at - point <= DIGITS; sign = text.charCodeAt(++at)) {
      part /= 10;
      units += (sign - ZERO) * part;
    }
    if (at - point === 1 || text.charCodeAt(at - 1) === ZERO) return false;
  }
  if (isNegative && units === 0) return false;
  into.units = isNegative ? -units : units;
  into.next = at;
  return true;
}

function putVarint(bytes: Uint8Array, at: number, value: number): number {
  let left = value < 0 ? -2 * value - 1 : 2 * value;
  for (; left >= 0x80; left = Math.floor(left / 0x80)) bytes[at++] = (left % 0x80) | 0x80;
  bytes[at++] = left;
  return at;
}

/** Letters that are made into a string at a time: as many arguments as a call takes. */
const LETTERS_AT_ONCE = 8192;
/** Letters that a command takes at most: six numbers with sign, point and space. */
const MOST_LETTERS = 1 + 6 * (MAX_WHOLE_DIGITS + DIGITS + 3);

/**
 * The path data that `packPath` was given, in turns. What it says is for `isPathData` to check.
 * @throws RangeError for bytes that are no packed path, or make more than `maxChars` letters.
 */
export function* unpackPath(bytes: Uint8Array, maxChars: number): Task<string> {
  if (bytes[0] !== FORM) throw new RangeError('not a packed path');
  let text = '';
  const letters = new Uint8Array(LETTERS_AT_ONCE + MOST_LETTERS);
  let count = 0;
  const before = [0, 0];
  const number = { value: 0, next: 1 };
  while (number.next < bytes.length) {
    const command = bytes[number.next++];
    if (command >= COMMANDS.length) throw new RangeError('not a command of a packed path');
    letters[count++] = COMMANDS.charCodeAt(command);
    for (let k = 0; k < NUMBERS[command]; k++) {
      readVarint(bytes, number);
      before[k % 2] += number.value;
      if (!(Math.abs(before[k % 2]) < MAX_UNITS)) throw new RangeError('a place of a packed path is too far');
      if (k > 0) letters[count++] = SPACE;
      count = putNumber(letters, count, before[k % 2]);
    }
    if (count < LETTERS_AT_ONCE && number.next < bytes.length) continue;
    text += String.fromCharCode.apply(null, letters.subarray(0, count) as unknown as number[]);
    count = 0;
    if (text.length > maxChars) throw new RangeError('a packed path is too long');
    yield number.next / bytes.length;
  }
  return text;
}

function readVarint(bytes: Uint8Array, into: { value: number; next: number }): void {
  let [value, unit] = [0, 1];
  for (let k = 0; k < 8; k++, unit *= 0x80) {
    if (into.next >= bytes.length) break;
    const byte = bytes[into.next++];
    value += (byte & 0x7f) * unit;
    if (byte >= 0x80) continue;
    into.value = value % 2 === 1 ? -(value + 1) / 2 : value / 2;
    return;
  }
  throw new RangeError('a packed path breaks off');
}

/** Writes a number of millionths, without trailing zeros. */
function putNumber(letters: Uint8Array, at: number, units: number): number {
  if (units < 0) letters[at++] = MINUS;
  const size = Math.abs(units);
  const whole = Math.floor(size / UNIT);
  let length = 1;
  for (let ten = 10; whole >= ten; ten *= 10) length++;
  at = putDigits(letters, at, whole, length);
  let part = size - whole * UNIT;
  if (part === 0) return at;
  letters[at++] = POINT;
  let places = DIGITS;
  for (; part % 10 === 0; places--) part /= 10;
  return putDigits(letters, at, part, places);
}

function putDigits(letters: Uint8Array, at: number, value: number, length: number): number {
  let left = value;
  for (let k = length - 1; k >= 0; k--) {
    const tenth = Math.floor(left / 10);
    letters[at + k] = ZERO + left - 10 * tenth;
    left = tenth;
  }
  return at + length;
}
