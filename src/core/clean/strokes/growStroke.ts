/** Next to a crest, or one further, there is less than this share of what it has. */
const VALLEY = 0.8;

interface Growth {
  readonly tone: number;
  /** The tone around the stroke: it takes no other's pixels. */
  readonly ground: number;
  /** Width of the picture, px. */
  readonly width: number;
  /** Cover, of 255, down to which it goes on. */
  readonly least: number;
}

/**
 * Lets a stroke go on from the pixels of its tone along its crest, where half of no pixel is covered because it runs between two rows of them, or is thinner
 * than half a pixel (hysteresis: J. Canny, "A computational approach to edge detection", IEEE PAMI 8(6), 1986, doi:10.1109/TPAMI.1986.4767851).
 * @param pixels those of the stroke. @param cover how much of each the tone covers, of 255; 0 for all others. @param labels the tone of every pixel; changed.
 */
export function growStroke(pixels: readonly number[], cover: Uint8Array, labels: Uint8Array, { tone, ground, width, least }: Growth): void {
  const crest = new Crest(cover, labels, tone, width);
  const grown = pixels.filter((i) => labels[i] === tone);
  const next: number[] = [];
  for (let head = 0; head < grown.length; head++) {
    for (let up = -width; up <= width; up += width) {
      for (let k = grown[head] + up - 1; k <= grown[head] + up + 1; k++) if (cover[k] >= least && labels[k] === ground && crest.isOn(k)) next.push(k);
    }
    // Only now, so that they are all measured beside the same neighbours.
    for (const k of next) labels[k] = tone;
    grown.push(...next);
    next.length = 0;
  }
}

class Crest {
  constructor(
    private readonly cover: Uint8Array,
    private readonly labels: Uint8Array,
    private readonly tone: number,
    private readonly width: number,
  ) {}

  /** Whether a pixel has more than those to both sides of it, in some direction. */
  isOn(i: number): boolean {
    const { width } = this;
    return this.isAcross(i, 1) || this.isAcross(i, width) || this.isAcross(i, width + 1) || this.isAcross(i, width - 1);
  }

  private isAcross(i: number, across: number): boolean {
    const own = this.cover[i];
    return own >= this.at(i - across) && own >= this.at(i + across) && this.falls(own, i, -across) && this.falls(own, i, across);
  }

  private falls(own: number, i: number, across: number): boolean {
    return Math.min(this.at(i + across), this.at(i + 2 * across)) <= VALLEY * own;
  }

  /** Areas of the tone beside the stroke are full of it. */
  private at(i: number): number {
    const { cover } = this;
    return cover[i] > 0 || this.labels[i] !== this.tone ? cover[i] : 255;
  }
}
