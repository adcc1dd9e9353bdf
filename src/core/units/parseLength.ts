import { inchFromMm, mm, MM_PER_INCH, mmFromInch, type Mm } from './length.ts';
import { withMark } from '../words/say.ts';

/** The two units a decorator chooses between. */
export type LengthUnit = 'mm' | 'in';

const NUMBER = String.raw`\d+(?:[.,]\d+)?|[.,]\d+`;
const PATTERN = new RegExp(String.raw`^(-?)\s*(?:(${NUMBER})\s*(?:[-\s]\s*(\d+)\s*/\s*(\d+))?|(\d+)\s*/\s*(\d+))\s*(mm|cm|in|inch|inches|"|″)?$`, 'i');

/**
 * Reads what people type for a length: `200`, `200 mm`, `20cm`, `3 1/2 in`, `3-1/2"`, `7/8`, `3,5`.
 * A number without a unit is read in `assumed`.
 * @returns the length in mm, or undefined when the text is not a length.
 */
export function parseLength(text: string, assumed: LengthUnit): Mm | undefined {
  const match = PATTERN.exec(text.trim());
  if (match === null) return undefined;
  const [, sign, whole, over, under, soleOver, soleUnder, written] = match;
  let value = 0;
  if (whole !== undefined) value = Number(whole.replace(',', '.'));
  const top = over ?? soleOver;
  const bottom = under ?? soleUnder;
  if (top !== undefined && bottom !== undefined) {
    if (Number(bottom) === 0) return undefined;
    value += Number(top) / Number(bottom);
  }
  if (sign === '-') value = -value;
  if (!Number.isFinite(value)) return undefined;
  const unit = written?.toLowerCase() ?? assumed;
  if (unit === 'mm') return mm(value);
  if (unit === 'cm') return mm(value * 10);
  return mmFromInch(value);
}

/** Writes a length as people read it: at most `digits` decimals (default 1 in mm, 2 in inches), the unit after a thin space. */
export function formatLength(length: Mm, unit: LengthUnit, digits: number = unit === 'mm' ? 1 : 2): string {
  const value = unit === 'mm' ? length : inchFromMm(length);
  return `${numberWords(value, digits)} ${unit}`;
}

/** Square millimetres of a square inch. */
export const MM2_PER_INCH2 = MM_PER_INCH ** 2;

/**
 * Writes an area as people read it, in the square of the unit that lengths have; in square inches with three decimals more, since they are 645 times as large.
 */
export function formatArea(areaMm2: number, unit: LengthUnit, digits = 2): string {
  return unit === 'mm' ? `${numberWords(areaMm2, digits)} mm²` : `${numberWords(areaMm2 / MM2_PER_INCH2, digits + 2)} in²`;
}

/** A number as people read it: at most `digits` decimals and no trailing zeros. */
export const numberWords = (value: number, digits: number): string => withMark(trimNumber(value, digits));

/** Powers of ten, by their exponent. */
const TENS = [1, 10, 100, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9];
/** Below this a product with a power of ten is off by far less than `NEAR_HALF`. */
const SURE = 1e11;
/** Nearer than this to a half the product does not tell which way the number itself is rounded. */
const NEAR_HALF = 1e-4;

/** A number as machines read it: at most `digits` decimals, rounded as `toFixed` does, and no trailing zeros. */
export function trimNumber(value: number, digits: number): string {
  const power = TENS[digits];
  const scaled = Math.abs(value) * power;
  const whole = Math.floor(scaled);
  // A drawing may have a million numbers; this is several times as fast as trimming the text of each.
  if (!(scaled < SURE) || Math.abs(scaled - whole - 0.5) < NEAR_HALF) return trimmed(value.toFixed(digits));
  const rounded = scaled - whole < 0.5 ? whole : whole + 1;
  const before = Math.floor(rounded / power);
  let after = rounded - before * power;
  const sign = value < 0 && rounded > 0 ? '-' : '';
  if (after === 0) return `${sign}${before}`;
  let places = digits;
  for (; after % 10 === 0; places--) after /= 10;
  return `${sign}${before}.${String(after).padStart(places, '0')}`;
}

function trimmed(text: string): string {
  const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
  return short === '-0' ? '0' : short;
}
