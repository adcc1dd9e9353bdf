import { PROCESSES, type Process } from '../process/processes.ts';
import type { Layout } from './layout.ts';

/** Whether a job's sheets are mirrored, and whether that goes against its process. */
export function mirroringOf(layout: Pick<Layout, 'mirror' | 'work'>, process: Process): { mirrored: boolean; against: boolean } {
  // What is cut around work on the sheet lies as the work does.
  if (layout.work !== undefined) return { mirrored: false, against: false };
  const wanted = PROCESSES[process].mirrored;
  const mirrored = layout.mirror === 'process' ? wanted : layout.mirror === 'always';
  return { mirrored, against: mirrored !== wanted };
}
