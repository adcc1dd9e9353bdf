/**
 * Units and frames, said once.
 *
 * Pixels: origin top left, y down; integers are pixel corners, centres lie at +0.5.
 * Millimetres: origin top left, y down. `mmFromPx` is the only place where a pixel becomes a millimetre.
 */
declare const unit: unique symbol;
type Unit<Name extends string> = number & { readonly [unit]: Name };

/** A length in picture pixels. */
export type Px = Unit<'px'>;
/** A length in millimetres. */
export type Mm = Unit<'mm'>;
/** How many picture pixels lie on one millimetre of the finished design. */
export type PxPerMm = Unit<'px/mm'>;

export const MM_PER_INCH = 25.4;

export const px = (value: number): Px => value as Px;
export const mm = (value: number): Mm => value as Mm;
export const pxPerMm = (value: number): PxPerMm => value as PxPerMm;

/** Turns a pixel length into millimetres at the given resolution (px/mm, above 0). */
export function mmFromPx(length: Px, resolution: PxPerMm): Mm {
  if (!(resolution > 0)) throw new RangeError(`resolution must be above 0 px/mm, got ${resolution}`);
  return (length / resolution) as Mm;
}

/** Dots per inch of a resolution in px/mm. */
export const dpiFromPxPerMm = (resolution: PxPerMm): number => resolution * MM_PER_INCH;

/** Resolution in px/mm of a value in dots per inch. */
export const pxPerMmFromDpi = (dpi: number): PxPerMm => (dpi / MM_PER_INCH) as PxPerMm;

export const inchFromMm = (length: Mm): number => length / MM_PER_INCH;
export const mmFromInch = (inches: number): Mm => (inches * MM_PER_INCH) as Mm;
