import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { areaOf } from '../../../tests/fixtures/areaOf.ts';
import { rotation, translation } from '../geometry/affine.ts';
import { crowdedNodes, CROWDED_MM } from '../outline/crowdedNodes.ts';
import { boundsOf, nodeCount, type Curves } from '../outline/curves.ts';
import { jaggedPlaces } from '../outline/jaggedPlaces.ts';
import { nestRings } from '../outline/nestRings.ts';
import { curvesFromPathData } from '../outline/pathData.ts';
import { joinCurves, transformCurves } from '../outline/transformCurves.ts';
import { smoothRuns } from './smoothRuns.ts';

/** A block of 40 × 20 mm whose upper edge is a saw. */
const saw = (depthMm: number, pitchMm = 0.4): Curves => {
  const count = Math.floor(30 / pitchMm / 2) * 2;
  const teeth = Array.from({ length: count + 1 }, (_, k) => `L${5 + (k * 30) / count} ${k % 2 === 0 ? 0 : depthMm}`).join('');
  return nestRings(curvesFromPathData(`M0 20L0 0${teeth}L40 0L40 20Z`));
};
/** A round drawn by many short lines. */
const round = (radiusMm: number, sides: number): Curves => {
  const points = Array.from({ length: sides }, (_, k) => [radiusMm * Math.cos((2 * Math.PI * k) / sides), radiusMm * Math.sin((2 * Math.PI * k) / sides)]);
  return nestRings(curvesFromPathData(`${points.map(([x, y], k) => `${k === 0 ? 'M' : 'L'}${x} ${y}`).join('')}Z`));
};

const SETTINGS = { teethMm: 0.8, closeMm: CROWDED_MM };

describe('crowded nodes', () => {
  it('are stretches of nodes that no tool can follow, told once each', () => {
    const [place, ...rest] = crowdedNodes(round(5, 1600));
    expect(rest).toEqual([]);
    expect(place.nodes).toBeGreaterThanOrEqual(1599);
    expect(Math.hypot(place.xMm, place.yMm)).toBeCloseTo(5, 6);
    // The same many nodes at ten times the size are no trouble.
    expect(crowdedNodes(round(50, 1600))).toEqual([]);
  });

  it('are not the few short sides of a rounded corner', () => {
    const arc = Array.from({ length: 7 }, (_, k) => `L${20 + 0.2 * Math.sin((k * Math.PI) / 12)} ${0.2 - 0.2 * Math.cos((k * Math.PI) / 12)}`).join('');
    expect(crowdedNodes(nestRings(curvesFromPathData(`M0 0${arc}L20.2 20L0 20Z`)))).toEqual([]);
  });
});

describe('smoothing stretches', () => {
  it('draws teeth as the line through their middle, at any turn, and leaves all other nodes', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 0.35, noNaN: true }), fc.double({ min: 0, max: 6.2, noNaN: true }), (depthMm, turn) => {
        const curves = transformCurves(saw(depthMm), rotation(turn, 20, 10));
        expect(jaggedPlaces(curves, 0.8)).toHaveLength(1);
        const smooth = smoothRuns(curves, SETTINGS);
        expect(jaggedPlaces(smooth, 0.8)).toEqual([]);
        expect(nodeCount(smooth)).toBeLessThan(16);
        // The new edge lies within a quarter of the depth of the middle of the teeth, which are 30 mm; a tooth at each end may be another.
        expect(Math.abs(areaOf(smooth) - areaOf(curves))).toBeLessThan((30 * depthMm) / 4 + depthMm * 0.4);
        const [before, after] = [boundsOf(curves), boundsOf(smooth)];
        for (const side of ['left', 'top', 'right', 'bottom'] as const) expect(after?.[side]).toBeCloseTo(before?.[side] as number, 0);
      }),
      { seed: 11, numRuns: 30 },
    );
  });

  it('draws crowded nodes as the curve that they follow', () => {
    const curves = round(5, 1600);
    const smooth = smoothRuns(curves, SETTINGS);
    expect(crowdedNodes(smooth)).toEqual([]);
    expect(nodeCount(smooth)).toBeLessThan(24);
    // Within 0.02 mm all around.
    expect(Math.abs(areaOf(smooth) - areaOf(curves))).toBeLessThan(10 * Math.PI * 0.02);
  });

  it('changes one of two places when only that is meant', () => {
    const two = joinCurves([saw(0.3), transformCurves(saw(0.3), translation(0, 40))]);
    const [, second] = jaggedPlaces(two, 0.8);
    const smooth = smoothRuns(two, { ...SETTINGS, isMeant: (x, y) => Math.hypot(x - second.xMm, y - second.yMm) < 0.5 });
    expect(jaggedPlaces(smooth, 0.8).map(({ yMm }) => Math.round(yMm / 10))).toEqual([0]);
  });

  it('leaves what has neither as it is', () => {
    const curves = saw(3, 4);
    expect(smoothRuns(curves, SETTINGS)).toBe(curves);
  });
});
