import { request, type Server } from 'node:http';
import { connect, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isAppError } from '../src/core/errors/appError.ts';
import { httpCutter } from '../src/machines/httpCutter.ts';
import type { MachinePort } from '../src/machines/machinePort.ts';
import { until } from '../tests/fixtures/until.ts';
import { cutterTcp } from './devices/cutterTcp.ts';
import { StandInCutter } from './devices/standInCutter.ts';
import { makeServer } from './server.ts';

const AREA = { widthMm: 305, heightMm: 610 };
const line = 'IN;PA;SP1;VS10;FS90;PU0,0;PD4000,0;PU0,0;SP0;';
const stand = new StandInCutter(AREA, Date.now, 2000);
let web: Server;
let raw: ReturnType<typeof cutterTcp>;
let cutter: MachinePort;
const portOf = (server: { address(): unknown }): number => (server.address() as AddressInfo).port;
beforeAll(async () => {
  web = makeServer(tmpdir(), stand).listen(0, '127.0.0.1');
  raw = cutterTcp(stand).listen(0, '127.0.0.1');
  await Promise.all([web, raw].map((server) => new Promise((resolve) => server.once('listening', resolve))));
  cutter = httpCutter(`http://127.0.0.1:${portOf(web)}/devices/cutter`);
});
afterAll(() => [web, raw].forEach((server) => server.close()));

const fault = (work: Promise<unknown>): Promise<unknown> => work.then(() => 'fine', (error: unknown) => (isAppError(error) ? (error.details['fault'] ?? error.code) : error));
/** Asks with headers that a browser would not let a page choose. */
const statusOf = (headers: Record<string, string>, path = '/devices/cutter', method = 'GET'): Promise<number | undefined> =>
  new Promise((resolve, reject) => request({ host: '127.0.0.1', port: portOf(web), path, method, headers }, (response) => resolve(response.resume().statusCode)).on('error', reject).end());

describe('the stand-in cutter over the network', () => {
  it('is read, loaded, sent to and followed by HTTP', async () => {
    expect(await cutter.state()).toMatchObject({ area: AREA, status: 'idle' });
    expect(await fault(cutter.send(line))).toBe('noMat');
    await cutter.load({ film: 'Navy', needsG: 50 });
    await cutter.setOrigin({ xMm: 10, yMm: 20 });
    await cutter.send(line);
    await until(async () => (await cutter.state()).program?.done === 1);
    const picture = await (await fetch(`http://127.0.0.1:${portOf(web)}/devices/cutter/picture`)).text();
    expect(picture).toContain('data-as="cut" d="M10 590L110 590"');
    expect(await fault(cutter.send('no language'))).toBe('machineGone');
    expect(await fault(cutter.setOrigin({ xMm: 1000, yMm: 0 }))).toBe('outsideArea');
  });

  it('is told as gone while its line is lost, and knows what was done when it is back', async () => {
    await cutter.load({ film: 'Navy', needsG: 50 });
    stand.fail('connectionLost', 0.5);
    await cutter.send(line);
    await until(async () => (await fault(cutter.state())) === 'machineGone');
    await until(async () => (await fault(cutter.state())) === 'fine');
    expect(await cutter.state()).toMatchObject({ status: 'fault', fault: 'connectionLost', program: { strokes: 1, done: 0 } });
    await cutter.resume();
    await until(async () => (await cutter.state()).status === 'idle');
  }, 20_000);

  it('tells its area and takes a program at a plain port', async () => {
    await cutter.load({ film: 'Navy', needsG: 50 });
    const answer = await new Promise<string>((resolve, reject) => {
      const socket = connect(portOf(raw), '127.0.0.1', () => socket.write('OH;'));
      socket.setEncoding('latin1');
      socket.on('data', (text: string) => {
        socket.end(line);
        resolve(text);
      });
      socket.on('error', reject);
    });
    expect(answer).toBe('0,0,12200,24400\r');
    await until(async () => stand.log.some((words) => words.startsWith('done')));
  });
});

describe('the server', () => {
  it('answers what was asked of this machine by its own name, and orders of its own pages alone', async () => {
    const host = `localhost:${portOf(web)}`;
    expect(await statusOf({ host })).toBe(200);
    expect(await statusOf({ host: 'boats.example' })).toBe(403);
    expect(await statusOf({ host, origin: `http://${host}` })).toBe(200);
    expect(await statusOf({ host, origin: 'https://boats.example' }, '/devices/cutter/stop', 'POST')).toBe(403);
    expect(await statusOf({ host, origin: 'null' }, '/devices/cutter/stop', 'POST')).toBe(403);
    expect(await statusOf({ host }, '/devices/cutter/../../etc/passwd')).not.toBe(200);
  });
});
