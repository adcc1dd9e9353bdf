import { writeOklab, type Rgb } from '../colour/oklab.ts';

/**
 * Paper and full inks on coated paper, each over each other, as screens show them: cyan, magenta, yellow, their pairs, and all three with black. Solids of offset inks by ISO 12647-2:2004 (paper type 1), brought into sRGB; ink-jet and laser prints reach about as
 * far.
 */
const SOLIDS: readonly Rgb[] = [
  { r: 255, g: 255, b: 255 },
  { r: 0, g: 158, b: 224 },
  { r: 226, g: 0, b: 122 },
  { r: 255, g: 237, b: 0 },
  { r: 227, g: 6, b: 19 },
  { r: 0, g: 150, b: 64 },
  { r: 49, g: 39, b: 131 },
  { r: 8, g: 6, b: 5 },
];

/** A plane that everything inks reach lies behind: outward normal and distance. */
type Plane = readonly [number, number, number, number];

/** What a mixture of inks can be is taken for what lies between their solids (the corners of the cells of H. E. J. Neugebauer, 1937): the planes of the convex hull around these in OKLab. */
const PLANES: readonly Plane[] = hullPlanes(SOLIDS.map(oklabOf));

/** How far beyond what inks reach a colour is, OKLab × 100; 0 within. One that is off by 2.5 is seen, by 6 it is another colour. */
export function beyondInk(colour: Rgb): number {
  const [l, a, b] = oklabOf(colour);
  let most = 0;
  for (const [nl, na, nb, d] of PLANES) most = Math.max(most, nl * l + na * a + nb * b - d);
  return 100 * most;
}

function oklabOf({ r, g, b }: Rgb): readonly [number, number, number] {
  const out = new Float64Array(3);
  writeOklab(r, g, b, out);
  return [out[0], out[1], out[2]];
}

/** All planes through three of some places that have no other one beyond them. */
function hullPlanes(places: readonly (readonly [number, number, number])[]): Plane[] {
  const planes: Plane[] = [];
  for (const [i, a] of places.entries()) {
    for (const [j, b] of places.entries()) {
      if (j <= i) continue;
      for (const c of places.slice(j + 1)) {
        const [u, v] = [[b[0] - a[0], b[1] - a[1], b[2] - a[2]], [c[0] - a[0], c[1] - a[1], c[2] - a[2]]];
        const normal = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
        const length = Math.hypot(...normal);
        if (length < 1e-12) continue;
        const [nl, na, nb] = normal.map((value) => value / length);
        const d = nl * a[0] + na * a[1] + nb * a[2];
        const sides = places.map((p) => nl * p[0] + na * p[1] + nb * p[2] - d);
        if (sides.every((side) => side < 1e-9)) planes.push([nl, na, nb, d]);
        else if (sides.every((side) => side > -1e-9)) planes.push([-nl, -na, -nb, -d]);
      }
    }
  }
  return planes;
}
