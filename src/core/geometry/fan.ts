/**
 * How a flat design lies on film that goes around a cone: a taper unrolled is a fan, whose middle line stays upright and whose level lines become arcs about the cone's tip. Lengths are mm, y down.
 * Upright lines follow the sides of the cone; along the level line of its reference all lengths stay as they are, and everywhere downwards.
 */
export interface Fan {
  /** The upright line that stays where it is. */
  readonly middleMm: number;
  /** From the cone's tip to the design's upper edge; negative where the tip lies above. */
  readonly radiusMm: number;
  /** From the tip to the level line along which lengths are kept, of the same sign. */
  readonly referenceMm: number;
  /** What is added afterwards. */
  readonly xMm: number;
  readonly yMm: number;
}

/** Steeper sides than this are no taper: the slant is taken for no more, sine of its angle. */
const MOST_SINE = 0.95;
/** A fan that is flatter is no fan: an arc that sinks by a hundredth of a mm on a metre, mm. */
const FLAT_MM = 1e7;

/**
 * The fan of a taper that is `heightMm` high along its side and has the radii at its upper and lower edge; undefined where they are the same.
 * @param place of the design's upper left on it, mm. @param widthMm of what the radii's middle is the middle of.
 */
export function fanOf(upperMm: number, lowerMm: number, { widthMm, heightMm }: { readonly widthMm: number; readonly heightMm: number }, place: { readonly xMm: number; readonly yMm: number }): Fan | undefined {
  const sine = Math.max(-MOST_SINE, Math.min(MOST_SINE, (upperMm - lowerMm) / heightMm));
  const radius = upperMm / sine;
  if (sine === 0 || Math.abs(radius) > FLAT_MM) return undefined;
  return { middleMm: widthMm / 2 - place.xMm, radiusMm: radius - place.yMm, referenceMm: (upperMm + lowerMm) / 2 / sine, xMm: 0, yMm: 0 };
}

/** Where a point of the flat design lies on the film. */
export function bent({ middleMm, radiusMm, referenceMm, xMm, yMm }: Fan, x: number, y: number): { readonly x: number; readonly y: number } {
  const angle = (x - middleMm) / referenceMm;
  const radius = radiusMm - y;
  return { x: middleMm + radius * Math.sin(angle) + xMm, y: radiusMm - radius * Math.cos(angle) + yMm };
}

/** The same as a map of the plane. */
export const bentBy = (fan: Fan) => (x: number, y: number): { readonly x: number; readonly y: number } => bent(fan, x, y);

/** The point of the flat design that lies there on the film. */
export function unbent({ middleMm, radiusMm, referenceMm, xMm, yMm }: Fan, x: number, y: number): { readonly x: number; readonly y: number } {
  const sign = Math.sign(radiusMm);
  const [dx, dy] = [x - xMm - middleMm, radiusMm - (y - yMm)];
  return { x: middleMm + Math.atan2(sign * dx, sign * dy) * referenceMm, y: radiusMm - sign * Math.hypot(dx, dy) };
}
