import type { AddressInfo } from 'node:net';
import { cutterTcp } from './devices/cutterTcp.ts';
import { StandInCutter } from './devices/standInCutter.ts';
import { CUT_AREA, makeServer } from './server.ts';

const FIRST_PORT = 4173;

const cutter = new StandInCutter(CUT_AREA);
/** Where the stand-in cutter takes plotter language as a plain port: the one that network printers have, moved up so that no rights are needed. */
const CUTTER_PORT = 19100;
cutterTcp(cutter)
  .on('error', (error) => process.stderr.write(`The stand-in cutter has no port of its own: ${error.message}\n`))
  .listen(CUTTER_PORT, '127.0.0.1');

/** Listens on localhost only, on the wished port or the next free one. */
function listen(port: number, tries: number): void {
  const server = makeServer(undefined, cutter).listen(port, '127.0.0.1');
  server.on('listening', () => process.stdout.write(`Limner is ready: http://localhost:${(server.address() as AddressInfo).port}/\n`));
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE' && tries > 0) listen(port + 1, tries - 1);
    else {
      process.stderr.write(`Limner cannot listen on port ${port}: ${error.message}\n`);
      process.exitCode = 1;
    }
  });
}

const wished = Number(process.env['PORT']);
listen(Number.isInteger(wished) && wished > 0 ? wished : FIRST_PORT, process.env['PORT'] === undefined ? 20 : 0);
