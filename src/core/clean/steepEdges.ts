/** For each pixel the two colours between which the edge near it runs, and how much of an edge it is. */
export interface EdgePairs {
  /** Colours of both sides, channel by channel. */
  readonly low: readonly Float32Array[];
  readonly high: readonly Float32Array[];
  /** 1 where a true edge runs, 0 where the picture only changes softly or hardly at all. */
  readonly weight: Float32Array;
}

/** Pixels looked at around each one, to both sides. */
const REACH_PX = 2;
/** Colours nearer than this are not taken for two sides of an edge, levels. */
const LEAST_STEP = 20;
/** Share of the whole step that changes from a pixel to the next: a ramp over the window has a quarter, an edge more than twice that. */
const RAMP = 0.28;
const EDGE = 0.42;

/** Finds the pair for each pixel: the colour furthest from the mean around it, and the one furthest from that. */
export function edgePairs(channels: readonly Float32Array[], width: number, height: number): EdgePairs {
  const n = width * height;
  const low = channels.map(() => new Float32Array(n));
  const high = channels.map(() => new Float32Array(n));
  const weight = new Float32Array(n);
  for (let y = 0; y < height; y++) pairRow(channels, low, high, weight, width, height, y);
  return { low, high, weight };
}

function pairRow(
  channels: readonly Float32Array[],
  low: readonly Float32Array[],
  high: readonly Float32Array[],
  weight: Float32Array,
  width: number,
  height: number,
  y: number,
): void {
  const [y0, y1] = [Math.max(0, y - REACH_PX), Math.min(height - 1, y + REACH_PX)];
  for (let x = 0, i = y * width; x < width; x++, i++) {
    const [x0, x1] = [Math.max(0, x - REACH_PX), Math.min(width - 1, x + REACH_PX)];
    const first = furthest(channels, meansOf(channels, width, x0, x1, y0, y1), width, x0, x1, y0, y1);
    const second = furthest(
      channels,
      channels.map((plane) => plane[first]),
      width,
      x0,
      x1,
      y0,
      y1,
    );
    let square = 0;
    channels.forEach((plane, c) => {
      low[c][i] = plane[first];
      high[c][i] = plane[second];
      square += (plane[second] - plane[first]) ** 2;
    });
    if (square < LEAST_STEP * LEAST_STEP) continue;
    const steepest = steepestIn(channels, width, x0, x1, y0, y1, first, second, square);
    weight[i] = Math.max(0, Math.min(1, (steepest - RAMP) / (EDGE - RAMP)));
  }
}

function meansOf(channels: readonly Float32Array[], width: number, x0: number, x1: number, y0: number, y1: number): number[] {
  const count = (x1 - x0 + 1) * (y1 - y0 + 1);
  return channels.map((plane) => {
    let sum = 0;
    for (let y = y0; y <= y1; y++) for (let i = y * width + x0; i <= y * width + x1; i++) sum += plane[i];
    return sum / count;
  });
}

function furthest(channels: readonly Float32Array[], from: readonly number[], width: number, x0: number, x1: number, y0: number, y1: number): number {
  let best = y0 * width + x0;
  let most = -1;
  for (let y = y0; y <= y1; y++) {
    for (let i = y * width + x0; i <= y * width + x1; i++) {
      let square = 0;
      for (let c = 0; c < channels.length; c++) square += (channels[c][i] - from[c]) ** 2;
      if (square > most) {
        most = square;
        best = i;
      }
    }
  }
  return best;
}

/** Largest change from a pixel to its right or lower neighbour along the line between both colours, as a share of the whole step. */
function steepestIn(
  channels: readonly Float32Array[],
  width: number,
  x0: number,
  x1: number,
  y0: number,
  y1: number,
  first: number,
  second: number,
  square: number,
): number {
  let most = 0;
  for (let y = y0; y <= y1; y++) {
    for (let x = x0, i = y * width + x0; x <= x1; x++, i++) {
      let right = 0;
      let down = 0;
      for (const plane of channels) {
        const step = plane[second] - plane[first];
        if (x < x1) right += step * (plane[i + 1] - plane[i]);
        if (y < y1) down += step * (plane[i + width] - plane[i]);
      }
      most = Math.max(most, Math.abs(right), Math.abs(down));
    }
  }
  return most / square;
}

/** Makes edges of a smoothly enlarged picture one pixel wide: along the line between its pair each colour is moved by how far the half-way place is. */
export function steepened(smooth: readonly Float32Array[], { low, high, weight }: EdgePairs, width: number, height: number, times: number): Float32Array[] {
  const wide = width * times;
  const out = smooth.map((plane) => plane.slice());
  const work: Steepening = { smooth, low, high, weight, width, wide, tall: height * times, times, out };
  for (let y = 0; y < height * times; y++) steepRow(work, y);
  return out;
}

interface Steepening {
  readonly smooth: readonly Float32Array[];
  readonly low: readonly Float32Array[];
  readonly high: readonly Float32Array[];
  readonly weight: Float32Array;
  readonly width: number;
  readonly wide: number;
  readonly tall: number;
  readonly times: number;
  readonly out: readonly Float32Array[];
}

function steepRow({ smooth, low, high, weight, width, wide, tall, times, out }: Steepening, y: number): void {
  const row = Math.floor(y / times) * width;
  const up = y > 0 ? wide : 0;
  const down = y < tall - 1 ? wide : 0;
  for (let x = 0, i = y * wide; x < wide; x++, i++) {
    const k = row + ((x / times) | 0);
    const w = weight[k];
    if (w === 0) continue;
    const left = x > 0 ? i - 1 : i;
    const right = x < wide - 1 ? i + 1 : i;
    let [dot, square, dx, dy, own] = [0, 0, 0, 0, 0];
    for (let c = 0; c < smooth.length; c++) {
      const plane = smooth[c];
      const step = high[c][k] - low[c][k];
      const rise = plane[i] - low[c][k];
      dot += step * rise;
      square += step * step;
      own += rise * rise;
      dx += step * (plane[right] - plane[left]);
      dy += step * (plane[i + down] - plane[i - up]);
    }
    const share = dot / square;
    // What lies off the line between both colours belongs to a third one: the more of it, the less is moved.
    const off = Math.max(0, own / square - share * share);
    const slope = Math.hypot(dx, dy) / (2 * square);
    const steep = Math.max(0, Math.min(1, 0.5 + (share - 0.5) / Math.max(slope, LEAST_SLOPE / times)));
    const move = (steep - share) * w * Math.exp(-off / OFF_LINE);
    for (let c = 0; c < smooth.length; c++) out[c][i] += move * (high[c][k] - low[c][k]);
  }
}

/** Slopes below this, in shares an old pixel, lie beside the edge and not on it. */
const LEAST_SLOPE = 0.2;
/** Squared distance from the line, in shares of the step, at which a third of the move is left. */
const OFF_LINE = 0.02;
