/** What the engine made of a job, kept so that the job opens with it: nothing that could not be made again. */
export interface KeptRow {
  /** The job it belongs to; one row a job. */
  readonly jobId: string;
  /** What it was made from: it holds for nothing else. */
  readonly key: string;
  /** About what it takes, bytes. */
  readonly bytes: number;
  readonly usedAt: number;
  readonly value: unknown;
}

/** Room for all kept results together, bytes. */
export const KEPT_RESULT_BYTES = 120_000_000;

/** The rows that must go so that the rest fits into `roomBytes`: those used longest ago. One that is too large alone goes too. */
export function rowsToDrop(rows: readonly Pick<KeptRow, 'jobId' | 'bytes' | 'usedAt'>[], roomBytes = KEPT_RESULT_BYTES): string[] {
  let left = roomBytes;
  const dropped: string[] = [];
  for (const { jobId, bytes } of [...rows].sort((a, b) => b.usedAt - a.usedAt)) {
    if (bytes <= left) left -= bytes;
    else dropped.push(jobId);
  }
  return dropped;
}
