import { forEdges, writeForEdges } from '../colour/edgeMetric.ts';
import type { Rgb } from '../colour/oklab.ts';
import type { Rgba8 } from '../raster/raster.ts';
import { lowestOf } from './setsAround.ts';

/** A pair that explains a pixel within this is enough, levels in the edges' space. */
const CLOSE = 6;
/** So near to a mixture of the tones beside it a pixel is that one, whatever lies further away, levels in the edges' space. */
const LIKELY = 24;
/** A colour may lie so far from the mixture that explains it; further off it is something that went, and the pixel is its tone. */
const STRANGE = 40;

/** Finds the mixture of up to three tones that a pixel is nearest to. */
export class ToneMix {
  /** Squared distance of the pixel from the mixture found. */
  off2 = 0;
  /** Shares of the tones in it, by number of the tone; the numbers of those that have one. */
  private readonly shares = new Float64Array(32);
  private readonly found = new Int32Array(3);
  private count = 0;
  private readonly places: Float64Array;
  private readonly own = new Float64Array(3);
  private readonly data: Rgba8['data'];

  constructor(
    colour: Rgba8,
    private readonly tones: readonly Rgb[],
  ) {
    this.data = colour.data;
    this.places = forEdges(tones);
  }

  /** @param set the tones that may have a part, as bits; two at least. */
  find(i: number, set: number): void {
    const { data, own } = this;
    for (let k = 0; k < this.count; k++) this.shares[this.found[k]] = 0;
    writeForEdges(data[4 * i], data[4 * i + 1], data[4 * i + 2], own, 0);
    this.off2 = Infinity;
    for (let rest = set; rest !== 0; rest &= rest - 1) {
      const a = lowestOf(rest);
      for (let others = rest & (rest - 1); others !== 0; others &= others - 1) this.weighPair(a, lowestOf(others));
    }
    if (this.off2 <= CLOSE * CLOSE || (set & (set - 1) & ((set & (set - 1)) - 1)) === 0) return this.keep();
    for (let rest = set; rest !== 0; rest &= rest - 1) {
      for (let second = rest & (rest - 1); second !== 0; second &= second - 1) {
        for (let third = second & (second - 1); third !== 0; third &= third - 1) this.weighThree(lowestOf(rest), lowestOf(second), lowestOf(third));
      }
    }
    this.keep();
  }

  /**
   * Whether a pixel is a mixture: of the tones beside it, or else of those that are near.
   * @param beside those that the pixel and its neighbours have, as bits. @param near those further away too. @param withTone one that has to be
   * among them.
   */
  isOf(i: number, beside: number, near: number, withTone = -1): boolean {
    return this.isWithin(i, beside, withTone, LIKELY) || this.isWithin(i, near | beside, withTone, STRANGE);
  }

  private isWithin(i: number, set: number, withTone: number, most: number): boolean {
    if ((set & (set - 1)) === 0 || (withTone >= 0 && ((set >> withTone) & 1) === 0)) return false;
    this.find(i, set);
    return this.off2 <= most * most;
  }

  shareOf(tone: number): number {
    return this.shares[tone];
  }

  /** The tone besides one that has most of the mixture; that one itself when there is no other. */
  otherThan(tone: number): number {
    let most = 0;
    let other = tone;
    for (let k = 0; k < this.count; k++) {
      const found = this.found[k];
      if (found === tone || this.shares[found] <= most) continue;
      most = this.shares[found];
      other = found;
    }
    return other;
  }

  private readonly best = [0, 0, 0, 0, 0, 0];

  private keep(): void {
    this.count = 0;
    for (let k = 0; k < 3; k++) {
      const share = this.best[3 + k];
      if (share <= 0) continue;
      this.found[this.count++] = this.best[k];
      this.shares[this.best[k]] = share;
    }
  }

  private weighPair(a: number, b: number): void {
    const { places, own } = this;
    const [dx, dy, dz] = [places[3 * b] - places[3 * a], places[3 * b + 1] - places[3 * a + 1], places[3 * b + 2] - places[3 * a + 2]];
    const [x, y, z] = [own[0] - places[3 * a], own[1] - places[3 * a + 1], own[2] - places[3 * a + 2]];
    const length2 = dx * dx + dy * dy + dz * dz;
    const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, (x * dx + y * dy + z * dz) / length2));
    this.take((x - t * dx) ** 2 + (y - t * dy) ** 2 + (z - t * dz) ** 2, a, b, 0, 1 - t, t, 0);
  }

  /** Least squares inside of the triangle of three tones; on its sides the pairs have it. */
  private weighThree(a: number, b: number, c: number): void {
    const { places, own } = this;
    const [ux, uy, uz] = [places[3 * b] - places[3 * a], places[3 * b + 1] - places[3 * a + 1], places[3 * b + 2] - places[3 * a + 2]];
    const [vx, vy, vz] = [places[3 * c] - places[3 * a], places[3 * c + 1] - places[3 * a + 1], places[3 * c + 2] - places[3 * a + 2]];
    const [x, y, z] = [own[0] - places[3 * a], own[1] - places[3 * a + 1], own[2] - places[3 * a + 2]];
    const uu = ux * ux + uy * uy + uz * uz;
    const vv = vx * vx + vy * vy + vz * vz;
    const uv = ux * vx + uy * vy + uz * vz;
    const det = uu * vv - uv * uv;
    if (det < 1e-6 * uu * vv) return;
    const pu = x * ux + y * uy + z * uz;
    const pv = x * vx + y * vy + z * vz;
    const s = (pu * vv - pv * uv) / det;
    const t = (pv * uu - pu * uv) / det;
    if (s < 0 || t < 0 || s + t > 1) return;
    this.take((x - s * ux - t * vx) ** 2 + (y - s * uy - t * vy) ** 2 + (z - s * uz - t * vz) ** 2, a, b, c, 1 - s - t, s, t);
  }

  private take(off2: number, a: number, b: number, c: number, shareA: number, shareB: number, shareC: number): void {
    if (off2 >= this.off2) return;
    this.off2 = off2;
    const { best } = this;
    best[0] = a;
    best[1] = b;
    best[2] = c;
    best[3] = shareA;
    best[4] = shareB;
    best[5] = shareC;
  }

  /** Writes the colour of the mixture. */
  write(out: Uint8Array, i: number): void {
    this.writeWithout(out, i, -1);
  }

  /** Writes the colour of what is left of the mixture without one tone; something of others has to be in it. */
  writeWithout(out: Uint8Array, i: number, without: number): void {
    const { found, shares, tones, count } = this;
    const all = without < 0 ? 1 : 1 - shares[without];
    let [r, g, b] = [0.5, 0.5, 0.5];
    for (let k = 0; k < count; k++) {
      if (found[k] === without) continue;
      const tone = tones[found[k]];
      const share = shares[found[k]] / all;
      r += share * tone.r;
      g += share * tone.g;
      b += share * tone.b;
    }
    out[4 * i] = r;
    out[4 * i + 1] = g;
    out[4 * i + 2] = b;
  }
}
