import { describe, expect, it } from 'vitest';
import { randomFrom } from '../../../../tests/fixtures/shapes.ts';
import { artFromPicture, withAlpha, type Art } from '../../raster/art.ts';
import { makeRgba8 } from '../../raster/raster.ts';
import { finish } from '../../task/task.ts';
import { closedForm } from './closedForm.ts';
import { liftSubject } from './liftSubject.ts';
import { softenRim } from './softRim.ts';

const SIZE = 200;
const MIDDLE = SIZE / 2;

/** A brown head on a ground that goes from one blue to another, with the share of it in each pixel. */
function composed(share: (x: number, y: number) => number, noise = 1): { art: Art; truth: Float32Array } {
  const data = new Uint8Array(SIZE * SIZE * 4).fill(255);
  const truth = new Float32Array(SIZE * SIZE);
  const random = randomFrom(6);
  for (let i = 0; i < truth.length; i++) {
    const [x, y] = [i % SIZE, Math.floor(i / SIZE)];
    let sum = 0;
    for (let k = 0; k < 16; k++) sum += share(x + ((k % 4) + 0.5) / 4, y + (Math.floor(k / 4) + 0.5) / 4);
    truth[i] = sum / 16;
    const front = [92 + 10 * Math.sin(x / 9), 58, 34];
    const back = [150 + (30 * x) / SIZE, 190, 225 - (25 * y) / SIZE];
    for (let c = 0; c < 3; c++)
      data[i * 4 + c] = Math.max(0, Math.min(255, Math.round(front[c] * truth[i] + back[c] * (1 - truth[i]) + noise * (random() - 0.5))));
  }
  return { art: artFromPicture(makeRgba8(SIZE, SIZE, data, true)), truth };
}

/** Mean alpha error where the truth is neither all nor nothing, or within a few px of that. */
function rimError(art: Art, truth: Float32Array): number {
  let sum = 0;
  let count = 0;
  for (let i = 0; i < truth.length; i++) {
    const radius = Math.hypot((i % SIZE) + 0.5 - MIDDLE, Math.floor(i / SIZE) + 0.5 - MIDDLE);
    if (radius < 40 || radius > 80) continue;
    sum += Math.abs(art.alpha[i] / 255 - truth[i]);
    count++;
  }
  return sum / count;
}

/** A disc with hair: strands that stand out by 16 px, half a px wide and so close that none has an edge of its own. */
const STRANDS = 180;
function hairy(x: number, y: number): number {
  const [dx, dy] = [x - MIDDLE, y - MIDDLE];
  const radius = Math.hypot(dx, dy);
  if (radius < 52) return 1;
  if (radius > 68) return 0;
  const turn = (Math.atan2(dy, dx) / (2 * Math.PI)) * STRANDS;
  return Math.abs(turn - Math.round(turn)) * ((2 * Math.PI * radius) / STRANDS) < 0.25 ? 1 : 0;
}

describe('a soft rim', () => {
  it('brings strands of hair out of the ground and takes the ground’s tint off them', () => {
    const { art, truth } = composed(hairy);
    const hard = finish(liftSubject(art)).art;
    const soft = finish(liftSubject(art, [], { rimPx: 20 })).art;
    expect(rimError(soft, truth)).toBeLessThan(0.6 * rimError(hard, truth));
    expect(rimError(soft, truth)).toBeLessThan(0.05);
    let [tint, strands] = [0, 0];
    for (let i = 0; i < truth.length; i++) {
      const radius = Math.hypot((i % SIZE) - MIDDLE, Math.floor(i / SIZE) - MIDDLE);
      if (radius < 55 || radius > 66 || truth[i] < 0.3 || soft.alpha[i] < 60) continue;
      tint += Math.abs(soft.colour.data[4 * i + 2] - 34);
      strands++;
    }
    expect(strands).toBeGreaterThan(200);
    expect(tint / strands).toBeLessThan(25);
  });

  it('follows a border that is out of focus, once it is known where about it runs', () => {
    const { art, truth } = composed((x, y) => Math.max(0, Math.min(1, (66 - Math.hypot(x - MIDDLE, y - MIDDLE)) / 12)));
    const hard = withAlpha(
      art,
      Uint8Array.from(truth, (v) => (v >= 0.5 ? 255 : 0)),
    );
    const ground = (i: number, out: Float64Array): void => out.set([150 + (30 * (i % SIZE)) / SIZE, 190, 225 - (25 * Math.floor(i / SIZE)) / SIZE]);
    const soft = finish(softenRim(hard, art, ground, 12));
    expect(rimError(soft, truth)).toBeLessThan(0.5 * rimError(hard, truth));
    expect(rimError(soft, truth)).toBeLessThan(0.02);
  });

  it('leaves a sharp border nearly as it is', () => {
    const { art, truth } = composed((x, y) => (Math.hypot(x - MIDDLE, y - MIDDLE) < 60 ? 1 : 0));
    expect(rimError(finish(liftSubject(art, [], { rimPx: 8 })).art, truth)).toBeLessThan(0.02);
  });
});

describe('closed-form matting', () => {
  it('is exact where alpha is a straight function of colour, and keeps what is known', () => {
    const { art, truth } = composed((x) => Math.max(0, Math.min(1, (x - 60) / 80)), 0);
    const start = Float32Array.from(truth, (_, i) => (i % SIZE < 50 ? 0 : i % SIZE > 150 ? 1 : 0.5));
    const unknown = Uint8Array.from(truth, (_, i) => (i % SIZE >= 50 && i % SIZE <= 150 && Math.floor(i / SIZE) > 60 && Math.floor(i / SIZE) < 90 ? 1 : 0));
    for (let i = 0; i < truth.length; i++) if (unknown[i] === 0) start[i] = truth[i];
    const { alpha } = finish(closedForm(art.colour, start, unknown));
    let worst = 0;
    for (let i = 0; i < truth.length; i++) {
      if (unknown[i] === 0) expect(alpha[i]).toBe(start[i]);
      else worst = Math.max(worst, Math.abs(alpha[i] - truth[i]));
    }
    expect(worst).toBeLessThan(0.06);
  });

  it('lives with nothing unknown', () => {
    const { art, truth } = composed(() => 1);
    expect(finish(closedForm(art.colour, truth, new Uint8Array(truth.length))).alpha).toEqual(truth);
  });
});
