/** Less depth than this over the rectangle, beside its distance, is lost in how exactly corners are pointed at. */
const LEAST_PERSPECTIVE = 0.01;

/**
 * Width over height of a rectangle seen at an angle, from its four corners, for square pixels and the optical axis in the middle of the photo (Z. Zhang & L.-W.
 * He, "Whiteboard scanning and image enhancement", Digital Signal Processing 17(2), 2007, doi:10.1016/j.dsp.2006.05.006). Seen nearly straight on, where the
 * lens cannot be told, the ratio of the mean sides is taken.
 * @param corners upper left, upper right, lower right, lower left, in px from the middle of the photo.
 */
export function rectangleAspect(corners: readonly (readonly [number, number])[], halfDiagonalPx: number): number {
  const [m1, m2, m4, m3] = corners.map(([x, y]) => [x / halfDiagonalPx, y / halfDiagonalPx, 1] as const);
  const k2 = dot(cross(m1, m4), m3) / dot(cross(m2, m4), m3);
  const k3 = dot(cross(m1, m4), m2) / dot(cross(m3, m4), m2);
  const n2 = [0, 1, 2].map((i) => k2 * m2[i] - m1[i]);
  const n3 = [0, 1, 2].map((i) => k3 * m3[i] - m1[i]);
  const focal2 = -(n2[0] * n3[0] + n2[1] * n3[1]) / (n2[2] * n3[2]);
  if (Math.min(Math.abs(n2[2]), Math.abs(n3[2])) < LEAST_PERSPECTIVE || !(focal2 > 0.3 && focal2 < 100)) return meanSides(corners);
  const length = (n: readonly number[]): number => Math.sqrt((n[0] * n[0] + n[1] * n[1]) / focal2 + n[2] * n[2]);
  return length(n2) / length(n3);
}

function meanSides(c: readonly (readonly [number, number])[]): number {
  const side = (a: number, b: number): number => Math.hypot(c[a][0] - c[b][0], c[a][1] - c[b][1]);
  return (side(0, 1) + side(2, 3)) / (side(1, 2) + side(3, 0));
}

type Three = readonly number[];
const cross = (a: Three, b: Three): Three => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
const dot = (a: Three, b: Three): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
