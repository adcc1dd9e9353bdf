import { createServer, type Server } from 'node:net';
import { isAppError } from '../../src/core/errors/appError.ts';
import { PLOTTER_STEP_MM } from '../../src/formats/plotter/writePlotter.ts';
import type { StandInCutter } from './standInCutter.ts';

const MOST_BYTES = 40_000_000;
const IDLE_MS = 30_000;
/** What a program ends with: the tool is put back. */
const END = /SP0?;/;

/** The stand-in cutter as a plain port that takes plotter language; it answers what can be asked in it: `OH` the corners of its area, `OS` a status byte. */
export function cutterTcp(cutter: StandInCutter): Server {
  return createServer((socket) => {
    let text = '';
    socket.setEncoding('latin1');
    socket.setTimeout(IDLE_MS, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    const begin = (): void => {
      const program = text;
      text = '';
      if (program.trim() === '') return;
      try {
        cutter.send(program);
      } catch (error) {
        if (!isAppError(error)) throw error;
        // Not taken: the bit of an error in the status byte.
        socket.write('32\r');
      }
    };
    socket.on('data', (part: string) => {
      text += part;
      if (text.length > MOST_BYTES || !cutter.answers) return void socket.destroy();
      text = text.replace(/O([HS]);/g, (_whole, what: string) => {
        const { area, status } = cutter.state();
        socket.write(what === 'H' ? `0,0,${Math.round(area.widthMm / PLOTTER_STEP_MM)},${Math.round(area.heightMm / PLOTTER_STEP_MM)}\r` : `${status === 'cutting' ? 0 : 16}\r`);
        return '';
      });
      if (END.test(text)) begin();
    });
    socket.on('end', begin);
  });
}
