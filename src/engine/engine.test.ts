import { readFile } from 'node:fs/promises';
import { describe, expect, it } from 'vitest';
import { tracedPart, type TracedPart } from '../core/job/tracedPart.ts';
import { jobWith, sizedJob } from '../../tests/fixtures/jobWith.ts';
import { fontPath } from '../../cli/loadFont.ts';
import { shapeTools } from '../../cli/shapeTools.ts';
import { decodeFile } from '../../cli/decodeFile.ts';
import { discFiles } from '../../tests/fixtures/files.ts';
import { paintedArt, WHITE } from '../../tests/fixtures/shapes.ts';
import { isAppError } from '../core/errors/appError.ts';
import { figureCurves } from '../core/figure/figureCurves.ts';
import { SHIPPED_FONTS } from '../core/lettering/fonts.ts';
import { newJob } from '../core/job/newJob.ts';
import type { Job } from '../core/job/job.ts';
import { finish, type Task } from '../core/task/task.ts';
import { cleanPart, cutJob, type CutResult } from '../core/run/runJob.ts';
import { statedDpi } from '../formats/picture/statedDpi.ts';
import { writePng } from '../formats/picture/writePng.ts';
import { drain } from './drain.ts';
import { CALL_NAMES } from './calls.ts';
import { engineClient } from './client.ts';
import { LocalEngine } from './localEngine.ts';

const files = await discFiles();
const job = (change: Partial<TracedPart> = {}): Job => jobWith(sizedJob(newJob('disc'), 40), change);

async function code(work: Promise<unknown>): Promise<string> {
  try {
    await work;
  } catch (error) {
    if (isAppError(error)) return error.code;
    throw error;
  }
  return 'fine';
}

function* slowly(turns: number): Task<string> {
  for (let k = 0; k < turns; k++) {
    const until = performance.now() + 6;
    while (performance.now() < until);
    yield k / turns;
  }
  return 'done';
}

describe('drain', () => {
  it('gives the result and tells how far it is', async () => {
    const shares: number[] = [];
    expect(await drain(slowly(12), () => false, (share) => shares.push(share))).toBe('done');
    expect(shares.length).toBeGreaterThan(1);
    expect([...shares].sort((a, b) => a - b)).toEqual(shares);
  });

  it('hears a cancel between two slices', async () => {
    let stale = false;
    const work = code(drain(slowly(400), () => stale));
    setTimeout(() => (stale = true), 30);
    const start = performance.now();
    expect(await work).toBe('cancelled');
    expect(performance.now() - start).toBeLessThan(1500);
  });
});

