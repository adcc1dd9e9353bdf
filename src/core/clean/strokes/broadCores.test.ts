import { describe, expect, it } from 'vitest';
import { broadCores } from './broadCores.ts';

/** The cores that stay, as text: letters are tones with a core, `.` is none. */
function broad(rows: readonly string[]): string[] {
  const text = rows.join('');
  const labels = Uint8Array.from([...text].map((c) => c.charCodeAt(0)));
  const core = Uint8Array.from([...text].map((c) => Number(c !== '.')));
  const kept = broadCores(labels, core, rows[0].length, rows.length);
  return rows.map((row, y) => [...row].map((c, x) => (kept[y * row.length + x] === 0 ? '.' : c)).join(''));
}

describe('the insides of areas', () => {
  it('stay where they are several pixels, whatever their shape, and go where they are fewer', () => {
    expect(broad(['aaaa..b', '......b', '.cc...b', '.c..d.b', '......b'])).toEqual(['aaaa..b', '......b', '......b', '......b', '......b']);
  });

  it('count by their own tone alone, and not over corners', () => {
    expect(broad(['aabb', 'aabb', '..cc', 'c...'])).toEqual(['aabb', 'aabb', '....', '....']);
    expect(broad(['aaabb', '.....', '.a...', '..a..', '...aa'])).toEqual(['.....', '.....', '.....', '.....', '.....']);
  });

  it('are kept when their upper left is no place of theirs, as in a hook', () => {
    expect(broad(['...a', '...a', '.aaa', '....'])).toEqual(['...a', '...a', '.aaa', '....']);
  });
});
