import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { readFile } from 'node:fs/promises';
import * as fontkit from 'fontkit';
import type { MainModule } from 'clipper2-wasm/dist/clipper2z';
import { isAppError } from '../src/core/errors/appError.ts';
import { figureCurves } from '../src/core/figure/figureCurves.ts';
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
  const dxf = writeDxf([{ film: { id: 'a', name: 'Rust', colour: '#bf5430' }, ending: '', curves: star }], 60);
  const hpgl = writePlotter({ film: { id: 'a', name: 'Rust', colour: '#bf5430' }, widthMm: 60, heightMm: 60, runs: [{ role: 'cut', curves: star, order: Int32Array.of(0) }] }, { fine: true });
  const readers: readonly (readonly [string, Uint8Array, (bytes: Uint8Array) => unknown])[] = [
    ['SVG', text(SVG), (bytes) => readSvg(library, bytes, 'x.svg')],
    ['DXF', text(dxf), (bytes) => readDxf(bytes, 'x.dxf')],
    ['plotter language', text(hpgl), (bytes) => plotterDrawing(bytes, 'x.hpgl')],
    ['list of names', text('Name,Number\n"Ada, of the mill",7\nBela;8\n\nCato,"9"\n'), (bytes) => readNames(bytes, 'x.csv')],
    ['font', font, (bytes) => fontFace(fontkit as unknown as FontLibrary, bytes, 'x.woff2').shape('Regatta')],
  ];
  console.log('\n### Damaged files\n\n| reader | read | refused | broke | longest ms |\n|---|---|---|---|---|');
  for (const [name, bytes, read] of readers) {
    let [fine, refused, broke, longest] = [0, 0, 0, 0];
    for (let seed = 0; seed < MUTATIONS; seed++) {
      const from = performance.now();
      try {
        read(mutated(bytes, seed));
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
