import type { AddressInfo } from 'node:net';
import { type Server } from 'node:http';
import { tmpdir } from 'node:os';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { cutInput, type CutOfInput } from '../../cli/cutInput.ts';
import { encodeFile } from '../../cli/encodeFile.ts';
import { flatten } from '../../src/core/outline/flatten.ts';
import { followedBy, placed, rotation, translation, type Affine } from '../../src/core/geometry/affine.ts';
import { isAppError } from '../../src/core/errors/appError.ts';
import type { Job } from '../../src/core/job/job.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { printedPlan } from '../../src/core/layout/printedPlan.ts';
import { cameraPlaces, readPage, type PageSeen } from '../../src/core/print/readPage.ts';
import type { PrintPages } from '../../src/core/print/printPages.ts';
import { printFile } from '../../src/formats/pdf/printFile.ts';
import { writePlotter } from '../../src/formats/plotter/writePlotter.ts';
import { httpCutter } from '../../src/machines/httpCutter.ts';
import { httpPrinter, type PrinterPort } from '../../src/machines/httpPrinter.ts';
import type { MachinePort } from '../../src/machines/machinePort.ts';
import { findMarks } from '../../src/core/clean/squaring/findMarks.ts';
import { matchMarks } from '../../src/core/clean/squaring/matchMarks.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { sizedJob } from '../../tests/fixtures/jobWith.ts';
import { until } from '../../tests/fixtures/until.ts';
import { makeServer } from '../server.ts';
import { drawPages } from './drawPages.ts';
import { StandInCutter } from './standInCutter.ts';
import { StandInPrinter } from './standInPrinter.ts';

const AREA = { widthMm: 305, heightMm: 610 };
const cutter = new StandInCutter(AREA, Date.now, 5000);
const printer = new StandInPrinter(drawPages);
let web: Server;
let base: string;
let machine: MachinePort;
let paper: PrinterPort;
let cut: CutOfInput;
let print: PrintPages;
let pdf: Uint8Array<ArrayBuffer>;
beforeAll(async () => {
  web = makeServer(tmpdir(), cutter, printer).listen(0, '127.0.0.1');
  await new Promise((resolve) => web.once('listening', resolve));
  base = `http://127.0.0.1:${(web.address() as AddressInfo).port}/devices`;
  machine = httpCutter(`${base}/cutter`);
  paper = httpPrinter(`${base}/printer`);
  const bare = sizedJob(newJob('Disc for mugs', 'waterslide'), 45);
  const job: Job = { ...bare, layout: { ...bare.layout, fill: true, contour: { on: true, awayMm: 2 } } };
  cut = await cutInput(job, { name: 'disc.png', bytes: new Uint8Array((await discFiles()).png) });
  print = cut.cut.print as PrintPages;
  pdf = await printFile(cut.job, cut.cut, cut.arts, (picture) => encodeFile(picture));
}, 60_000);
afterAll(() => web.close());

