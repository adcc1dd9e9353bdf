/** Fewer pixels than this are taken for noise where art carries any, unless they are a dot. */
const MOST_OF_DOT = 5;
/** A dot covers at least so much, px², and has somewhere so much more or less light than its ground, levels as edges weigh them: no noise has. */
const LEAST_DOT_PX2 = 1;
const LEAST_DOT = 90;

/** A stroke of a few pixels that is no noise: what stands on an i. */
export interface Dot {
  readonly pixels: readonly number[];
  readonly tone: number;
  readonly ground: number;
  /** How much it covers, px². */
  readonly areaPx2: number;
}

interface Drawn {
  readonly tone: number;
  readonly ground: number;
  /** How far the tone is from the ground, levels as edges weigh them. */
  readonly fullLevels: number;
  /** Width of the picture, px. */
  readonly width: number;
}

/** The dots among the pixels that have a stroke's tone. @param cover how much of each it covers, of 255. */
export function dotsAmong(pixels: readonly number[], cover: Uint8Array, { tone, ground, fullLevels, width }: Drawn): Dot[] {
  const least = (255 * LEAST_DOT) / fullLevels;
  const left = new Set(pixels);
  const dots: Dot[] = [];
  for (const start of pixels) {
    if (!left.delete(start)) continue;
    const bit = takeBit(left, start, width);
    const areaPx2 = bit.reduce((sum, i) => sum + cover[i] / 255, 0);
    if (bit.length < MOST_OF_DOT && areaPx2 >= LEAST_DOT_PX2 && bit.some((i) => cover[i] >= least)) dots.push({ pixels: bit, tone, ground, areaPx2 });
  }
  return dots;
}

/** Takes what hangs together with a pixel, also over corners, out of a set. */
function takeBit(left: Set<number>, start: number, width: number): number[] {
  const bit = [start];
  for (let head = 0; head < bit.length; head++) {
    for (let up = -width; up <= width; up += width) for (let k = bit[head] + up - 1; k <= bit[head] + up + 1; k++) if (left.delete(k)) bit.push(k);
  }
  return bit;
}

/**
 * Gives dots that went as noise their tone again, where there is their ground now. What touches anything but its ground is no dot but the blur of that, as the
 * tip of a shape has it.
 * @param labels the tone of every pixel; changed. @param width of the picture, px.
 */
export function bringBack(dots: readonly Dot[], labels: Uint8Array, width: number): void {
  for (const { pixels, tone, ground } of dots) {
    if (!standsAlone(pixels, [tone, ground], labels, width)) continue;
    for (const i of pixels) if (labels[i] === ground) labels[i] = tone;
  }
}

/** Whether nothing else than these two labels touches some pixels. */
function standsAlone(pixels: readonly number[], [tone, ground]: readonly [number, number], labels: Uint8Array, width: number): boolean {
  for (const pixel of pixels) {
    for (let up = pixel - width; up <= pixel + width; up += width) {
      for (let i = up - 1; i <= up + 1; i++) {
        const label = labels[i];
        if (label !== tone && label !== ground && label !== undefined) return false;
      }
    }
  }
  return true;
}
