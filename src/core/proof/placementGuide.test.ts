import { describe, expect, it } from 'vitest';
import type { RectMm } from '../geometry/rectMm.ts';
import { boundsOf, ringArea, type Bounds, type Curves } from '../outline/curves.ts';
import { placementGuide } from './placementGuide.ts';

const shirt = { form: 'shirt', belowCollarMm: 75, widthMm: 300 } as const;
const board = { form: 'board', widthMm: 400 } as const;
const film = (xMm: number, yMm: number, widthMm = 240, heightMm = 100): RectMm => ({ xMm, yMm, widthMm, heightMm });
const boxOf = (curves: Curves | undefined): Bounds => boundsOf(curves as Curves) as Bounds;
/** Upper or lower ends of notches: nodes that lie deepest within the card beside a level edge. */
const nodes = ({ coords }: Curves): [number, number][] => Array.from({ length: coords.length / 2 }, (_, k) => [coords[2 * k], coords[2 * k + 1]]);

describe('a placement guide', () => {
  it('of a shirt reaches from the collar to the film, notched where both have their middle', () => {
    const guide = placementGuide(shirt, film(40, 20));
    expect(guide?.at).toBe('collar');
    const { top, bottom, left, right } = boxOf(guide?.curves);
    expect([top, bottom, right - left]).toEqual([-75, 20, 170]);
    expect(nodes(guide?.curves as Curves)).toContainEqual([150, -71]);
    expect(nodes(guide?.curves as Curves)).toContainEqual([160, 16]);
    // Notches are taken out of it.
    expect(Math.abs(ringArea(guide?.curves as Curves, 0))).toBeCloseTo(170 * 95 - 2 * 16, 6);
  });

  it('of all else is an angle between the corner of the area and that of the film', () => {
    const guide = placementGuide(board, film(30, 24, 120, 60));
    expect(guide?.at).toBe('corner');
    const { left, top } = boxOf(guide?.curves);
    expect([left, top]).toEqual([0, 0]);
    expect(nodes(guide?.curves as Curves)).toContainEqual([30, 24]);
    // The film’s middles.
    expect(nodes(guide?.curves as Curves)).toContainEqual([90, 20]);
    expect(nodes(guide?.curves as Curves)).toContainEqual([26, 54]);
  });

  it('leaves out a leg that would be too narrow, and is none without any', () => {
    expect(boxOf(placementGuide(board, film(2, 24, 120, 60))?.curves)).toMatchObject({ left: 2, top: 0, bottom: 24 });
    expect(boxOf(placementGuide(board, film(30, 3, 120, 60))?.curves)).toMatchObject({ left: 0, top: 3, right: 30 });
    expect(placementGuide(board, film(2, 3))).toBeUndefined();
    expect(placementGuide(shirt, film(40, -72))).toBeUndefined();
    expect(placementGuide({ ...board, round: true }, film(60, 60, 40, 40))).toBeUndefined();
  });
});
