import { describe, expect, it } from 'vitest';
import { withoutSpurs } from './withoutSpurs.ts';

/** A thinned drawing as text, `#` for its pixels, in ink that reaches `halfWidth` px to each side of them. */
const pruned = (rows: readonly string[], halfWidth: number): string[] => {
  const width = rows[0].length;
  const skeleton = Uint8Array.from(rows.join(''), (sign) => (sign === '#' ? 1 : 0));
  const out = withoutSpurs(skeleton, new Float32Array(skeleton.length).fill(halfWidth), width, rows.length);
  return rows.map((_, y) => [...out.subarray(y * width, (y + 1) * width)].map((cell) => (cell === 1 ? '#' : '.')).join(''));
};

describe('withoutSpurs', () => {
  it('leaves the longest twig of a frayed end, and takes those off the side of a line', () => {
    const frayed = [
      '...................',
      '..............##...',
      '.............#.....',
      '.############......',
      '.............#.....',
      '..............###..',
      '...................',
    ];
    expect(pruned(frayed, 3)).toEqual([
      '...................',
      '...................',
      '...................',
      '.############......',
      '.............#.....',
      '..............###..',
      '...................',
    ]);
    const ragged = ['...................', '........#..........', '........#..........', '.#################.', '...................'];
    expect(pruned(ragged, 3)).toEqual(['...................', '...................', '...................', '.#################.', '...................']);
  });

  it('leaves branches as long as lines, and what has no fork', () => {
    const branch = [
      '...................',
      '........#..........',
      '........#..........',
      '........#..........',
      '........#..........',
      '........#..........',
      '.#################.',
      '...................',
    ];
    expect(pruned(branch, 1.5)).toEqual(branch);
    const stroke = ['.........', '.#######.', '.........'];
    expect(pruned(stroke, 3)).toEqual(stroke);
  });
});