const ORDER = { paper: 'a4', kind: 'white', quality: 'photo' } as const;
const order = (what: string, body: unknown): Promise<Response> => fetch(`${base}/${what}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
/** As the page is told to lie: its lower left at the corner of the area. */
const asTold = translation(0, AREA.heightMm - 297);

async function look(): Promise<PageSeen> {
  const views = [];
  for (const { xMm, yMm } of cameraPlaces(print.area, asTold)) views.push(await machine.look!(xMm, yMm));
  return readPage(print.area, views);
}
const fault = (work: Promise<unknown>): Promise<unknown> => work.then(() => 'fine', (error: unknown) => (isAppError(error) ? (error.details['fault'] ?? error.code) : error));

describe('what was printed is cut where it lies', () => {
  it.each([
    { xMm: 3.1, yMm: -4.2, turnDeg: 1.1, scale: 1.004, shear: 0.003 },
    { xMm: -2.5, yMm: -6, turnDeg: -1.4, scale: 0.995, shear: -0.004 },
    { xMm: 0, yMm: 0, turnDeg: 0, scale: 1, shear: 0 },
  ])('within 0.15 mm under $xMm, $yMm mm, $turnDeg degrees, $scale times, slanted by $shear', async (lie) => {
    await paper.print(pdf, ORDER);
    expect((await order('cutter/page', { page: 1, lie })).status).toBe(200);
    const seen = await look();
    expect(seen.fault).toBeUndefined();
    const plan = printedPlan(print, 1, seen.toBed!, AREA)!;
    await machine.setOrigin({ xMm: 0, yMm: 0 });
    await machine.send(writePlotter(plan, { fine: true, cut: { tool: 'knife', forceG: 80, speedMmS: 200 } }));
    await until(async () => (await machine.state()).program?.share === 1);
    // What the knife left, beside the printed cut lines where the page truly lies.
    const bent: Affine = { a: lie.scale, b: 0, c: lie.shear, d: lie.scale, e: 0, f: 0 };
    const lies = followedBy(followedBy(bent, rotation((lie.turnDeg * Math.PI) / 180, 105, 148.5)), translation(lie.xMm, AREA.heightMm - 297 + lie.yMm));
    let worst = 0;
    const left = cutter.traces.flatMap(({ points }) => points);
    for (const { motif, at } of print.pages[0]) {
      const { points } = flatten(print.motifs[motif].contour!, 0.01);
      const true_ = followedBy(at, lies);
      for (let i = 0; i < points.length; i += 2 * 7) {
        const should = placed(true_, points[i], points[i + 1]);
        worst = Math.max(worst, Math.min(...left.map(({ x, y }, k) => (k === 0 ? Infinity : awayFrom(should, left[k - 1], { x, y }, AREA.heightMm)))));
      }
    }
    expect(worst).toBeLessThan(0.15);
    expect(worst).toBeGreaterThan(0);
  }, 60_000);

  it('and it says which marks are not found, and why', async () => {
    await paper.print(pdf, ORDER);
    await order('cutter/page', { page: 1, lie: { xMm: 0, yMm: 0, turnDeg: 0, scale: 1, shear: 0 } });
    await order('cutter/fail', { kind: 'markHidden' });
    expect((await look()).marks[0]).toEqual({ corner: 'upper left', why: 'nothingDark' });
    await order('printer/fail', { kind: 'inkEnds', atShare: 0.5 });
    await paper.print(pdf, ORDER);
    await order('cutter/page', { page: 1 });
    expect(await look()).toMatchObject({ fault: 'tooFew', marks: [{}, {}, { why: expect.any(String) as string }, { why: expect.any(String) as string }] });
    await paper.print(pdf, ORDER);
    await order('cutter/page', { page: 1, lie: { xMm: 0, yMm: 0, turnDeg: 180, scale: 1, shear: 0 } });
    expect((await look()).fault).toBe('turned');
  }, 60_000);
});

describe('the stand-in printer', () => {
  it('leaves its margins bare, and shows how the page came out', async () => {
    const state = await paper.print(pdf, { ...ORDER, quality: 'draft' });
    expect(state).toMatchObject({ pages: 1, marginMm: 3.4 });
    const page = printer.page(1)!;
    const inkIn = (from: number, to: number): number => {
      let ink = 0;
      for (let y = Math.round(from * page.pxPerMm); y < to * page.pxPerMm; y++) for (let x = 0; x < page.widthPx; x++) if (page.data[4 * (y * page.widthPx + x)] < 128) ink++;
      return ink;
    };
    expect(inkIn(0, 3)).toBe(0);
    expect(inkIn(10, 100)).toBeGreaterThan(1000);
    const picture = await fetch(new URL(paper.pageAddress(1), base));
    expect(picture.headers.get('content-type')).toBe('image/png');
    expect((await fetch(`${base}/printer/page/9`)).status).toBe(404);
  }, 60_000);

  it('refuses a page that is larger than its paper, what is no page, and a size when it is told to', async () => {
    expect(await fault(paper.print(pdf, { ...ORDER, paper: 'letter' }))).toBe('wrongSize');
    expect(await fault(paper.print(new TextEncoder().encode('no page') as Uint8Array<ArrayBuffer>, ORDER))).toBe('notAPage');
    await order('printer/fail', { kind: 'refusesSize' });
    expect(await fault(paper.print(pdf, ORDER))).toBe('wrongSize');
    expect(await fault(paper.print(pdf, ORDER))).toBe('fine');
    await order('printer/fail', { kind: 'wrongSide' });
    await paper.print(pdf, ORDER);
    const darkest = printer.page(1)!.data.reduce((least, value) => Math.min(least, value), 255);
    expect(darkest).toBeGreaterThan(180);
    expect((await order('printer/fail', { kind: 'fire' })).status).toBe(400);
  }, 60_000);
});

describe('the stand-in camera', () => {
  it('takes a photo of the mark sheet that is squared by its marks, and one of what was printed', async () => {
    const photo = await fetch(`${base}/camera/photo?tiltDeg=14&turnDeg=6&bend=0.03&blurPx=0.5`);
    const { data, info } = await sharp(Buffer.from(await photo.arrayBuffer())).greyscale().raw().toBuffer({ resolveWithObject: true });
    const rings = findMarks(new Uint8Array(data), info.width, info.height);
    expect(matchMarks(rings, info.width, info.height)?.paper).toBe('a4');
    await paper.print(pdf, ORDER);
    const page = await fetch(`${base}/camera/photo?of=page&tiltDeg=10`);
    expect(page.headers.get('content-type')).toBe('image/png');
    expect((await sharp(Buffer.from(await page.arrayBuffer())).stats()).channels[0].stdev).toBeGreaterThan(20);
    expect((await fetch(`${base}/camera/photo?of=page&page=7`)).status).toBe(404);
    expect((await fetch(`${base}/camera/photo?tiltDeg=90`)).status).toBe(400);
  }, 60_000);
});

/** How far a place, y down, is from a stroke between two places of the machine, y up, mm. */
function awayFrom({ x, y }: { x: number; y: number }, a: { x: number; y: number }, b: { x: number; y: number }, heightMm: number): number {
  const [ax, ay, bx, by] = [a.x, heightMm - a.y, b.x, heightMm - b.y];
  const length2 = (bx - ax) ** 2 + (by - ay) ** 2;
  const t = length2 === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / length2));
  return Math.hypot(x - ax - t * (bx - ax), y - ay - t * (by - ay));
}