describe('engine', () => {
  it('goes the whole road from a file to a cut file at true size', async () => {
    const engine = new LocalEngine(decodeFile);
    const opened = await engine.open(files.png.slice(), 'disc.png');
    expect([opened.widthPx, opened.heightPx, opened.look.realColours]).toEqual([80, 60, 2]);
    const result = await engine.run({ pictureKey: opened.pictureKey, job: job(), quality: 'final' });
    expect(result.problem).toBeUndefined();
    expect(result.cut?.films[0].pieces).toBe(1);
    expect(result.cut?.design.widthMm).toBeCloseTo(40, 6);
    expect(result.cut?.films[0].areaMm2).toBeCloseTo(Math.PI * 400, -1);
    const svg = new TextDecoder().decode(await engine.export({ pictureKey: opened.pictureKey, job: job(), kind: 'svg' }));
    expect(svg).toContain('width="305mm"');
    const png = await engine.export({ pictureKey: opened.pictureKey, job: job(), kind: 'png' });
    expect(statedDpi(png, 'png')).toBeCloseTo(25.4, 0);
  });

  it('leaves the pixels out when the caller still has them', async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
    const first = await engine.run({ pictureKey, job: job(), quality: 'final' });
    const second = await engine.run({ pictureKey, job: job(), quality: 'final', haveView: first.clean.key });
    expect(first.clean.view).toBeDefined();
    expect(second.clean.view).toBeUndefined();
  });

  it('lets the newest run win', async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.jpg.slice(), 'disc.jpg');
    const runs = [1, 2, 3].map((k) => code(engine.run({ pictureKey, job: { ...job(), name: `run ${k}` }, quality: 'final' })));
    expect(await Promise.all(runs)).toEqual(['cancelled', 'cancelled', 'fine']);
  });

  it('tells why there is no cut and still shows the clean art', async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
    const recipe: TracedPart['recipe'] = [{ kind: 'colourLift', id: 'all', enabled: true, v: 1, colour: '#14141a', tolerance: 25, soft: false }];
    const result = await engine.run({ pictureKey, job: job({ recipe, separation: { way: 'oneTone', source: 'threshold', threshold: 10, inkIs: 'auto' } }), quality: 'final' });
    expect(result.problem?.code).toBe('nothingToCut');
    expect(result.clean.view).toBeDefined();
    expect(await code(engine.export({ pictureKey, job: job({ recipe, separation: { way: 'oneTone', source: 'threshold', threshold: 10, inkIs: 'auto' } }), kind: 'svg' }))).toBe('nothingToCut');
  });

  it('does not export what does not fit', async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
    const large = sizedJob(job(), 900);
    expect((await engine.run({ pictureKey, job: large, quality: 'final' })).cut?.sheets[0].over.widthMm).toBeGreaterThan(600);
    expect(await code(engine.export({ pictureKey, job: large, kind: 'svg' }))).toBe('doesNotFit');
  });

  it('asks for the picture when it does not have it, and refuses files that are none', async () => {
    const engine = new LocalEngine(decodeFile);
    expect(await code(engine.run({ pictureKey: 'unknown', job: job(), quality: 'final' }))).toBe('pictureMissing');
    expect(await code(engine.open(new Uint8Array(0), 'x.png'))).toBe('emptyFile');
    expect(await code(engine.open(files.png.slice(0, 400), 'x.png'))).toBe('truncated');
  });

  it('makes a variant beside the cut, and tells how a tone can be parted', async () => {
    const engine = new LocalEngine(decodeFile, { tools: shapeTools });
    const art = paintedArt(120, 80, (x, y) => (y < 10 || y > 70 || x < 10 || x > 110 ? WHITE : x < 55 ? { r: 179, g: 38, b: 46 } : x < 65 ? WHITE : { r: 214, g: 96, b: 92 }));
    const { pictureKey } = await engine.open(writePng(art.colour), 'fields.png');
    const flat = job({ separation: { way: 'flat', count: 2, meet: 'stacked' } });
    const run = await engine.run({ pictureKey, job: flat, quality: 'final' });
    expect(run.cut?.films).toHaveLength(1);
    const variant = await engine.variant({ pictureKey, job: job({ separation: { way: 'flat', count: 3, meet: 'stacked' } }) });
    expect(variant.films).toHaveLength(2);
    expect(variant.isReduced).toBe(false);
    expect(variant.together.pieces).toBe(variant.films.reduce((sum, { pieces }) => sum + pieces, 0));
    expect((await engine.variant({ pictureKey, job: flat, size: 'small' })).isReduced).toBe(true);
    const tone = run.cut!.tones!.findIndex(({ film }) => film !== null);
    const parts = await engine.parts({ pictureKey, job: flat, tone });
    expect(parts.areas.map(({ middleXPx, middleYPx }) => [Math.round(middleXPx / 5) * 5, Math.round(middleYPx / 5) * 5]).sort()).toEqual([[35, 40], [90, 40]].sort());
    expect(parts.colours).toHaveLength(2);
    const ground = await engine.parts({ pictureKey, job: flat, tone: 1 - tone });
    expect(ground.colours).toBeUndefined();
    expect((await engine.files({ pictureKey, job: flat, kinds: ['png'], name: 'Disc', date: '2026-11-28' })).map(({ name }) => name)).toEqual(['Disc.png', expect.stringMatching(/^Disc-1-.*\.png$/), 'Disc-proof.png']);
    for (const kind of ['svg', 'dxf', 'dxf-r12', 'hpgl'] as const) expect((await engine.lookInto({ pictureKey, job: flat, kind, name: 'Disc', date: '2026-11-28', at: 0 })).lines?.nodes, kind).toBeGreaterThan(3);
    // Of pictures and pages the bytes are handed on: PNG and PDF by what they begin with.
    for (const [kind, at, begins] of [['png', 1, '\x89PNG'], ['pdf', 0, '%PDF']] as const) expect(String.fromCharCode(...((await engine.lookInto({ pictureKey, job: flat, kind, name: 'Disc', date: '2026-11-28', at: 0 })).drawn?.[at] ?? []).slice(0, 4)), kind).toBe(begins);
    expect(await code(engine.variant({ pictureKey, job: job({ separation: { way: 'oneTone', source: 'threshold', threshold: 0, inkIs: 'dark' } }) }))).toBe('nothingToCut');
  });

  it('measures how far a lift reaches and shows any part of the picture', async () => {
    const engine = new LocalEngine(decodeFile);
    const { pictureKey } = await engine.open(files.png.slice(), 'disc.png');
    const reach = await engine.reach({ pictureKey, job: job(), recipe: [], at: { xPx: 2, yPx: 2 } });
    expect(reach.areaByLevel[Math.round(reach.tolerance * 10)]).toBeGreaterThan(3000);
    expect(await code(engine.reach({ pictureKey, job: job(), recipe: [], at: { xPx: 900, yPx: 2 } }))).toBe('nothingThere');
    const part = await engine.region({ pictureKey, xPx: 30, yPx: 20, widthPx: 20, heightPx: 20, outWidth: 10, outHeight: 10 });
    expect([part.width, part.data[0]]).toEqual([10, 20]);
    expect(await code(engine.region({ pictureKey, cleanKey: 'old', xPx: 0, yPx: 0, widthPx: 1, heightPx: 1, outWidth: 1, outHeight: 1 }))).toBe('cancelled');
  });
});

