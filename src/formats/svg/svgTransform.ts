import { followedBy, IDENTITY, rotation, type Affine } from '../../core/geometry/affine.ts';

const CALL = /(matrix|translate|scale|rotate|skewX|skewY)\s*\(([^)]*)\)/g;

/** The transform attribute of an element (SVG 1.1, 7.6); what it does not understand is left out. */
export function svgTransform(text: string | undefined): Affine {
  let all = IDENTITY;
  for (const [, name, inside] of (text ?? '').matchAll(CALL)) {
    const values = inside.trim().split(/[\s,]+/).map(Number);
    // The one that is written first is done last.
    if (values.length > 0 && values.every(Number.isFinite)) all = followedBy(one(name, values), all);
  }
  return all;
}

function one(name: string, [a, b, c, d, e, f]: readonly number[]): Affine {
  const rad = (degrees: number): number => (degrees * Math.PI) / 180;
  switch (name) {
    case 'matrix':
      return { a, b, c, d, e, f };
    case 'translate':
      return { a: 1, b: 0, c: 0, d: 1, e: a, f: b ?? 0 };
    case 'scale':
      return { a, b: 0, c: 0, d: b ?? a, e: 0, f: 0 };
    case 'rotate':
      return rotation(rad(a), b ?? 0, c ?? 0);
    case 'skewX':
      return { a: 1, b: 0, c: Math.tan(rad(a)), d: 1, e: 0, f: 0 };
    default:
      return { a: 1, b: Math.tan(rad(a)), c: 0, d: 1, e: 0, f: 0 };
  }
}
