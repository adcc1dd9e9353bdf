import type { TracedPart } from '../../core/job/tracedPart.ts';
import type { Separation } from '../../core/separate/separation.ts';
import { findTonesAnew, type FoundFilms, withWay as inWay } from '../../core/edit/paletteEdits.ts';
import { FRESH, MEETS, WAYS } from './ways.ts';
import { say } from '../../core/words/say.ts';

/** Another way to cut the same art. */
export interface Variant {
  readonly id: string;
  readonly name: string;
  readonly part: TracedPart;
}

/** Steps of the fineness slider, and factors of how closely edges are followed, that are worth a look beside the present one. */
const FINENESS_STEP = 30;
const LOOSER = 3;

/**
 * The variants that a part invites to be compared with: coarser and finer, one tone fewer and more, the other meeting, the other ways.
 * @param found what it has now.
 * @param tones how many those are, the background counted.
 */
export function variantsOf(part: TracedPart, found: FoundFilms, tones = 3): Variant[] {
  const { separation, outline } = part;
  const withWay = (next: Separation): TracedPart => ({ ...part, separation: next });
  const variants: Variant[] = [];
  const add = (id: string, name: string, next: TracedPart): void => void variants.push({ id, name, part: next });
  if (separation.way === 'backDetail') {
    const { fineness } = separation;
    if (fineness > 0) add('coarser', say('coarser detail'), withWay({ ...separation, fineness: Math.max(0, fineness - FINENESS_STEP) }));
    if (fineness < 100) add('finer', say('finer detail'), withWay({ ...separation, fineness: Math.min(100, fineness + FINENESS_STEP) }));
  }
  if (separation.way === 'flat') {
    const counted = (count: number): TracedPart => findTonesAnew(part, found, count);
    if (tones > 2) add('fewer', say('one tone fewer'), counted(tones - 1));
    if (tones < 32) add('more', say('one tone more'), counted(tones + 1));
  }
  if (separation.way === 'tones') {
    const { steps: _steps, ...rest } = separation;
    if (separation.count > 2) add('fewer', say('one tone fewer'), withWay({ ...rest, count: separation.count - 1 }));
    if (separation.count < 6) add('more', say('one tone more'), withWay({ ...rest, count: separation.count + 1 }));
  }
  if (separation.way === 'flat' || separation.way === 'tones') {
    const meet = separation.meet === 'stacked' ? 'inset' : 'stacked';
    add('meet', say`films ${MEETS[meet]}`, withWay({ ...separation, meet }));
  }
  add('looser', say('edges followed less closely'), { ...part, outline: { ...outline, followPx: Math.min(5, outline.followPx * LOOSER), smoothPx: (outline.smoothPx ?? 0) + 1 } });
  add('closer', say('edges followed more closely'), { ...part, outline: { ...outline, followPx: Math.max(0.05, outline.followPx / LOOSER) } });
  add('larger', say('small pieces left out'), { ...part, outline: { ...outline, leastPieceMm2: Math.min(1000, Math.max(5, outline.leastPieceMm2 * 10)) } });
  for (const way of ['oneTone', 'flat', 'tones', 'backDetail'] as const) if (way !== separation.way) add(way, WAYS[way], inWay(part, found, FRESH[way]));
  return variants;
}
