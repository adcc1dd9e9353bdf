import { describe, expect, it } from 'vitest';
import { effectScope, ref } from 'vue';
import { sealPlan } from '../../core/print/sealPlan.ts';
import { usePlay } from './usePlay.ts';
import { stepName, waitWords } from './useSealTimer.ts';
import { timeWords } from './useSheetPlan.ts';

describe('times in words', () => {
  it('are seconds, minutes or hours, whichever reads best', () => {
    expect([0.2, 12.4, 59, 61, 3540, 3700, 7300].map(timeWords)).toEqual(['1 s', '12 s', '59 s', '1 min', '59 min', '1 h 2 min', '2 h 2 min']);
    expect([0, 0.5, 9.95, 20, 60, 725].map(waitWords)).toEqual(['0 min', '0:30 min', '9:57 min', '20 min', '1 h 00 min', '12 h 05 min']);
    expect(sealPlan({ ink: 'inkJet', dryMin: 5, coats: 2, coatMin: 10, finalH: 1 }).map(stepName)).toEqual(['dry the print', 'coat 1, and wait', 'coat 2, and wait', 'dry for good']);
  });
});

describe('a play', () => {
  it('stands at its end until it is moved, and never takes longer than one likes to look', () => {
    const scope = effectScope();
    const play = scope.run(() => usePlay(ref(140)));
    expect([play?.at.value, play?.isPlaying.value]).toEqual([140, false]);
    // Ten times as fast as it is done.
    expect(play?.times.value).toBeCloseTo(10, 6);
    play?.show(35);
    expect(play?.at.value).toBe(35);
    play?.show(999);
    expect(play?.at.value).toBe(140);
    scope.stop();
  });
});
