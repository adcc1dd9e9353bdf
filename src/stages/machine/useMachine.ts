import { useIntervalFn } from '@vueuse/core';
import { computed, onScopeDispose, reactive, ref, shallowRef } from 'vue';
import { AppError, asAppError, type AppError as Fault } from '../../core/errors/appError.ts';
import { explain } from '../../core/errors/explain.ts';
import type { Affine } from '../../core/geometry/affine.ts';
import { materialOf } from '../../core/job/materials.ts';
import type { Job } from '../../core/job/job.ts';
import { readPlotter, type PlotterFile } from '../../formats/plotter/readPlotter.ts';
import { httpCutter } from '../../machines/httpCutter.ts';
import type { MachinePort, MachineState } from '../../machines/machinePort.ts';
import { serialCutter, type SerialPortLike } from '../../machines/serialCutter.ts';
import type { ProgramRequest } from '../../engine/layoutProtocol.ts';
import { useBench } from '../../stores/bench.ts';
import { say } from '../../core/words/say.ts';

const ASK_EVERY_MS = 250;
/** A knife goes through at this share of the force that its material is cut with. */
const THROUGH = 0.7;

/** The browser's serial interface, where it has one. */
const serial = (): { requestPort(): Promise<SerialPortLike> } | undefined => (navigator as unknown as { serial?: { requestPort(): Promise<SerialPortLike> } }).serial;

/** What was sent last: which sheet, and what of it. */
export interface Sent {
  readonly filmId: string;
  readonly sheet: number;
  readonly what: ProgramRequest['what'] | 'printed';
  /** Strokes that were left out because an earlier program did them. */
  readonly before: number;
  readonly strokes: PlotterFile['strokes'];
  /** Of a printed page: how it lies. */
  readonly toBed?: Affine;
}

/** What stands for the film of a printed page. */
const PRINTED = 'printed-page';

/** The cutter: how it is reached, what it says of itself, and what was sent to it. */
export function useMachine() {
  const bench = useBench();
  const port = shallowRef<MachinePort>(httpCutter('/devices/cutter'));
  const state = shallowRef<MachineState>();
  const trouble = shallowRef<Fault>();
  const sent = shallowRef<Sent>();
  const sending = ref(false);
  /** Sheets that were cut as a whole, by film and number. */
  const cutSheets = reactive(new Set<string>());
  const keyOf = ({ filmId, sheet }: Pick<Sent, 'filmId' | 'sheet'>): string => `${filmId} ${sheet}`;

  /** Asked once at a time: a machine that does not answer is waited for. */
  let asking = false;
  async function ask(): Promise<void> {
    if (asking) return;
    asking = true;
    try {
      const now = await port.value.state();
      state.value = now;
      if (trouble.value?.code === 'machineGone') trouble.value = undefined;
      const { program } = now;
      if ((sent.value?.what === 'cut' || sent.value?.what === 'printed') && program !== undefined && now.status === 'idle' && program.done === program.strokes && program.strokes === sent.value.strokes.length) cutSheets.add(keyOf(sent.value));
    } catch (error) {
      trouble.value = asAppError(error, 'machineGone');
    } finally {
      asking = false;
    }
  }
  void ask();
  useIntervalFn(() => void ask(), ASK_EVERY_MS);
  onScopeDispose(() => void (port.value.kind === 'serial' && port.value.close().catch(() => undefined)));

  /** Does something with the machine; what it refuses is told. */
  async function order(work: () => Promise<void>): Promise<boolean> {
    trouble.value = undefined;
    try {
      await work();
      return true;
    } catch (error) {
      trouble.value = asAppError(error, 'unexpected');
      return false;
    } finally {
      await ask();
    }
  }

  /** Sends a program. It is shown before it is taken: a machine that says nothing is done with one only at its end. */
  async function sendProgram(made: Promise<string>, as: Omit<Sent, 'strokes'>): Promise<void> {
    sending.value = true;
    await order(async () => {
      const program = await made;
      const { strokes } = readPlotter(new TextEncoder().encode(program), say('the program'));
      const before = sent.value;
      sent.value = { ...as, strokes };
      try {
        await port.value.send(program);
      } catch (error) {
        sent.value = before;
        throw error;
      }
    });
    sending.value = false;
  }
  /** Sends a sheet, or what of it was missed. */
  async function send(filmId: string, sheet: number, what: ProgramRequest['what'], done = 0): Promise<void> {
    const of = bench.ofJob();
    if (of !== undefined) await sendProgram(bench.program({ ...of, filmId, sheet, what, done }), { filmId, sheet, what, before: done });
  }
  /** Sends the cut lines of a printed page, counted from the corner of the area, or what of them was missed. */
  async function sendPrinted(page: number, toBed: Affine, done = 0): Promise<void> {
    const of = bench.ofJob();
    const bed = state.value?.area;
    if (of === undefined || bed === undefined) return;
    if (!(await order(() => port.value.setOrigin({ xMm: 0, yMm: 0 })))) return;
    await sendProgram(bench.printedProgram({ ...of, page, toBed, bed, done }), { filmId: PRINTED, sheet: page, what: 'printed', before: done, toBed });
  }
  const load = (filmId: string, name: string): Promise<boolean> => {
    sent.value = undefined;
    return order(() => port.value.load({ film: name, needsG: materialOf(bench.job as Job, filmId).cut.forceG * THROUGH }));
  };
  /** Strokes that are done of what was sent, with those of earlier programs of the same sheet. */
  const doneInAll = computed(() => (sent.value === undefined ? 0 : sent.value.before + (state.value?.program?.done ?? 0)));
  const missed = (): Promise<void> => {
    const last = sent.value;
    if (last === undefined) return Promise.resolve();
    const { filmId, sheet, what, toBed } = last;
    return order(() => port.value.stop()).then(() => (what !== 'printed' ? send(filmId, sheet, what, doneInAll.value) : toBed === undefined ? undefined : sendPrinted(sheet, toBed, doneInAll.value)));
  };
  async function choose(kind: MachinePort['kind'], area: MachineState['area']): Promise<void> {
    await order(async () => {
      if (kind === port.value.kind) return;
      const next = kind === 'standIn' ? httpCutter('/devices/cutter') : await asked(area);
      await port.value.close();
      [port.value, sent.value] = [next, undefined];
    });
  }
  return {
    port, state, sent, sending, cutSheets, keyOf, doneInAll, choose, load, send, sendPrinted, missed, order,
    isPageCut: (page: number) => cutSheets.has(keyOf({ filmId: PRINTED, sheet: page })),
    hasSerial: serial() !== undefined,
    /** What was refused, else what the machine itself says: an answer that was on its way while it went on is none for long. */
    told: computed(() => {
      const fault = state.value?.status === 'fault' ? state.value.fault : undefined;
      const error = trouble.value ?? (fault === undefined ? undefined : new AppError('machineFault', { fault }));
      return error === undefined ? undefined : explain(error);
    }),
    setOrigin: (xMm: number, yMm: number) => order(() => port.value.setOrigin({ xMm, yMm })),
    pause: () => order(() => port.value.pause()),
    resume: () => order(() => port.value.resume()),
    stop: () => order(() => port.value.stop()),
  };
}

/** The serial port that the person picks. @throws AppError `cancelled` where none is picked. */
async function asked(area: MachineState['area']): Promise<MachinePort> {
  const picked = await serial()?.requestPort().catch(() => undefined);
  if (picked === undefined) throw new AppError('cancelled');
  return serialCutter(picked, area, say('Cutter at a serial port'));
}
