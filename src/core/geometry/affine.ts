/** A plane transform: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export interface Affine {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
  readonly e: number;
  readonly f: number;
}

export const IDENTITY: Affine = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };

export const translation = (e: number, f: number): Affine => ({ a: 1, b: 0, c: 0, d: 1, e, f });
export const scaling = (factor: number): Affine => ({ a: factor, b: 0, c: 0, d: factor, e: 0, f: 0 });

/** Turn about a point, radians, clockwise on screen (y down). Quarter turns are exact. */
export function rotation(angleRad: number, cx: number, cy: number): Affine {
  const snap = (v: number): number => (Math.abs(v) < 1e-15 ? 0 : v);
  const cos = snap(Math.cos(angleRad));
  const sin = snap(Math.sin(angleRad));
  return { a: cos, b: sin, c: -sin, d: cos, e: cx - cos * cx + sin * cy, f: cy - sin * cx - cos * cy };
}

/** Left and right changed over about the upright line x = `axis`. */
export const mirrorAbout = (axis: number): Affine => ({ a: -1, b: 0, c: 0, d: 1, e: 2 * axis, f: 0 });

/** First `first`, then `then`. */
export function followedBy(first: Affine, then: Affine): Affine {
  return {
    a: then.a * first.a + then.c * first.b,
    b: then.b * first.a + then.d * first.b,
    c: then.a * first.c + then.c * first.d,
    d: then.b * first.c + then.d * first.d,
    e: then.a * first.e + then.c * first.f + then.e,
    f: then.b * first.e + then.d * first.f + then.f,
  };
}

/** What undoes a transform. @throws RangeError for one that flattens the plane. */
export function inverseOf({ a, b, c, d, e, f }: Affine): Affine {
  const det = a * d - b * c;
  if (det === 0) throw new RangeError('a transform onto a line cannot be undone');
  return { a: d / det, b: -b / det, c: -c / det, d: a / det, e: (c * f - d * e) / det, f: (b * e - a * f) / det };
}

/** Where a transform puts a point. */
export const placed = ({ a, b, c, d, e, f }: Affine, x: number, y: number): { x: number; y: number } => ({ x: a * x + c * y + e, y: b * x + d * y + f });

export const turnsOver = (t: Affine): boolean => t.a * t.d - t.b * t.c < 0;
