import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CLEAR, makeLabelMap, type LabelMap } from '../../raster/labelMap.ts';
import { crackArcs, DOWN, leftCell, LEFT, RIGHT, rightCell, UP, type CrackArcs } from './crackArcs.ts';
import { finish } from '../../task/task.ts';

const mapOf = (...rows: string[]): LabelMap =>
  makeLabelMap(
    rows[0].length,
    rows.length,
    Uint8Array.from(rows.join(''), (letter) => (letter === '.' ? CLEAR : Number(letter))),
  );
const arcsOf = (map: LabelMap): CrackArcs => finish(crackArcs(map, () => () => true));
const anyMap = fc
  .tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 }), fc.infiniteStream(fc.integer({ min: 0, max: 3 })))
  .map(([width, height, labels]) =>
    makeLabelMap(
      width,
      height,
      Uint8Array.from({ length: width * height }, () => labels.next().value as number),
    ),
  );

/** The vertex that a crack leads to. */
const ends = (crack: number, stride: number): number => (crack >> 2) + ({ [UP]: -stride, [RIGHT]: 1, [DOWN]: stride, [LEFT]: -1 }[crack & 3] as number);

describe('the cracks of a label map', () => {
  it('are each in one arc, with the labels of its sides all along', () => {
    fc.assert(
      fc.property(anyMap, (map) => {
        const { cells, stride, cracks, starts, count, left, right } = arcsOf(map);
        const seen = new Set<string>();
        for (let arc = 0; arc < count; arc++) {
          for (let c = starts[arc]; c < starts[arc + 1]; c++) {
            const [v, direction] = [cracks[c] >> 2, cracks[c] & 3];
            expect([cells[leftCell(v, direction, stride)], cells[rightCell(v, direction, stride)]]).toEqual([left[arc], right[arc]]);
            const key = [v, ends(cracks[c], stride)].sort((a, b) => a - b).join();
            expect(seen.has(key)).toBe(false);
            seen.add(key);
          }
        }
        let differing = 0;
        for (let i = 0; i < cells.length; i++) {
          if ((i + 1) % stride !== 0 && cells[i] !== cells[i + 1]) differing++;
          if (i + stride < cells.length && cells[i] !== cells[i + stride]) differing++;
        }
        expect(seen.size).toBe(differing);
      }),
      { seed: 17, numRuns: 80 },
    );
  });

  it('follow each other without a break, from node to node or back to where they began', () => {
    fc.assert(
      fc.property(anyMap, (map) => {
        const { stride, cracks, starts, count, from, to } = arcsOf(map);
        for (let arc = 0; arc < count; arc++) {
          for (let c = starts[arc]; c + 1 < starts[arc + 1]; c++) expect(ends(cracks[c], stride)).toBe(cracks[c + 1] >> 2);
          const [first, last] = [cracks[starts[arc]] >> 2, ends(cracks[starts[arc + 1] - 1], stride)];
          expect(from[arc] < 0 ? [last, -1] : [first, last]).toEqual(from[arc] < 0 ? [first, to[arc]] : [from[arc], to[arc]]);
        }
      }),
      { seed: 18, numRuns: 80 },
    );
  });

  it('close on themselves around an island, and meet in nodes where three labels do', () => {
    const island = arcsOf(mapOf('00000', '01100', '01100', '00000'));
    expect(Array.from(island.from).filter((node) => node < 0)).toHaveLength(1);
    const thirds = arcsOf(mapOf('0011', '0011', '2222', '2222'));
    // The node in the middle, two on the frame above and below it… and the corners of the picture.
    const nodes = new Set([...thirds.from, ...thirds.to]);
    expect([nodes.size, thirds.count]).toEqual([8, 10]);
  });

  it('join two cells over a corner where they are told to', () => {
    const chequer = mapOf('0000', '0100', '0010', '0000');
    const [joined, parted] = [true, false].map((northWest) => finish(crackArcs(chequer, () => () => northWest)));
    expect([joined.count, parted.count]).toEqual([5, 6]);
    const labelsJoined = ({ cells, joins }: CrackArcs): Set<number> => new Set(Array.from(joins, (cell) => cells[cell]));
    expect([labelsJoined(joined), labelsJoined(parted)]).toEqual([new Set([1]), new Set([0])]);
  });
});
