/**
 * Closed outlines of lines and cubic Béziers. Ring k starts at the point coords[coordStart[k]], coords[coordStart[k] + 1] and runs through the verbs
 * verbStart[k] to verbStart[k+1] (exclusive): LINE takes one further point, CUBIC three. The last verb of a ring ends at its start; one that was cut open by
 * hand ends elsewhere, has no ring around it and is no piece. Orientation and nesting are those of `Rings`: outer rings clockwise on screen, holes the other
 * way, parent[k] the ring directly around.
 */
export interface Curves {
  readonly kind: 'curves';
  readonly verbs: Uint8Array;
  readonly coords: Float64Array;
  readonly verbStart: Int32Array;
  readonly coordStart: Int32Array;
  readonly parent: Int32Array;
}

export const LINE = 1;
export const CUBIC = 2;

/** Coordinates that a verb adds. */
export const coordsOfVerb = (verb: number): number => (verb === LINE ? 2 : 6);

/** Where in the coordinates the nodes of a ring are; of one that was cut open its end too, of all others the first node alone, though it stands at both ends. */
export function nodePlaces(curves: Curves, ring: number): number[] {
  const { verbs, verbStart, coordStart } = curves;
  const places: number[] = [];
  let at = coordStart[ring];
  for (let verb = verbStart[ring]; verb < verbStart[ring + 1]; verb++) {
    places.push(at);
    at += coordsOfVerb(verbs[verb]);
  }
  if (isOpenRing(curves, ring)) places.push(at);
  return places;
}

/** Collects rings one after the other. */
export class CurvesBuilder {
  private readonly verbs: number[] = [];
  private readonly coords: number[] = [];
  private readonly verbStart: number[] = [0];
  private readonly coordStart: number[] = [0];
  private readonly parents: number[] = [];

  start(x: number, y: number, parent: number): void {
    this.coords.push(x, y);
    this.parents.push(parent);
  }

  line(x: number, y: number): void {
    this.verbs.push(LINE);
    this.coords.push(x, y);
  }

  cubic(x1: number, y1: number, x2: number, y2: number, x: number, y: number): void {
    this.verbs.push(CUBIC);
    this.coords.push(x1, y1, x2, y2, x, y);
  }

  close(): void {
    this.verbStart.push(this.verbs.length);
    this.coordStart.push(this.coords.length);
  }

  /** A ring of straight lines through points, x and y one after the other. */
  polygon(points: ArrayLike<number>, parent = -1): void {
    this.start(points[0], points[1], parent);
    for (let k = 2; k < points.length; k += 2) this.line(points[k], points[k + 1]);
    this.line(points[0], points[1]);
    this.close();
  }

  /** Takes over one line or cubic of other curves, that begins at a place of their coordinates. */
  verb({ verbs, coords }: Pick<Curves, 'verbs' | 'coords'>, verb: number, at: number): void {
    if (verbs[verb] === LINE) this.line(coords[at + 2], coords[at + 3]);
    else this.cubic(coords[at + 2], coords[at + 3], coords[at + 4], coords[at + 5], coords[at + 6], coords[at + 7]);
  }

  /** Takes over a ring of other curves. */
  copy({ verbs, coords, verbStart, coordStart }: Curves, ring: number, parent: number): void {
    let at = coordStart[ring];
    this.start(coords[at], coords[at + 1], parent);
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      const count = coordsOfVerb(verbs[v]);
      this.verbs.push(verbs[v]);
      for (let k = at + 2; k < at + 2 + count; k++) this.coords.push(coords[k]);
      at += count;
    }
    this.close();
  }

  build(): Curves {
    return {
      kind: 'curves',
      verbs: Uint8Array.from(this.verbs),
      coords: Float64Array.from(this.coords),
      verbStart: Int32Array.from(this.verbStart),
      coordStart: Int32Array.from(this.coordStart),
      parent: Int32Array.from(this.parents),
    };
  }
}

export const ringCount = (curves: Curves): number => curves.parent.length;

/** Nodes of all rings: one for each line or curve. */
export const nodeCount = (curves: Curves): number => curves.verbs.length;

/** How many rings lie around a ring: 0 for the outermost. Even is ink, odd a hole. */
export function depthOf(curves: Curves, ring: number): number {
  let depth = 0;
  for (let k = curves.parent[ring]; k >= 0; k = curves.parent[k]) depth++;
  return depth;
}

/** Ends nearer than this are one place, in units of the coordinates: below what any file can say. */
const SAME_PLACE = 1e-7;

