import { slotName, slotsOf, withSlotsFilled } from '../../core/edit/fillSlots.ts';
import type { Job } from '../../core/job/job.ts';
import type { NamesList } from './readNames.ts';

/** The design of one line of a list. */
export interface FilledJob {
  readonly job: Job;
  /** What fills its slots, for a list. */
  readonly label: string;
  /** The same as the end of a file's name, unlike that of every other line. */
  readonly suffix: string;
}

export interface FilledJobs {
  readonly jobs: readonly FilledJob[];
  /** Slots that no column is for: they stay as they are written. */
  readonly lacking: readonly string[];
  readonly slots: readonly string[];
}

/** A job for each line of a list. */
export function filledJobs(job: Job, { columns, rows }: NamesList): FilledJobs {
  const slots = slotsOf(job);
  const known = columns.map(slotName);
  const used = known.filter((column) => slots.includes(column));
  const labels = rows.map((row) => used.map((column) => row.get(column) ?? '').join(' ').trim());
  const plain = labels.map((label) => label.replaceAll(/[^\p{L}\p{N}]+/gu, '-').replace(/^-+|-+$/g, '').toLowerCase() || 'empty');
  const taken = new Set<string>();
  const jobs = rows.map((row, k): FilledJob => {
    let suffix = plain[k];
    for (let times = 2; taken.has(suffix); times++) suffix = `${plain[k]}-${times}`;
    taken.add(suffix);
    return { job: withSlotsFilled(job, row), label: labels[k] === '' ? 'empty' : labels[k], suffix };
  });
  return { jobs, slots, lacking: slots.filter((slot) => !known.includes(slot)) };
}
