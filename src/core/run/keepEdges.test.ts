import { describe, expect, it } from 'vitest';
import { disc, pictureFromShare } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { artFromPicture, type Art } from '../raster/art.ts';
import { finish } from '../task/task.ts';
import { STEP_KINDS, type Step } from '../clean/recipe.ts';
import type { StepContext, StepKind } from '../clean/steps/step.ts';
import { drawnLarger } from './drawnLarger.ts';

const SIZE = 120;
const [X, Y, RADIUS] = [60.3, 58.6, 33.4];
const NAVY: Rgb = { r: 36, g: 80, b: 154 };
const PAPER: Rgb = { r: 250, g: 248, b: 244 };

const STEPS: readonly Partial<Step>[] = [
  { kind: 'fewerColours', tones: 2 },
  { kind: 'areaLift', at: { xPx: 2, yPx: 2 }, tolerance: 'auto', enclosed: true, soft: true },
  { kind: 'areaLift', at: { xPx: 2, yPx: 2 }, tolerance: 2, enclosed: false, soft: true },
  { kind: 'colourLift', colour: '#faf8f4', tolerance: 6, soft: true },
  { kind: 'sweep', speckMm2: 1, pinholeMm2: 1 },
  { kind: 'smoothing', strength: 30 },
  { kind: 'edgeTidying', amountPx: 1 },
  { kind: 'lightLevelling', strength: 1 },
];

/** Pixels that are ink in all: of what is not clear, what its colour says. */
function inkPx2({ colour: { data }, alpha }: Art): number {
  const value = (i: number): number => data[4 * i + 1];
  const [ink, paper] = [value(Math.floor(Y) * SIZE + Math.floor(X)), Math.max(value(0), value(SIZE - 1))];
  let sum = 0;
  for (let i = 0; i < alpha.length; i++) sum += (Math.max(0, Math.min(1, (paper - value(i)) / (paper - ink))) * alpha[i]) / 255;
  return sum;
}

const contextOf = (picture: Art): StepContext => ({ picture, finished: { by: 'width', sizeMm: 100, turnDeg: 0 }, enlarge: drawnLarger });

describe('clean-up steps', () => {
  it.each(STEPS)('leave an edge where it is inside of its pixels: %o', (settings) => {
    const art = artFromPicture(pictureFromShare(disc(SIZE, SIZE, X, Y, RADIUS), NAVY, PAPER));
    const step = { id: 's', enabled: true, v: 1, ...settings } as Step;
    const { art: after } = finish((STEP_KINDS[step.kind] as StepKind<Step>).run(art, step, contextOf(art)));
    // What the whole edge may be off by, px: the area that came or went over the length of the edge.
    expect(Math.abs(inkPx2(after) - Math.PI * RADIUS ** 2) / (2 * Math.PI * RADIUS)).toBeLessThan(0.04);
  });

  it.each([1, 2])('lift the ground around white art behind a thin line of %i px, and none of that art', (widthPx) => {
    const half = widthPx / 2;
    const data = new Uint8Array(SIZE * SIZE * 4).fill(255);
    for (let y = 0; y < SIZE; y++) {
      for (let x = 0; x < SIZE; x++) {
        const off = Math.abs(Math.hypot(x + 0.5 - X, y + 0.5 - Y) - RADIUS);
        const ink = Math.max(0, Math.min(1, half + 0.5 - off));
        data.fill(Math.round(255 - 70 * ink), 4 * (y * SIZE + x), 4 * (y * SIZE + x) + 3);
      }
    }
    const art = artFromPicture({ kind: 'rgba8', width: SIZE, height: SIZE, data, opaque: true });
    const step = { id: 's', enabled: true, v: 1, kind: 'areaLift', at: { xPx: 2, yPx: 2 }, tolerance: 3, enclosed: false, soft: true } as Step;
    const { art: after } = finish((STEP_KINDS.areaLift as StepKind<Step>).run(art, step, contextOf(art)));
    let lost = 0;
    for (let y = 0; y < SIZE; y++)
      for (let x = 0; x < SIZE; x++) if (Math.hypot(x + 0.5 - X, y + 0.5 - Y) < RADIUS - half - 0.7 && after.alpha[y * SIZE + x] !== 255) lost++;
    expect([lost, after.alpha[0]]).toEqual([0, 0]);
  });
});
