import { AppError } from '../core/errors/appError.ts';
import type { MachinePort, MachineState } from './machinePort.ts';

/** What of the browser's serial interface is used (WICG, "Web Serial API"). */
export interface SerialPortLike {
  open(options: { baudRate: number; flowControl?: 'none' | 'hardware' }): Promise<void>;
  readonly writable: WritableStream<Uint8Array> | null;
  close(): Promise<void>;
}

/** Speeds and flow as most cutters come set. */
const BAUD = 9600;
/** Bytes that are handed over at once, so that a stop is heard. */
const PART = 512;

/**
 * A cutter at a serial port: it takes plotter language and says nothing. What it is at is what was handed over; a stop keeps back the rest and lifts the tool.
 * @param area what it can reach, mm: it cannot be asked.
 */
export async function serialCutter(port: SerialPortLike, area: MachineState['area'], name: string): Promise<MachinePort> {
  try {
    await port.open({ baudRate: BAUD, flowControl: 'hardware' });
  } catch (cause) {
    throw new AppError('machineFault', { fault: 'portBusy' }, cause);
  }
  let state: MachineState = { name, area, status: 'idle', origin: { xMm: 0, yMm: 0 }, at: { xMm: 0, yMm: 0 }, tool: 'knife' };
  let wanted: 'on' | 'paused' | 'stopped' = 'on';
  let goOn = (): void => undefined;
  const { origin } = state;
  async function write(text: string, whole: boolean): Promise<void> {
    const writer = port.writable?.getWriter();
    if (writer === undefined) throw new AppError('machineFault', { fault: 'connectionLost' });
    const bytes = new TextEncoder().encode(text);
    try {
      for (let at = 0; at < bytes.length; at += PART) {
        if (whole && wanted === 'paused') await new Promise<void>((resolve) => (goOn = resolve));
        if (whole && (wanted as string) === 'stopped') break;
        await writer.write(bytes.subarray(at, at + PART));
        if (whole && state.program !== undefined) state = { ...state, program: { ...state.program, share: Math.min(1, (at + PART) / bytes.length) } };
      }
    } catch (cause) {
      state = { ...state, status: 'fault', fault: 'connectionLost' };
      throw new AppError('machineFault', { fault: 'connectionLost' }, cause);
    } finally {
      writer.releaseLock();
    }
  }
  return {
    kind: 'serial',
    tells: false,
    state: () => Promise.resolve(state),
    load: ({ film }) => Promise.resolve(void (state = { ...state, loaded: film })),
    setOrigin: (at) => Promise.resolve(void Object.assign(origin, at)),
    async send(program) {
      wanted = 'on';
      state = { ...state, status: 'cutting', program: { strokes: (program.match(/PU/g) ?? []).length, done: 0, share: 0, leftS: 0 } };
      await write(program, true);
      if ((wanted as string) === 'stopped') await write('PU;SP0;', false);
      state = { ...state, status: 'idle' };
    },
    pause: () => Promise.resolve(void ((wanted = 'paused'), (state = { ...state, status: 'paused' }))),
    resume() {
      wanted = 'on';
      state = { ...state, status: 'cutting' };
      goOn();
      return Promise.resolve();
    },
    stop() {
      wanted = 'stopped';
      goOn();
      return Promise.resolve();
    },
    close: () => port.close(),
  };
}
