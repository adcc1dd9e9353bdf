import { ElMessageBox } from 'element-plus';
import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Meet, Separation } from '../../core/separate/separation.ts';

export type Way = Separation['way'];

/** What the ways of separating are called. */
export const WAYS: Readonly<Record<Way, string>> = { oneTone: 'one colour', flat: 'flat colours', tones: 'tones of a photo', backDetail: 'back and detail' };

export const MEETS: Readonly<Record<Meet, string>> = { stacked: 'stacked', inset: 'inset', middle: 'to the middle' };

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
  const words = count === 1 ? 'One outline is held by hand and belongs to a film that will be another one.' : `${count} outlines are held by hand and belong to films that will be others.`;
  return await ElMessageBox.confirm(`${words} Let go of ${count === 1 ? 'it' : 'them'}? Undo brings ${count === 1 ? 'it' : 'them'} back.`, 'Held by hand', { confirmButtonText: 'Let go', cancelButtonText: 'Leave as it is', type: 'warning' }).then(
    () => true,
    () => false,
  );
}
