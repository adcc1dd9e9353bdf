import { z } from 'zod';
import type { CameraView } from '../core/print/findMark.ts';

/** What can go wrong at a cutter, as it tells it. */
export const FAULTS = ['noMat', 'portBusy', 'connectionLost', 'pieceLifted', 'outsideArea'] as const;
export type MachineFault = (typeof FAULTS)[number];

const mm = z.number().min(-100_000).max(100_000);
const place = z.strictObject({ xMm: mm, yMm: mm });

/** What a cutter says of itself. Places are mm from the lower left of its cut area, y up, as plotter language counts. */
export const machineStateSchema = z.strictObject({
  name: z.string().max(200),
  /** What it can reach. */
  area: z.strictObject({ widthMm: z.number().min(0).max(100_000), heightMm: z.number().min(0).max(100_000) }),
  status: z.enum(['idle', 'loading', 'readingMarks', 'cutting', 'paused', 'fault']),
  fault: z.enum(FAULTS).optional(),
  /** What lies in it, as it was told. */
  loaded: z.string().max(200).optional(),
  /** Where it counts from. */
  origin: place,
  at: place,
  tool: z.enum(['knife', 'pen']),
  /** The program that it is at, or was at last. */
  program: z.strictObject({ strokes: z.number().int().min(0), done: z.number().int().min(0), share: z.number().min(0).max(1), leftS: z.number().min(0) }).optional(),
});
export type MachineState = z.infer<typeof machineStateSchema>;

/** What lies in a cutter, and how heavy its knife must be to go through it. */
export interface MachineLoad {
  readonly film: string;
  readonly needsG: number;
}

/** A cutter, whichever way it is reached. @throws AppError `machineFault` for what it refuses or tells, `machineGone` where it does not answer. */
export interface MachinePort {
  readonly kind: 'standIn' | 'serial';
  /** Whether it says where it is and takes orders while it cuts. */
  readonly tells: boolean;
  state(): Promise<MachineState>;
  load(load: MachineLoad): Promise<void>;
  /** Takes a page that the printer beside it has printed, from 1. Absent where there is none. */
  loadPage?(page: number): Promise<void>;
  /** What a camera above the bed sees around a place of it, mm, y down from the upper left of its area. Absent where it has none. */
  look?(xMm: number, yMm: number): Promise<CameraView & { readonly leftMm: number; readonly topMm: number }>;
  setOrigin(at: { readonly xMm: number; readonly yMm: number }): Promise<void>;
  /** Sends plotter language, and is done when it was taken. */
  send(program: string): Promise<void>;
  pause(): Promise<void>;
  resume(): Promise<void>;
  stop(): Promise<void>;
  close(): Promise<void>;
}
