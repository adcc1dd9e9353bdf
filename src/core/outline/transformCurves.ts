import { turnsOver, type Affine } from '../geometry/affine.ts';
import { coordsOfVerb, CUBIC, type Curves } from './curves.ts';

/**
 * The curves under a transform. Outer rings stay clockwise on screen: when the transform turns the plane over, every ring is run through
 * backwards, so direction and nesting keep their meaning.
 */
export function transformCurves(curves: Curves, t: Affine): Curves {
  const coords = new Float64Array(curves.coords.length);
  for (let i = 0; i < coords.length; i += 2) {
    const x = curves.coords[i];
    const y = curves.coords[i + 1];
    coords[i] = t.a * x + t.c * y + t.e;
    coords[i + 1] = t.b * x + t.d * y + t.f;
  }
  const moved: Curves = { ...curves, coords };
  return turnsOver(t) ? reversed(moved) : moved;
}

function reversed(curves: Curves): Curves {
  const verbs = new Uint8Array(curves.verbs.length);
  const coords = new Float64Array(curves.coords.length);
  for (let ring = 0; ring < curves.parent.length; ring++) {
    const from = curves.verbStart[ring];
    const to = curves.verbStart[ring + 1];
    for (let v = from; v < to; v++) verbs[from + to - 1 - v] = curves.verbs[v];
    const start = curves.coordStart[ring];
    const end = curves.coordStart[ring + 1];
    for (let i = start; i < end; i += 2) {
      coords[start + end - 2 - i] = curves.coords[i];
      coords[start + end - 1 - i] = curves.coords[i + 1];
    }
  }
  return { ...curves, verbs, coords };
}

/** Puts curves one after the other into one value. */
export function joinCurves(parts: readonly Curves[]): Curves {
  const total = (pick: (c: Curves) => number): number => parts.reduce((sum, part) => sum + pick(part), 0);
  const verbs = new Uint8Array(total((c) => c.verbs.length));
  const coords = new Float64Array(total((c) => c.coords.length));
  const rings = total((c) => c.parent.length);
  const verbStart = new Int32Array(rings + 1);
  const coordStart = new Int32Array(rings + 1);
  const parent = new Int32Array(rings);
  let ring = 0;
  let verb = 0;
  let coord = 0;
  for (const part of parts) {
    verbs.set(part.verbs, verb);
    coords.set(part.coords, coord);
    const firstRing = ring;
    for (let k = 0; k < part.parent.length; k++, ring++) {
      verbStart[ring] = verb + part.verbStart[k];
      coordStart[ring] = coord + part.coordStart[k];
      parent[ring] = part.parent[k] < 0 ? -1 : part.parent[k] + firstRing;
    }
    verb += part.verbs.length;
    coord += part.coords.length;
  }
  verbStart[rings] = verb;
  coordStart[rings] = coord;
  return { kind: 'curves', verbs, coords, verbStart, coordStart, parent };
}

/** Length of all rings, measured on each cubic with `CHORDS` chords. Same unit as the coordinates. */
export function lengthOf(curves: Curves): number {
  let sum = 0;
  const { verbs, coords, verbStart, coordStart, parent } = curves;
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      sum += verbs[v] === CUBIC ? cubicLength(coords, at) : Math.hypot(coords[at + 2] - coords[at], coords[at + 3] - coords[at + 1]);
      at += coordsOfVerb(verbs[v]);
    }
  }
  return sum;
}

const CHORDS = 16;

function cubicLength(c: Float64Array, at: number): number {
  let length = 0;
  let px = c[at];
  let py = c[at + 1];
  for (let k = 1; k <= CHORDS; k++) {
    const t = k / CHORDS;
    const u = 1 - t;
    const [w0, w1, w2, w3] = [u * u * u, 3 * u * u * t, 3 * u * t * t, t * t * t];
    const x = w0 * c[at] + w1 * c[at + 2] + w2 * c[at + 4] + w3 * c[at + 6];
    const y = w0 * c[at + 1] + w1 * c[at + 3] + w2 * c[at + 5] + w3 * c[at + 7];
    length += Math.hypot(x - px, y - py);
    px = x;
    py = y;
  }
  return length;
}
