import { ElMessageBox } from 'element-plus';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Meet, Separation } from '../../core/separate/separation.ts';
import { say } from '../../core/words/say.ts';

export type Way = Separation['way'];

/** What the ways of separating are called. */
export const WAYS: Readonly<Record<Way, string>> = { oneTone: say('one colour'), flat: say('flat colours'), tones: say('tones of a photo'), backDetail: say('back and detail') };

export const MEETS: Readonly<Record<Meet, string>> = { stacked: say('stacked'), inset: say('inset'), middle: say('to the middle') };

/** How each way starts. */
export const FRESH: { readonly [W in Way]: Extract<Separation, { way: W }> } = {
  oneTone: { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' },
  flat: { way: 'flat', count: 'auto', meet: 'stacked' },
  tones: { way: 'tones', count: 3, meet: 'stacked' },
  backDetail: { way: 'backDetail', fineness: 60, threshold: 'auto', back: 'open' },
};

/** Whether outlines that are held by hand may go: asks when there are any. Undo brings them back. */
export async function mayLetGo(part: TracedPart): Promise<boolean> {
  const count = part.outline.held?.length ?? 0;
  if (count === 0) return true;
  const words = count === 1 ? say('One outline is held by hand and belongs to a film that will be another one.') : say`${count} outlines are held by hand and belong to films that will be others.`;
  return await ElMessageBox.confirm(say`${words} Let go of ${count === 1 ? say('it') : say('them')}? Undo brings ${count === 1 ? say('it') : say('them')} back.`, say('Held by hand'), { confirmButtonText: say('Let go'), cancelButtonText: say('Leave as it is'), type: 'warning' }).then(
    () => true,
    () => false,
  );
}