/** A job that is cut of film has no printed page. */
function unlessNothingToCut(error: unknown): string {
  if (isAppError(error) && error.code === 'nothingToCut') return '';
  throw error;
}

describe('a cancel', () => {
  it('ends whatever is under way, and nothing that is asked for later', async () => {
    const engine = new LocalEngine(decodeFile, { tools: shapeTools });
    const { pictureKey } = await engine.open(files.jpg.slice(), 'disc.jpg');
    const of = { pictureKey, job: job({ separation: { way: 'flat', count: 2, meet: 'stacked' } }) };
    const [film] = (await engine.run({ ...of, quality: 'final' })).cut?.rack ?? [];
    const calls = {
      run: () => engine.run({ ...of, quality: 'final' }),
      propose: () => engine.propose({ ...of, stock: [] }),
      reach: () => engine.reach({ ...of, recipe: [], at: { xPx: 2, yPx: 2 } }),
      moment: () => engine.moment({ ...of, recipe: [] }),
      proof: () => engine.proof(of),
      prints: () => engine.prints(of),
      onBlank: () => engine.onBlank({ ...of, sidePx: 200 }),
      onArea: () => engine.onArea({ ...of, sidePx: 200 }),
      proofPng: () => engine.proofPng({ ...of, sidePx: 200, words: ['Disc', 'today'] }),
      files: () => engine.files({ ...of, kinds: ['svg', 'pdf', 'png'], name: 'Disc', date: '2026-11-28' }),
      lookInto: () => engine.lookInto({ ...of, kind: 'hpgl', name: 'Disc', date: '2026-11-28', at: 0 }),
      ticket: () => engine.ticket(of),
      ticketPdf: () => engine.ticketPdf({ ...of, unit: 'mm', page: 'a4', date: '2026-11-28' }),
      printedProgram: () => engine.printedProgram({ ...of, page: 1, toBed: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, bed: { widthMm: 300, heightMm: 300 }, done: 0 }).catch(unlessNothingToCut),
      program: () => engine.program({ ...of, filmId: film?.film.id ?? '', sheet: 1, what: 'cut', done: 0 }),
      nest: () => engine.nest({ ...of, filmId: film?.film.id ?? '', seconds: 0.2 }),
      sheetPlan: () => engine.sheetPlan({ ...of, filmId: film?.film.id ?? '', sheet: 1 }),
      workingSize: () => engine.workingSize(of),
      stockOutline: () => engine.stockOutline(of),
      nestedRoom: () => engine.nestedRoom(of),
      together: () => engine.together({ films: [{ job: 1, name: 'Heart', film: { name: 'Navy', colour: '#22375f' }, material: 'a', curves: figureCurves({ form: 'heart', widthMm: 20, heightMm: 20 }), widthMm: 20, mirrored: false, copies: 4 }], sheet: of.job.layout.sheet, gapMm: 2, box: { on: false, marginMm: 0 }, seconds: 0.2 }),
      variant: () => engine.variant(of),
      parts: () => engine.parts({ ...of, tone: 0 }),
      export: () => engine.export({ ...of, kind: 'svg' }),
      fontsLike: () => engine.fontsLike(figureCurves({ form: 'bar', widthMm: 3, heightMm: 20, ends: 'flat' })),
    };
    for (const [name, call] of Object.entries(calls)) {
      const asked = code(call());
      await engine.cancel();
      expect([name, await asked, await code(call())]).toEqual([name, 'cancelled', 'fine']);
    }
    // What is not here is over at once.
    expect(CALL_NAMES.filter((name) => !(name in calls)).sort()).toEqual(['cancel', 'drawing', 'fontName', 'fontsWith', 'open', 'prepare', 'region', 'warm']);
  }, 60_000);
});

