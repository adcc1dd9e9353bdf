/** A twig shorter than this many half widths of the line that it leaves, and so many px more, is the line's ragged edge or its frayed end. */
const SPUR_HALF_WIDTHS = 1.3;
const SPUR_MORE_PX = 1.5;

/**
 * A thinned drawing without the twigs that ragged edges, frayed ends and blots leave on it: where a line ends in several short twigs the longest of them stays
 * as its end, and where one leaves the side of a line it goes. What a broad shape leaves, twigs alone, stays as it is.
 * @param skeleton 1 on lines one pixel wide. @param inside distance from each pixel of ink to the ground, px. @returns a new raster.
 */
export function withoutSpurs(skeleton: Uint8Array, inside: Float32Array, width: number, height: number): Uint8Array {
  const out = skeleton.slice();
  const byFork = new Map<number, number[][]>();
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      if (skeleton[i] === 0) continue;
      const twig = twigFrom(skeleton, inside, width, i);
      if (twig === undefined) continue;
      const twigs = byFork.get(twig.fork);
      if (twigs === undefined) byFork.set(twig.fork, [twig.pixels]);
      else twigs.push(twig.pixels);
    }
  }
  for (const [fork, twigs] of byFork) {
    const branches = skeletonNeighbours(skeleton, width, fork).length;
    // Of a line's own end the longest twig goes on; all twigs go where the line goes on to both sides.
    const kept = branches - twigs.length >= 2 ? 0 : branches - twigs.length === 1 ? 1 : twigs.length;
    for (const pixels of twigs.sort((a, b) => b.length - a.length).slice(kept)) for (const i of pixels) out[i] = 0;
  }
  return out;
}

/** The twig that ends at a pixel: its pixels up to the fork that it leaves, if it is as short as a spur is. */
function twigFrom(skeleton: Uint8Array, inside: Float32Array, width: number, tip: number): { fork: number; pixels: number[] } | undefined {
  if (skeletonNeighbours(skeleton, width, tip).length !== 1) return undefined;
  const pixels = [tip];
  let before = -1;
  let at = tip;
  for (;;) {
    const next = skeletonNeighbours(skeleton, width, at).filter((j) => j !== before);
    if (next.length === 0) return undefined;
    if (next.length > 1) break;
    before = at;
    at = next[0];
    if (skeletonNeighbours(skeleton, width, at).length > 2) break;
    pixels.push(at);
    if (pixels.length > SPUR_HALF_WIDTHS * inside[at] + SPUR_MORE_PX + 8) return undefined;
  }
  return pixels.length <= SPUR_HALF_WIDTHS * inside[at] + SPUR_MORE_PX ? { fork: at, pixels } : undefined;
}

/** The pixels that a pixel of a thinned drawing goes on to. */
export function skeletonNeighbours(skeleton: Uint8Array, width: number, i: number): number[] {
  const list: number[] = [];
  for (const step of [-width, 1, width, -1]) if (skeleton[i + step] !== 0) list.push(i + step);
  // A diagonal one that a straight one leads to already is no branch of its own.
  for (const [step, a, b] of [
    [-width - 1, -width, -1],
    [-width + 1, -width, 1],
    [width - 1, width, -1],
    [width + 1, width, 1],
  ] as const) {
    if (skeleton[i + step] !== 0 && skeleton[i + a] === 0 && skeleton[i + b] === 0) list.push(i + step);
  }
  return list;
}
