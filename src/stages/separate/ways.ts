import type { Separation } from '../../core/job/job.ts';

export type Way = Separation['way'];

/** What the ways of separating are called. */
export const WAYS: Readonly<Record<Way, string>> = { oneTone: 'one colour', flat: 'flat colours', tones: 'tones of a photo' };

export const MEETS = { stacked: 'stacked', inset: 'inset' } as const;

/** How each way starts. */
export const FRESH: { readonly [W in Way]: Extract<Separation, { way: W }> } = {
  oneTone: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
  flat: { way: 'flat', count: 'auto', meet: 'stacked' },
  tones: { way: 'tones', count: 3, meet: 'stacked' },
};
