import { describe, expect, it } from 'vitest';
import { growStroke } from './growStroke.ts';

const WIDTH = 16;

/** The labels after growing, as rows of text: `#` for the tone. @param rows cover in tenths, `.` for none, `*` for an area of the tone outside of the stroke. */
function grown(rows: readonly string[]): string[] {
  const text = rows.map((row) => row.padEnd(WIDTH, '.')).join('');
  const cover = Uint8Array.from([...text].map((c) => (/\d/.test(c) ? Math.round(25.5 * Number(c)) : 0)));
  const labels = Uint8Array.from([...text].map((c, i) => (c === '*' || cover[i] >= 128 ? 1 : 0)));
  growStroke([...cover.keys()].filter((i) => cover[i] > 0), cover, labels, { tone: 1, ground: 0, width: WIDTH, least: 50 });
  const drawn = [...labels].map((label) => (label === 1 ? '#' : '.')).join('');
  return rows.map((row, y) => drawn.slice(y * WIDTH, y * WIDTH + row.length));
}

describe('growing a stroke along its crest', () => {
  it('goes on where it is faint, round a bend and to its end', () => {
    expect(
      grown([
        '..............',
        '..............',
        '..894334322...',
        '..1111111133..',
        '...........3..',
        '...........4..',
        '..............',
        '..............',
      ]),
    ).toEqual([
      '..............',
      '..............',
      '..#########...',
      '..........##..',
      '...........#..',
      '...........#..',
      '..............',
      '..............',
    ]);
  });

  it('stays away from the rim of a broad shape, and from what is too faint', () => {
    const rim = ['............', '............', ...Array.from({ length: 8 }, () => '..999333....'), '............', '............'];
    expect(grown(rim).slice(4, 8)).toEqual(Array.from({ length: 4 }, () => '..###.......'));
    expect(grown(['............', '............', '..9911111...', '............', '............'])[2]).toBe('..##........');
  });

  it('joins both rows of a stroke that runs between them, once', () => {
    const [, , upper, lower] = grown(['............', '............', '..984444489.', '..984444489.', '............', '............']);
    expect(upper).toBe('..#########.');
    expect(lower).toBe('..#########.');
  });

  it('joins a stroke to an area of its tone, and takes that area for full: along its edge nothing is a crest', () => {
    expect(grown(['............', '............', '....9.......', '....3.......', '..*****.....', '..*****.....', '............'])[3]).toBe('....#.......');
    expect(grown(['............', '............', '.9333333....', '*********...', '*********...', '............'])[2]).toBe('.#..........');
  });

  it('leaves a stroke that is nowhere half as it is', () => {
    expect(grown(['............', '............', '..44444444..', '............', '............']).join('')).not.toContain('#');
  });
});
