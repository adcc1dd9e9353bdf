import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { artFromText, disc, pictureFromShare, BLACK, WHITE } from '../../../tests/fixtures/shapes.ts';
import { artFromPicture, pictureFromArt, withAlpha, type Art } from './art.ts';
import { turnArt, turnedPoint, turnedSize, unturnedPoint, type Turn } from './turn.ts';
import { finish } from '../task/task.ts';

const turns = fc.record({
  mirrored: fc.boolean(),
  quarters: fc.constantFrom(0, 1, 2, 3),
  angleDeg: fc.double({ min: -45, max: 45, noNaN: true }),
}) as fc.Arbitrary<Turn>;
const bytes = (art: Art): number[] => [...pictureFromArt(art).data];

describe('turnArt', () => {
  it('moves whole pixels for quarters and mirroring', () => {
    const art = artFromText(['#..', '...']);
    expect(bytes(finish(turnArt(art, { mirrored: false, quarters: 1, angleDeg: 0 })))).toEqual(bytes(artFromText(['.#', '..', '..'])));
    expect(bytes(finish(turnArt(art, { mirrored: true, quarters: 0, angleDeg: 0 })))).toEqual(bytes(artFromText(['..#', '...'])));
    expect(bytes(finish(turnArt(art, { mirrored: true, quarters: 2, angleDeg: 0 })))).toEqual(bytes(artFromText(['...', '#..'])));
  });

  it('gives the picture back after four quarters, and after mirroring twice', () => {
    const art = artFromPicture(pictureFromShare(disc(23, 14, 9, 6, 5), BLACK, WHITE));
    let turned = art;
    for (let k = 0; k < 4; k++) turned = finish(turnArt(turned, { mirrored: false, quarters: 1, angleDeg: 0 }));
    expect(bytes(turned)).toEqual(bytes(art));
    const mirror: Turn = { mirrored: true, quarters: 0, angleDeg: 0 };
    expect(bytes(finish(turnArt(finish(turnArt(art, mirror)), mirror)))).toEqual(bytes(art));
  });

  it('goes on beyond the border when it straightens a little or the border is plain, and clears what it uncovers otherwise', () => {
    const busy = artFromText(['#.#.#.', '.#.#.#', '#.#.#.', '.#.#.#']);
    const corners = (art: Art): number[] => [art.alpha[0], art.alpha[art.alpha.length - 1]];
    const turned = (art: Art, angleDeg: number): Art => finish(turnArt(art, { mirrored: false, quarters: 0, angleDeg }));
    expect(corners(turned(busy, 5))).toEqual([255, 255]);
    expect(corners(turned(busy, 20))).toEqual([0, 0]);
    expect(corners(turned(artFromText(['......', '..##..', '......']), 20))).toEqual([255, 255]);
    expect(
      corners(
        turned(
          withAlpha(
            busy,
            busy.alpha.map((_, i) => (i === 0 ? 0 : 255)),
          ),
          5,
        ),
      ),
    ).toEqual([0, 0]);
  });

  it('puts what it turns where turnedPoint says', () => {
    const art = artFromPicture(pictureFromShare(disc(80, 50, 20, 14, 6), BLACK, WHITE));
    const turn: Turn = { mirrored: true, quarters: 1, angleDeg: 17 };
    const turned = finish(turnArt(art, turn));
    const [x, y] = turnedPoint(turn, 80, 50, 20, 14);
    expect(turned.colour.data[(Math.floor(y) * turned.width + Math.floor(x)) * 4]).toBe(20);
    expect({ widthPx: turned.width, heightPx: turned.height }).toEqual(turnedSize(turn, 80, 50));
  });

  it('takes every point back to where it came from, inside the turned size', () => {
    fc.assert(
      fc.property(
        turns,
        fc.integer({ min: 1, max: 900 }),
        fc.integer({ min: 1, max: 900 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (turn, width, height, u, v) => {
          const [x, y] = turnedPoint(turn, width, height, u * width, v * height);
          const size = turnedSize(turn, width, height);
          expect(Math.min(x, y, size.widthPx - x, size.heightPx - y)).toBeGreaterThan(-0.6);
          const [bx, by] = unturnedPoint(turn, width, height, x, y);
          expect(Math.hypot(bx - u * width, by - v * height)).toBeLessThan(1e-6 * (width + height));
        },
      ),
      { seed: 61, numRuns: 200 },
    );
  });
});
