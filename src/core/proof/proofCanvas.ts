import { inverseOf, placed, type Affine } from '../geometry/affine.ts';
import type { Rgb } from '../colour/oklab.ts';
import { coverageOf } from '../outline/coverage.ts';
import { CurvesBuilder, ringCount, type Curves } from '../outline/curves.ts';
import { makeRgba8, type Rgba8 } from '../raster/raster.ts';

/** Light on what stands out beside a round body. */
const BESIDE = 0.86;

/** A picture that is painted on, straight alpha. */
export class ProofCanvas {
  readonly data: Uint8Array<ArrayBuffer>;

  constructor(readonly width: number, readonly height: number, ground?: Rgb) {
    this.data = new Uint8Array(4 * width * height);
    if (ground === undefined) return;
    for (let i = 0; i < this.data.length; i += 4) {
      this.data[i] = ground.r;
      this.data[i + 1] = ground.g;
      this.data[i + 2] = ground.b;
      this.data[i + 3] = 255;
    }
  }

  picture = (): Rgba8 => makeRgba8(this.width, this.height, this.data);

  /** Fills outlines in px, pieces that overlap each other as one. @param within no further than these. */
  fill(curves: Curves, { r, g, b }: Rgb, alpha: number, within?: Curves): void {
    const coverage = coverOver(curves, this.width, this.height);
    const most = within === undefined ? undefined : coverOver(within, this.width, this.height);
    for (let i = 0; i < coverage.length; i++) {
      const share = most === undefined ? coverage[i] : Math.min(coverage[i], most[i]);
      if (share > 0) this.mix(4 * i, r, g, b, (share / 255) * alpha);
    }
  }

  /** Makes what is painted within outlines lighter, above 0 to 1, or darker, below 0 to −1, pixel by pixel. */
  shine(curves: Curves, at: (x: number, y: number) => number): void {
    const coverage = coverOver(curves, this.width, this.height);
    for (let i = 0; i < coverage.length; i++) {
      if (coverage[i] === 0) continue;
      const by = (at((i % this.width) + 0.5, Math.floor(i / this.width) + 0.5) * coverage[i]) / 255;
      for (let k = 4 * i; k < 4 * i + 3; k++) this.data[k] = Math.round(this.data[k] + by * (by > 0 ? 255 - this.data[k] : this.data[k]));
    }
  }

  /** Lays another picture on this one, nothing beyond its edges. */
  lay(other: ProofCanvas, left: number, top: number): void {
    const [dx, dy] = [Math.round(left), Math.round(top)];
    for (let y = Math.max(0, -dy); y < Math.min(other.height, this.height - dy); y++) {
      for (let x = Math.max(0, -dx); x < Math.min(other.width, this.width - dx); x++) {
        const from = 4 * (y * other.width + x);
        if (other.data[from + 3] > 0) this.mix(4 * ((y + dy) * this.width + x + dx), other.data[from], other.data[from + 1], other.data[from + 2], other.data[from + 3] / 255);
      }
    }
  }

  /** Lays another picture, `finer` times as fine, around a cylinder or a cone that is seen from the front, and shades the body by how it is turned from the light. */
  wrap(other: ProofCanvas, wrapping: Wrapping, body: Uint8Array): void {
    const { y: top, finer } = wrapping;
    let [radius, row] = [NaN, [] as WrapColumn[]];
    for (let y = 0; y < this.height; y++) {
      const here = wrapping.radiusPx(y + 0.5);
      // Of a cylinder all rows are alike.
      if (here !== radius) [radius, row] = [here, wrapRow(this.width, other.width, here, wrapping)];
      for (let x = 0; x < this.width; x++) {
        const share = body[y * this.width + x] / 255;
        if (share === 0) continue;
        const { from, to, shade, glint } = row[x];
        const at = 4 * (y * this.width + x);
        if (to > from) {
          const { r, g, b, a } = meanIn(other, from, Math.floor((y - top) * finer), to - from, finer);
          if (a > 0) this.mix(at, r, g, b, a / 255);
        }
        for (let k = 0; k < 3; k++) {
          const lit = this.data[at + k] * shade;
          this.data[at + k] = Math.round(this.data[at + k] * (1 - share) + (lit + (255 - lit) * glint) * share);
        }
      }
    }
  }

  /** Prints a picture with see-through inks on what lies below. @param toHere from its px to those of this one. @param white how much white lies there below the ink, 0 to 255 for each pixel. */
  print(picture: Rgba8, toHere: Affine, below: Rgb, white?: Uint8Array): void {
    const back = inverseOf(toHere);
    const corners = [[0, 0], [picture.width, 0], [0, picture.height], [picture.width, picture.height]].map(([x, y]) => placed(toHere, x, y));
    const reach = (of: (corner: { x: number; y: number }) => number): readonly [number, number] => [Math.floor(Math.min(...corners.map(of))), Math.ceil(Math.max(...corners.map(of)))];
    const [[left, right], [top, bottom]] = [reach(({ x }) => x), reach(({ y }) => y)];
    const size = Math.sqrt(Math.abs(back.a * back.d - back.b * back.c));
    for (let y = Math.max(0, top); y < Math.min(this.height, bottom); y++) {
      for (let x = Math.max(0, left); x < Math.min(this.width, right); x++) {
        const at = placed(back, x + 0.5, y + 0.5);
        if (at.x < 0 || at.y < 0 || at.x >= picture.width || at.y >= picture.height) continue;
        const mean = meanOf(picture, at.x - size / 2, at.y - size / 2, size);
        if (mean.a <= 0) continue;
        const to = 4 * (y * this.width + x);
        const share = (white?.[y * this.width + x] ?? 0) / 255;
        const on = (under: number): number => 255 * share + under * (1 - share);
        this.mix(to, (mean.r * on(below.r)) / 255, (mean.g * on(below.g)) / 255, (mean.b * on(below.b)) / 255, mean.a / 255);
      }
    }
  }

