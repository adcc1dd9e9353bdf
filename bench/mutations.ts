import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { readFile } from 'node:fs/promises';
import * as fontkit from 'fontkit';
import type { MainModule } from 'clipper2-wasm/dist/clipper2z';
import { isAppError } from '../src/core/errors/appError.ts';
import { figureCurves } from '../src/core/figure/figureCurves.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { readJob } from '../src/core/job/readJob.ts';
import { makeRgba8 } from '../src/core/raster/raster.ts';
import { pxPerMm } from '../src/core/units/length.ts';
import { readWorkshop, USUAL_WORKSHOP_FILE, writeWorkshop } from '../src/core/workshop/workshop.ts';
import { readArchive, writeArchive } from '../src/formats/archive/archive.ts';
import { jobsInZip, jobsZip } from '../src/formats/archive/jobsZip.ts';
import { checkPicture } from '../src/formats/picture/checkPicture.ts';
import { pictureIdOf } from '../src/formats/picture/pictureId.ts';
import { statedDpi } from '../src/formats/picture/statedDpi.ts';
import { writePng } from '../src/formats/picture/writePng.ts';
import { writeDxf } from '../src/formats/dxf/writeDxf.ts';
import { readDxf } from '../src/formats/dxf/readDxf.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { readNames } from '../src/formats/names/readNames.ts';
import { polygonLibrary } from '../src/formats/polygons/polygonLibrary.ts';
import { plotterDrawing } from '../src/formats/plotter/plotterDrawing.ts';
import { writePlotter } from '../src/formats/plotter/writePlotter.ts';
import { readSvg } from '../src/formats/svg/readSvg.ts';

const MUTATIONS = 10_000;
const require = createRequire(import.meta.url);
const text = (value: string): Uint8Array => new TextEncoder().encode(value);
/** What a reader of jobs is handed: what is no JSON is refused before it. */
function jsonOf(bytes: Uint8Array): unknown {
  try {
    return JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    return undefined;
  }
}
/** SOI, JFIF with 300 dots per inch, a frame of 24 × 16 and the end. */
const JPEG_HEAD = Uint8Array.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 1, 1, 44, 1, 44, 0, 0, 0xff, 0xc0, 0, 11, 8, 0, 16, 0, 24, 1, 1, 0x11, 0, 0xff, 0xda, 0, 8, 1, 1, 0, 0, 63, 0, 7, 0xff, 0xd9]);
const SVG = `<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><style>.a{fill:#b3262e}</style><defs><clipPath id="c"><rect width="30" height="30"/></clipPath></defs><g transform="rotate(4) scale(1.1)" clip-path="url(#c)"><path class="a" d="M5 5C10 0 20 0 25 5S40 10 45 5V20Q30 30 5 20Z"/><circle cx="30" cy="30" r="8" fill="none" stroke="#3f7d4f" stroke-width="2"/></g><use href="#c" x="3"/><polygon points="1,1 9,2 4,8"/></svg>`;

/** A file with some of its bytes changed, cut out or doubled: numbered, so that what went wrong can be made again. */
function mutated(bytes: Uint8Array, seed: number): Uint8Array {
  let state = seed * 2654435761 + 1;
  const random = (below: number): number => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 0x9e3779b9) >>> 0;
    return state % below;
  };
  let made = Uint8Array.from(bytes);
  for (let change = 0; change <= random(6); change++) {
    const at = random(made.length);
    const kind = random(4);
    if (kind === 0) made[at] = random(256);
    else if (kind === 1) made = made.slice(0, Math.max(1, at));
    else {
      const [from, to] = [at, Math.min(made.length, at + 1 + random(40))];
      const piece = made.slice(from, to);
      made = kind === 2 ? Uint8Array.from([...made.slice(0, from), ...made.slice(to)]) : Uint8Array.from([...made.slice(0, to), ...piece, ...made.slice(to)]);
      if (made.length === 0) made = Uint8Array.of(0);
    }
  }
  return made;
}

