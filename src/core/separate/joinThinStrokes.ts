/** Pixels of a thin stroke that are ink by less than half, but by at least this much, of 255. */
const LEAST = 64;
const HALF = 128;
/** Two pixels from the middle of a thin stroke there is no more ink than this, of 255. */
const BESIDE = 40;
/** A stroke has across it at least this much ink in three pixels: half a pixel, of 255. */
const LEAST_ACROSS = 120;
/**
 * Ink as full as this, of 255, is not seen in strokes thinner than a pixel; where there is more of it than this many pixels so near, px, two broader shapes
 * touch with their tips.
 */
const FULL = 245;
const MOST_FULL = 2;
const AROUND_PX = 3;

/**
 * Joins strokes thinner than a pixel that half-way lines would break into beads: where the stroke runs between two rows of pixels, each of the two has less
 * than half of it. Pixels on the crest of such a stroke become just half ink, when they connect places that are ink (hysteresis: J. Canny, "A computational
 * approach to edge detection", IEEE PAMI 8(6), 1986, doi:10.1109/TPAMI.1986.4767851); a stroke that is faint all along never is ink and stays away. Gaps in ink
 * are joined likewise.
 * @param share of ink, 0 to 255; changed.
 */
export function joinThinStrokes(share: Uint8Array, width: number, height: number): void {
  const seen = new Uint8Array(share.length);
  for (const flip of [0, 255]) joinInk({ share, flip, seen, width, height });
}

interface Strokes {
  readonly share: Uint8Array;
  /** What turns a share into that of what is joined: 0 for ink, 255 for gaps in it. */
  readonly flip: number;
  readonly seen: Uint8Array;
  readonly width: number;
  readonly height: number;
}

function joinInk(strokes: Strokes): void {
  const { share, flip, width, height } = strokes;
  const crest: number[] = [];
  for (let y = 2; y < height - 2; y++) {
    const last = (y + 1) * width - 2;
    for (let i = nextWeak(share, flip, y * width + 2, last); i < last; i = nextWeak(share, flip, i + 1, last)) {
      if (!isFreeCrest(strokes, i)) continue;
      follow(strokes, i, crest);
      if (connects(strokes, crest) && !isAmongBroad(strokes, crest[crest.length >> 1])) for (const k of crest) share[k] = HALF ^ flip;
    }
  }
}

/** The next pixel from `from` on that is ink by less than half, but enough; `last` when there is none before it. */
function nextWeak(share: Uint8Array, flip: number, from: number, last: number): number {
  for (let i = from; i < last; i++) {
    const own = share[i] ^ flip;
    if (own >= LEAST && own < HALF) return i;
  }
  return last;
}

/** Whether a pixel that was not seen yet has more ink than those to both sides of it in some direction, and soon none. */
function isFreeCrest({ share, flip, seen, width }: Strokes, i: number): boolean {
  return (
    seen[i] === 0 &&
    (isCrestAcross(share, flip, i, 1) ||
      isCrestAcross(share, flip, i, width) ||
      isCrestAcross(share, flip, i, width + 1) ||
      isCrestAcross(share, flip, i, width - 1))
  );
}

function isCrestAcross(share: Uint8Array, flip: number, i: number, across: number): boolean {
  const own = share[i] ^ flip;
  const before = share[i - across] ^ flip;
  const after = share[i + across] ^ flip;
  return (
    own >= before &&
    own >= after &&
    own + before + after >= LEAST_ACROSS &&
    (share[i - 2 * across] ^ flip) <= BESIDE &&
    (share[i + 2 * across] ^ flip) <= BESIDE
  );
}

/** Collects the crest pixels that hang together with one. */
function follow(strokes: Strokes, start: number, crest: number[]): void {
  const { share, flip, seen, width, height } = strokes;
  crest.length = 0;
  crest.push(start);
  seen[start] = 1;
  for (let head = 0; head < crest.length; head++) {
    for (let up = -width; up <= width; up += width) {
      for (let k = crest[head] + up - 1; k <= crest[head] + up + 1; k++) {
        const x = k % width;
        const own = share[k] ^ flip;
        if (own < LEAST || own >= HALF || x < 2 || x >= width - 2 || k < 2 * width || k >= (height - 2) * width || !isFreeCrest(strokes, k)) continue;
        seen[k] = 1;
        crest.push(k);
      }
    }
  }
}

/** Whether ink touches a stretch of crest on opposite sides of its middle. */
function connects({ share, flip, width }: Strokes, crest: readonly number[]): boolean {
  const middleX = crest.reduce((sum, i) => sum + (i % width), 0) / crest.length;
  const middleY = crest.reduce((sum, i) => sum + Math.floor(i / width), 0) / crest.length;
  const sides: [number, number][] = [];
  for (const i of crest) {
    for (let up = -width; up <= width; up += width) {
      for (let k = i + up - 1; k <= i + up + 1; k++) if ((share[k] ^ flip) >= HALF) sides.push([(k % width) - middleX, Math.floor(k / width) - middleY]);
    }
  }
  return sides.some(([x, y]) => x * sides[0][0] + y * sides[0][1] < 0);
}

function isAmongBroad({ share, flip, width, height }: Strokes, i: number): boolean {
  const x = i % width;
  const y = Math.floor(i / width);
  let full = 0;
  for (let v = Math.max(0, y - AROUND_PX); v <= Math.min(height - 1, y + AROUND_PX); v++) {
    for (let u = Math.max(0, x - AROUND_PX); u <= Math.min(width - 1, x + AROUND_PX); u++) if ((share[v * width + u] ^ flip) >= FULL) full++;
  }
  return full > MOST_FULL;
}
