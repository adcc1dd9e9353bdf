/** Places that are tried on the longer side of a shape's box. */
const ACROSS = 40;
/** More discs than this weigh an overlap no better. */
const MOST_POLES = 12;
/** Share of the places inside that discs cover before no more are added. */
const ENOUGH = 0.9;
/** Discs smaller than this share of the largest are left out. */
const LEAST_SHARE = 0.06;

/**
 * Discs inside of a shape that cover most of it, the largest first: x, y, radius each (poles of inaccessibility; the idea to weigh overlaps by them is of J. Gardeyn, G. Vanden Berghe & T. Wauters, "An open-source heuristic
 * to reboot 2D nesting research", 2025, arXiv:2509.13329). Each next one has its middle outside of those before.
 * @param points x and y of rings, even-odd.
 */
export function polesOf(points: Float64Array, starts: Int32Array): Float64Array {
  const places = placesInside(points, starts);
  const poles: number[] = [];
  const isCovered = new Uint8Array(places.length / 3);
  let covered = 0;
  while (poles.length < 3 * MOST_POLES) {
    let best = -1;
    let radius = 0;
    for (let k = 0; k < isCovered.length; k++) {
      if (isCovered[k] === 1) continue;
      if (places[3 * k + 2] > radius) [best, radius] = [k, places[3 * k + 2]];
    }
    if (best < 0 || (poles.length > 0 && radius < LEAST_SHARE * poles[2])) break;
    const [x, y] = [places[3 * best], places[3 * best + 1]];
    poles.push(x, y, radius);
    for (let k = 0; k < isCovered.length; k++) {
      const away = Math.hypot(places[3 * k] - x, places[3 * k + 1] - y);
      if (isCovered[k] === 0 && away <= radius) {
        isCovered[k] = 1;
        covered++;
      }
      // The next disc keeps a little to itself: it may reach into this one by half.
      places[3 * k + 2] = Math.min(places[3 * k + 2], Math.max(away - radius / 2, 0));
    }
    if (covered >= ENOUGH * isCovered.length) break;
  }
  return Float64Array.from(poles);
}

/** Places of a grid inside of the rings, each with its distance to them. */
function placesInside(points: Float64Array, starts: Int32Array): number[] {
  let [width, height] = [0, 0];
  for (let i = 0; i < points.length; i += 2) {
    width = Math.max(width, Math.abs(points[i]));
    height = Math.max(height, Math.abs(points[i + 1]));
  }
  const step = (2 * Math.max(width, height)) / ACROSS;
  const places: number[] = [];
  for (let y = -height + step / 2; y < height; y += step) {
    for (let x = -width + step / 2; x < width; x += step) {
      const away = distanceInside(points, starts, x, y);
      if (away > 0) places.push(x, y, away);
    }
  }
  return places;
}

/** Distance of a place to the nearest edge, below 0 outside. */
function distanceInside(points: Float64Array, starts: Int32Array, x: number, y: number): number {
  let least = Infinity;
  let isInside = false;
  for (let ring = 0; ring + 1 < starts.length; ring++) {
    let j = starts[ring + 1] - 1;
    for (let i = starts[ring]; i < starts[ring + 1]; j = i++) {
      const [ax, ay, bx, by] = [points[2 * j], points[2 * j + 1], points[2 * i], points[2 * i + 1]];
      if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) isInside = !isInside;
      const [dx, dy] = [bx - ax, by - ay];
      const square = dx * dx + dy * dy;
      const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / square));
      const [ex, ey] = [x - ax - t * dx, y - ay - t * dy];
      least = Math.min(least, ex * ex + ey * ey);
    }
  }
  return isInside ? Math.sqrt(least) : -Math.sqrt(least);
}