  private mix(at: number, r: number, g: number, b: number, alpha: number): void {
    const { data } = this;
    const below = data[at + 3] / 255;
    const out = alpha + below * (1 - alpha);
    if (out <= 0) return;
    const share = alpha / out;
    data[at] = Math.round(data[at] + (r - data[at]) * share);
    data[at + 1] = Math.round(data[at + 1] + (g - data[at + 1]) * share);
    data[at + 2] = Math.round(data[at + 2] + (b - data[at + 2]) * share);
    data[at + 3] = Math.round(255 * out);
  }
}

/** How a picture goes around what is round. */
interface Wrapping {
  /** Its upper left, px. */
  readonly x: number;
  readonly y: number;
  /** Radius at a height, px. */
  readonly radiusPx: (y: number) => number;
  /** Radius of the level line along which its lengths are true, px. */
  readonly onArt: number;
  readonly turnRad: number;
  readonly finer: number;
}

/** What is seen in a column of a row: columns of the picture that goes around, none beside it, and how the light falls. */
interface WrapColumn {
  readonly from: number;
  readonly to: number;
  readonly shade: number;
  readonly glint: number;
}

function wrapRow(width: number, artWidth: number, radiusPx: number, { x: left, onArt, turnRad, finer }: Wrapping): WrapColumn[] {
  const middle = left + artWidth / (2 * finer);
  const around = (x: number): number => Math.asin(Math.max(-1, Math.min(1, (x - middle) / radiusPx)));
  const column = (at: number): number => (around(at) + turnRad) * onArt * finer + artWidth / 2;
  return Array.from({ length: width }, (_, x): WrapColumn => {
    if (x + 0.5 < middle - radiusPx || x + 0.5 > middle + radiusPx) return { from: 0, to: 0, shade: BESIDE, glint: 0 };
    const angle = around(x + 0.5);
    const from = Math.floor(column(x));
    return { from, to: Math.max(from + 1, Math.ceil(column(x + 1))), shade: 0.68 + 0.32 * Math.max(0, Math.cos(angle + 0.35)), glint: Math.max(0, 1 - Math.abs(angle + 0.75) / 0.09) * 0.35 };
  });
}

/** The mean of the pixels in a square, weighed by their alpha. */
function meanOf(picture: Rgba8, left: number, top: number, size: number): Rgb & { a: number } {
  const [x, y] = [Math.max(0, Math.floor(left)), Math.max(0, Math.floor(top))];
  return meanIn(picture, x, y, Math.max(1, Math.floor(left + size) - x), Math.max(1, Math.floor(top + size) - y));
}

/** The mean of whole pixels from a place on; what lies beyond the picture is clear. */
function meanIn({ width, height, data }: Pick<Rgba8, 'width' | 'height' | 'data'>, left: number, top: number, across: number, down: number): Rgb & { a: number } {
  let [r, g, b, a] = [0, 0, 0, 0];
  for (let y = Math.max(0, top); y < Math.min(height, top + down); y++) {
    for (let x = Math.max(0, left); x < Math.min(width, left + across); x++) {
      const at = 4 * (y * width + x);
      const alpha = data[at + 3];
      r += data[at] * alpha;
      g += data[at + 1] * alpha;
      b += data[at + 2] * alpha;
      a += alpha;
    }
  }
  return a === 0 ? { r: 0, g: 0, b: 0, a: 0 } : { r: r / a, g: g / a, b: b / a, a: a / (across * down) };
}

/** Coverage of pieces that may overlap: each outermost ring with what lies in it by itself, the most of them. */
export function coverOver(curves: Curves, width: number, height: number): Uint8Array {
  const { parent } = curves;
  const first = coverageOf(curves, width, height);
  const tops = Array.from(parent.keys()).filter((ring) => parent[ring] < 0);
  // Most outlines do not overlap; those that do are few and large.
  if (tops.length < 2 || tops.length > MOST_APART) return first;
  const out = first;
  for (const top of tops) {
    const builder = new CurvesBuilder();
    for (let ring = 0; ring < ringCount(curves); ring++) if (topOf(parent, ring) === top) builder.copy(curves, ring, -1);
    const own = coverageOf(builder.build(), width, height);
    for (let i = 0; i < own.length; i++) if (own[i] > out[i]) out[i] = own[i];
  }
  return out;
}

const MOST_APART = 4;

function topOf(parent: Int32Array, ring: number): number {
  let at = ring;
  while (parent[at] >= 0) at = parent[at];
  return at;
}
