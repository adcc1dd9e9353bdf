import { describe, expect, it } from 'vitest';
import { timeWords, waitWords } from './timeWords.ts';

describe('times in words', () => {
  it('are seconds, minutes or hours, whichever reads best', () => {
    expect([0.2, 12.4, 59, 61, 3540, 3700, 7300].map(timeWords)).toEqual(['1 s', '12 s', '59 s', '1 min', '59 min', '1 h 2 min', '2 h 2 min']);
    expect([0, 0.2, 0.5, 9.95, 20, 60, 725].map(waitWords)).toEqual(['0 min', '12 s', '30 s', '9:57 min', '20 min', '1 h 00 min', '12 h 05 min']);
  });
});
