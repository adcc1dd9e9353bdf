import { describe, expect, it } from 'vitest';
import { effectScope, ref } from 'vue';
import { usePlay } from './usePlay.ts';

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