/** Whether a ring was cut open: it does not end where it starts. */
export function isOpenRing({ coords, coordStart }: Curves, ring: number): boolean {
  const from = coordStart[ring];
  const to = coordStart[ring + 1] - 2;
  return Math.abs(coords[from] - coords[to]) > SAME_PLACE || Math.abs(coords[from + 1] - coords[to + 1]) > SAME_PLACE;
}

/** Exact signed area of one ring (Green's theorem on its lines and cubics), in square units of its coordinates. */
export function ringArea(curves: Curves, ring: number): number {
  const { verbs, coords, verbStart, coordStart } = curves;
  let at = coordStart[ring];
  let x0 = coords[at];
  let y0 = coords[at + 1];
  at += 2;
  let twice = 0;
  for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
    if (verbs[v] === LINE) {
      const x = coords[at];
      const y = coords[at + 1];
      twice += x0 * y - x * y0;
      x0 = x;
      y0 = y;
      at += 2;
    } else {
      const x1 = coords[at];
      const y1 = coords[at + 1];
      const x2 = coords[at + 2];
      const y2 = coords[at + 3];
      const x3 = coords[at + 4];
      const y3 = coords[at + 5];
      twice +=
        (6 * (x0 * y1 - x1 * y0) +
          3 * (x0 * y2 - x2 * y0) +
          (x0 * y3 - x3 * y0) +
          3 * (x1 * y2 - x2 * y1) +
          3 * (x1 * y3 - x3 * y1) +
          6 * (x2 * y3 - x3 * y2)) /
        10;
      x0 = x3;
      y0 = y3;
      at += 6;
    }
  }
  return twice / 2;
}

export interface Bounds {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** The box around points `from` to `to` (exclusive) of flat coordinates. */
export function boxOfPoints(points: ArrayLike<number>, from: number, to: number): Bounds {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = from; i < to; i++) {
    left = Math.min(left, points[2 * i]);
    right = Math.max(right, points[2 * i]);
    top = Math.min(top, points[2 * i + 1]);
    bottom = Math.max(bottom, points[2 * i + 1]);
  }
  return { left, top, right, bottom };
}

/** The exact box around all rings; undefined when there are none. */
export function boundsOf(curves: Curves): Bounds | undefined {
  if (curves.parent.length === 0) return undefined;
  let left = Infinity;
  let top = Infinity;
  let right = -Infinity;
  let bottom = -Infinity;
  const take = (x: number, y: number): void => {
    if (x < left) left = x;
    if (x > right) right = x;
    if (y < top) top = y;
    if (y > bottom) bottom = y;
  };
  eachSegment(curves, (c, at, verb) => {
    const end = at + coordsOfVerb(verb);
    take(c[end], c[end + 1]);
    if (verb !== CUBIC) return;
    for (let axis = 0; axis < 2; axis++) {
      for (const t of turningPoints(c[at + axis], c[at + 2 + axis], c[at + 4 + axis], c[at + 6 + axis])) take(cubicAt(c, at, t), cubicAt(c, at + 1, t));
    }
  });
  return { left, top, right, bottom };
}

/** Calls `visit` for each segment with the index in `coords` of its first point. */
export function eachSegment(curves: Curves, visit: (coords: Float64Array, at: number, verb: number, ring: number) => void): void {
  const { verbs, coords, verbStart, coordStart, parent } = curves;
  for (let ring = 0; ring < parent.length; ring++) {
    let at = coordStart[ring];
    for (let v = verbStart[ring]; v < verbStart[ring + 1]; v++) {
      visit(coords, at, verbs[v], ring);
      at += coordsOfVerb(verbs[v]);
    }
  }
}

/** Value at t of the cubic whose values stand at at, at+2, at+4, at+6. */
export function cubicAt(c: ArrayLike<number>, at: number, t: number): number {
  const u = 1 - t;
  return u * u * u * c[at] + 3 * u * u * t * c[at + 2] + 3 * u * t * t * c[at + 4] + t * t * t * c[at + 6];
}

function turningPoints(p0: number, p1: number, p2: number, p3: number): number[] {
  const a = p3 - 3 * p2 + 3 * p1 - p0;
  const b = 2 * (p2 - 2 * p1 + p0);
  const c = p1 - p0;
  const found: number[] = [];
  if (Math.abs(a) < 1e-12) {
    if (Math.abs(b) > 1e-12) found.push(-c / b);
  } else {
    const root = b * b - 4 * a * c;
    if (root >= 0) found.push((-b + Math.sqrt(root)) / (2 * a), (-b - Math.sqrt(root)) / (2 * a));
  }
  return found.filter((t) => t > 0 && t < 1);
}