/** Ten thousand damaged files for each reader of what comes in: read, or refused with a code, in how long at most. */
export async function benchMutations(): Promise<void> {
  const es = join(dirname(require.resolve('clipper2-wasm')), '..', 'es', 'clipper2z.wasm');
  const start = require('clipper2-wasm') as (options: { wasmBinary: Uint8Array }) => Promise<MainModule>;
  const library = polygonLibrary(await start({ wasmBinary: await readFile(es) }));
  const font = new Uint8Array(await readFile(require.resolve('@fontsource/lora/files/lora-latin-700-normal.woff2')));
  const star = figureCurves({ form: 'star', widthMm: 40, heightMm: 40, corners: 7, depth: 0.5, cornerMm: 2 });
  const job = { ...newJob('Regatta'), keywords: ['crest', 'boats'] };
  const png = writePng(makeRgba8(24, 16, new Uint8Array(24 * 16 * 4).fill(120)), pxPerMm(4));
  const id = await pictureIdOf(png);
  const archive = await writeArchive({ job: { ...job, pictures: [{ id, fileName: 'crest.png', widthPx: 24, heightPx: 16 }] }, pictures: new Map([[id, png]]) });
  const dxf = writeDxf([{ film: { id: 'a', name: 'Rust', colour: '#bf5430' }, ending: '', curves: star }], 60);
  const hpgl = writePlotter({ film: { id: 'a', name: 'Rust', colour: '#bf5430' }, widthMm: 60, heightMm: 60, runs: [{ role: 'cut', curves: star, order: Int32Array.of(0) }] }, { fine: true });
  const readers: readonly (readonly [string, Uint8Array, (bytes: Uint8Array) => unknown])[] = [
    ['SVG', text(SVG), (bytes) => readSvg(library, bytes, 'x.svg')],
    ['DXF', text(dxf), (bytes) => readDxf(bytes, 'x.dxf')],
    ['plotter language', text(hpgl), (bytes) => plotterDrawing(bytes, 'x.hpgl')],
    ['list of names', text('Name,Number\n"Ada, of the mill",7\nBela;8\n\nCato,"9"\n'), (bytes) => readNames(bytes, 'x.csv')],
    ['job archive', archive, (bytes) => readArchive(bytes, 'x.limner')],
    ['several jobs', jobsZip([{ fileName: 'regatta.limner', bytes: archive }, { fileName: 'mug.limner', bytes: archive }]), (bytes) => Promise.all(jobsInZip(bytes, 'x.zip').map((each) => readArchive(each.bytes, each.fileName)))],
    ['job', text(JSON.stringify(job)), (bytes) => readJob(jsonOf(bytes), 'x.json')],
    ['workshop', text(writeWorkshop(USUAL_WORKSHOP_FILE)), (bytes) => readWorkshop(new TextDecoder().decode(bytes), 'x.json')],
    ['head of a PNG', png, (bytes) => [checkPicture(bytes, 'x.png'), statedDpi(bytes, 'png')]],
    ['head of a JPEG', JPEG_HEAD, (bytes) => [checkPicture(bytes, 'x.jpg'), statedDpi(bytes, 'jpg')]],
    ['font', font, (bytes) => fontFace(fontkit as unknown as FontLibrary, bytes, 'x.woff2').shape('Regatta')],
  ];
  console.log('\n### Damaged files\n\n| reader | read | refused | broke | longest ms |\n|---|---|---|---|---|');
  for (const [name, bytes, read] of readers) {
    let [fine, refused, broke, longest] = [0, 0, 0, 0];
    for (let seed = 0; seed < MUTATIONS; seed++) {
      const from = performance.now();
      try {
        await read(mutated(bytes, seed));
        fine++;
      } catch (error) {
        if (isAppError(error)) refused++;
        else if (broke++ === 0) console.log(`${name}, number ${seed}: ${String(error)}`);
      }
      longest = Math.max(longest, performance.now() - from);
    }
    console.log(`| ${name} | ${fine} | ${refused} | ${broke} | ${longest.toFixed(0)} |`);
  }
}
