import { describe, expect, it } from 'vitest';
import { isAppError } from '../core/errors/appError.ts';
import { until } from '../../tests/fixtures/until.ts';
import { serialCutter, type SerialPortLike } from './serialCutter.ts';

const AREA = { widthMm: 305, heightMm: 610 };
const fault = (work: Promise<unknown>): Promise<unknown> => work.then(() => 'fine', (error: unknown) => (isAppError(error) ? error.details['fault'] : error));

/** A port that keeps what it is given, and takes the next part only when it is let. */
class Double implements SerialPortLike {
  text = '';
  opened = '';
  let: (() => void) | undefined;
  constructor(
    private readonly holds = false,
    private readonly breaksAt = Infinity,
  ) {}
  open({ baudRate, flowControl }: { baudRate: number; flowControl?: string }): Promise<void> {
    this.opened = `${baudRate} ${flowControl}`;
    return Promise.resolve();
  }
  readonly writable = new WritableStream<Uint8Array>({
    write: async (part) => {
      if (this.text.length + part.length > this.breaksAt) throw new Error('unplugged');
      this.text += new TextDecoder().decode(part);
      if (this.holds) await new Promise<void>((resolve) => (this.let = resolve));
    },
  });
  close(): Promise<void> {
    return Promise.resolve();
  }
}

const program = `IN;PA;SP1;${'PU0,0;PD4000,0;'.repeat(300)}PU0,0;SP0;`;

describe('a cutter at a serial port', () => {
  it('is handed a whole program, and tells how much of it', async () => {
    const port = new Double();
    const cutter = await serialCutter(port, AREA, 'At a cable');
    expect([port.opened, cutter.tells]).toEqual(['9600 hardware', false]);
    await cutter.load({ film: 'Navy', needsG: 50 });
    await cutter.send(program);
    expect(port.text).toBe(program);
    expect(await cutter.state()).toMatchObject({ status: 'idle', loaded: 'Navy', area: AREA, program: { share: 1 } });
  });

  it('waits while it is paused, and after a stop only lifts the tool', async () => {
    const port = new Double(true);
    const cutter = await serialCutter(port, AREA, 'At a cable');
    const sent = cutter.send(program);
    await until(() => port.text.length > 0);
    await cutter.pause();
    expect((await cutter.state()).status).toBe('paused');
    port.let?.();
    await new Promise((resolve) => setTimeout(resolve, 20));
    const held = port.text.length;
    expect(held).toBeLessThan(program.length / 2);
    await cutter.resume();
    await until(() => port.text.length > held);
    await cutter.stop();
    const letting = setInterval(() => port.let?.(), 2);
    await sent;
    clearInterval(letting);
    expect(port.text.endsWith('PU;SP0;')).toBe(true);
    expect(port.text.length).toBeLessThan(program.length);
  });

  it('says when the line is lost, or another program has the port', async () => {
    const cutter = await serialCutter(new Double(false, 600), AREA, 'At a cable');
    expect(await fault(cutter.send(program))).toBe('connectionLost');
    expect(await cutter.state()).toMatchObject({ status: 'fault', fault: 'connectionLost' });
    const taken: SerialPortLike = { open: () => Promise.reject(new Error('in use')), writable: null, close: () => Promise.resolve() };
    expect(await fault(serialCutter(taken, AREA, 'At a cable'))).toBe('portBusy');
  });
});
