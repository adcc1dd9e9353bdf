import { describe, expect, it } from 'vitest';
import type { Finding } from '../../core/check/cutCheck.ts';
import { findingLines } from './findingGroups.ts';
import { findingWords } from './findingWords.ts';

const pieces = (count: number, kind: Finding['kind'] = 'smallPiece'): Finding[] => Array.from({ length: count }, (_, k) => ({ kind, xMm: k, yMm: 0, size: 0.2 + k / 1000 }));

describe('places to look at', () => {
  it('stand one by one up to thirty of a kind, and in one line with their number beyond', () => {
    expect(findingLines(pieces(30), 'mm')).toHaveLength(30);
    const lines = findingLines([...pieces(569), ...pieces(2, 'thin')], 'mm');
    expect(lines.map(({ places }) => places.length)).toEqual([569, 1, 1]);
    expect(lines[0].words).toBe('569 pieces of up to 0.77 mm²: may lift with the knife');
    // What takes the worst takes all of them.
    expect(lines[0].worst.size).toBeCloseTo(0.768);
    expect(lines.flatMap(({ places }) => places).sort((a, b) => a - b)).toEqual(Array.from({ length: 571 }, (_, k) => k));
  });

  it('are called specks where nobody could pick them up', () => {
    expect(findingWords({ kind: 'smallPiece', xMm: 0, yMm: 0, size: 0.04 })).toBe('A speck: may lift with the knife');
    expect(findingWords({ kind: 'smallHole', xMm: 0, yMm: 0, size: 0.1 })).toBe('Hole of 0.1 mm²: hard to weed');
  });
});
