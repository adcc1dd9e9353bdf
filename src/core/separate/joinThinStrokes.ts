/** Pixels of a thin stroke that are ink by less than half, but by at least this much, of 255. */
const LEAST = 64;
const HALF = 128;
/** Two pixels from the middle of a thin stroke there is no more ink than this, of 255. */
const BESIDE = 40;
/** A stroke has across it at least this much ink in three pixels: half a pixel, of 255. */
const LEAST_ACROSS = 120;

/**
 * Joins strokes thinner than a pixel that half-way lines would break into beads: where the stroke runs between two rows of pixels, each of the two has less than half of it. Pixels on the
 * crest of such a stroke become just half ink, when they connect places that are ink (hysteresis: J. Canny, "A computational approach to edge detection", IEEE PAMI 8(6), 1986, doi:10.1109/TPAMI.1986.4767851);
 * a stroke that is faint all along never is ink and stays away.
 * @param share of ink, 0 to 255; changed.
 */
export function joinThinStrokes(share: Uint8Array, width: number, height: number): void {
  const seen = new Uint8Array(share.length);
  const crest: number[] = [];
  for (let y = 2; y < height - 2; y++) {
    for (let i = y * width + 2, last = (y + 1) * width - 2; i < last; i++) {
      if (share[i] < LEAST || share[i] >= HALF || seen[i] !== 0 || !isCrest(share, i, width)) continue;
      follow(share, seen, i, width, height, crest);
      if (connects(share, crest, width)) for (const k of crest) share[k] = HALF;
    }
  }
}

/** Whether a pixel has more ink than those to both sides of it in some direction, and soon none. */
function isCrest(share: Uint8Array, i: number, width: number): boolean {
  return isCrestAcross(share, i, 1) || isCrestAcross(share, i, width) || isCrestAcross(share, i, width + 1) || isCrestAcross(share, i, width - 1);
}

function isCrestAcross(share: Uint8Array, i: number, across: number): boolean {
  const own = share[i];
  const before = share[i - across];
  const after = share[i + across];
  return own >= before && own >= after && own + before + after >= LEAST_ACROSS && share[i - 2 * across] <= BESIDE && share[i + 2 * across] <= BESIDE;
}

/** Collects the crest pixels that hang together with one. */
function follow(share: Uint8Array, seen: Uint8Array, start: number, width: number, height: number, crest: number[]): void {
  crest.length = 0;
  crest.push(start);
  seen[start] = 1;
  for (let head = 0; head < crest.length; head++) {
    for (let up = -width; up <= width; up += width) {
      for (let k = crest[head] + up - 1; k <= crest[head] + up + 1; k++) {
        const x = k % width;
        if (seen[k] !== 0 || share[k] < LEAST || share[k] >= HALF || x < 2 || x >= width - 2 || k < 2 * width || k >= (height - 2) * width || !isCrest(share, k, width)) continue;
        seen[k] = 1;
        crest.push(k);
      }
    }
  }
}

/** Whether ink touches a stretch of crest on opposite sides of its middle. */
function connects(share: Uint8Array, crest: readonly number[], width: number): boolean {
  const middleX = crest.reduce((sum, i) => sum + (i % width), 0) / crest.length;
  const middleY = crest.reduce((sum, i) => sum + Math.floor(i / width), 0) / crest.length;
  const sides: [number, number][] = [];
  for (const i of crest) {
    for (let up = -width; up <= width; up += width) {
      for (let k = i + up - 1; k <= i + up + 1; k++) if (share[k] >= HALF) sides.push([(k % width) - middleX, Math.floor(k / width) - middleY]);
    }
  }
  return sides.some(([x, y]) => x * sides[0][0] + y * sides[0][1] < 0);
}