describe('client', () => {
  /** A worker that never answers and can be made to fail. */
  class SilentWorker extends EventTarget {
    terminated = false;
    postMessage(): void {
      // Never answers.
    }
    start(): void {
      // Nothing to start.
    }
    terminate(): void {
      this.terminated = true;
    }
  }

  it('ends everything pending when its worker is lost, and starts another', async () => {
    const workers: SilentWorker[] = [];
    const client = engineClient(() => {
      const worker = new SilentWorker();
      workers.push(worker);
      return worker as unknown as Worker;
    });
    const pending = code(client.cancel());
    workers[0].dispatchEvent(new Event('error'));
    expect(await pending).toBe('workerLost');
    expect(workers[0].terminated).toBe(true);
    const next = code(client.cancel());
    expect(workers).toHaveLength(2);
    client.stop();
    expect(await next).toBe('cancelled');
  });
});

describe('the engine and the command line', () => {
  const flags = paintedArt(90, 60, (x, y) => (y < 10.3 || y > 49.6 || x < 10.4 || x > 79.7 ? WHITE : Math.hypot(x - 45, y - 30) < 12.3 ? { r: 242, g: 182, b: 50 } : x < 44.6 ? { r: 179, g: 38, b: 46 } : { r: 36, g: 80, b: 154 }));
  const enlarging = { kind: 'enlarging', id: 'e', enabled: true, v: 1, times: 2 } as const;
  const sweep = { kind: 'sweep', id: 's', enabled: true, v: 1, speckMm2: 1, pinholeMm2: 1 } as const;

  /** What the command line cuts of the flags. */
  function cutOf(of: Job): CutResult {
    const part = tracedPart(of);
    return finish(cutJob(of, new Map([[part.id, finish(cleanPart(part, flags.colour, 'flags'))]])));
  }

  it('outline the same curves after every recipe, also after enlarging', async () => {
    const faults: string[] = [];
    const engine = new LocalEngine(decodeFile, { onFault: (words) => faults.push(words) });
    const { pictureKey } = await engine.open(writePng(flags.colour), 'flags.png');
    for (const recipe of [[], [enlarging], [enlarging, sweep], [sweep]]) {
      for (const separation of [{ way: 'flat', count: 4, meet: 'inset' }, { way: 'oneTone', source: 'threshold', threshold: 'auto', inkIs: 'auto' }] as const) {
        const wanted = job({ recipe, separation });
        const { cut } = await engine.run({ pictureKey, job: wanted, quality: 'final' });
        const here = cutOf(wanted);
        expect(cut?.design.layers.map(({ curves }) => [...curves.coords])).toEqual(here.design.layers.map(({ curves }) => [...curves.coords]));
      }
    }
    expect(faults).toEqual([]);
  });

  it('read how coarse the picture is from the picture, not from what it was enlarged to', () => {
    const wide = (recipe: TracedPart['recipe']): number | undefined => {
      const cut = cutOf(sizedJob(job({ recipe }), 300));
      return cut.findings.find(({ kind }) => kind === 'coarsePicture')?.size;
    };
    const plain = wide([]) as number;
    expect(Math.abs((wide([enlarging]) as number) - plain)).toBeLessThan(0.1 * plain);
    expect(plain).toBeLessThan(10);
  });
});

describe('drawings and fonts that come in', () => {
  it('are read at their true size, named by what they are, and refused with what to do', async () => {
    const engine = new LocalEngine(decodeFile, { tools: shapeTools });
    const bytes = (text: string): Uint8Array<ArrayBuffer> => new TextEncoder().encode(text);
    const { widthMm, layers } = await engine.drawing(bytes('<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><rect width="10" height="10" fill="#b3262e"/></svg>'), 'anchor.svg');
    expect([Math.round(widthMm), layers.map(({ colour }) => colour)]).toEqual([60, ['#b3262e']]);
    expect(await code(engine.drawing(bytes('<svg'), 'broken.svg'))).toBe('badDrawing');
    expect(await code(engine.drawing(bytes('x'), 'drawing.doc'))).toBe('badValue');
    expect(await engine.fontName(new Uint8Array(await readFile(fontPath(SHIPPED_FONTS[0]))), 'some.woff2')).toContain('Archivo');
    expect(await code(engine.fontName(bytes('no font'), 'no.ttf'))).toBe('badFont');
    expect(await engine.fontsWith('Żeglarz')).toEqual(['Archivo Black', 'Hanken Grotesk', 'Montserrat']);
    expect(await engine.fontsWith('漢')).toEqual([]);
    expect(await code(new LocalEngine(decodeFile).fontName(bytes('no font'), 'no.ttf'))).toBe('unexpected');
  }, 30_000);
});
