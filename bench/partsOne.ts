import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { readFile } from 'node:fs/promises';
import type { ClipType, MainModule } from 'clipper2-wasm/dist/clipper2z';
import * as fontkit from 'fontkit';
import { combineCurves, joinOverlaps } from '../src/core/combine/combineCurves.ts';
import { offsetCurves } from '../src/core/combine/offsetCurves.ts';
import { figureCurves } from '../src/core/figure/figureCurves.ts';
import { followedBy, rotation, translation } from '../src/core/geometry/affine.ts';
import { letterCurves } from '../src/core/lettering/letterCurves.ts';
import { nodeCount, ringCount, type Curves } from '../src/core/outline/curves.ts';
import { flatten } from '../src/core/outline/flatten.ts';
import { joinCurves, transformCurves } from '../src/core/outline/transformCurves.ts';
import { hitsAt } from '../src/core/operate/partHits.ts';
import { piecesIndex } from '../src/core/operate/piecesIndex.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { polygonLibrary } from '../src/formats/polygons/polygonLibrary.ts';

const FLAT_MM = 0.01;
const ROUNDS = 5;
const require = createRequire(import.meta.url);

async function clipper(): Promise<MainModule> {
  const file = require.resolve('clipper2-wasm/dist/umd/clipper2z.js');
  const start = require(file) as (options: { wasmBinary: Uint8Array }) => Promise<MainModule>;
  return start({ wasmBinary: await readFile(join(dirname(file), 'clipper2z.wasm')) });
}

function timed<Value>(work: () => Value): { readonly ms: number; readonly value: Value } {
  const times: number[] = [];
  let value = work();
  for (let round = 0; round < ROUNDS; round++) {
    const start = performance.now();
    value = work();
    times.push(performance.now() - start);
  }
  return { ms: times.sort((a, b) => a - b)[ROUNDS >> 1], value };
}

/** Two thousand parts of some hundred thousand nodes: lettering with rounds among it. */
function manyParts(line: Curves): Curves {
  const round = figureCurves({ form: 'star', widthMm: 6, heightMm: 6, corners: 9, depth: 0.4, cornerMm: 0.4 });
  const rows = Array.from({ length: 42 }, (_, k) => transformCurves(line, translation(0, k * 14)));
  const stars = Array.from({ length: 700 }, (_, k) => transformCurves(round, translation(460 + (k % 20) * 9, Math.floor(k / 20) * 9)));
  return joinCurves([...rows, ...stars]);
}

async function measure(): Promise<void> {
  const module = await clipper();
  const library = polygonLibrary(module);
  const file = require.resolve('@fontsource/lora/files/lora-latin-700-normal.woff2');
  const face = fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await readFile(file)), 'Lora', 'Lora');
  const line = letterCurves(library, face, { text: 'Regatta on the village pond 1886 & rowing home', font: 'Lora', heightMm: 9 }).curves;
  const all = joinOverlaps(library, manyParts(line));
  const other = transformCurves(all, followedBy(rotation(0.02, 0, 0), translation(3, 2)));
  console.log(`\n### ${ringCount(all)} rings, ${nodeCount(all)} nodes\n\n| what | ms | nodes | library ms | library nodes | time | nodes |\n|---|---|---|---|---|---|---|`);
  const row = (what: string, own: { ms: number; value: Curves }, theirs: { ms: number; value: number }): void =>
    console.log(`| ${what} | ${own.ms.toFixed(0)} | ${nodeCount(own.value)} | ${theirs.ms.toFixed(0)} | ${theirs.value} | ${(own.ms / theirs.ms).toFixed(2)} | ${(nodeCount(own.value) / theirs.value).toFixed(2)} |`);
  const paths = (curves: Curves): InstanceType<MainModule['Paths64']> => {
    const { points, starts } = flatten(curves, FLAT_MM);
    const made = new module.Paths64();
    for (let ring = 0; ring + 1 < starts.length; ring++) {
      const values = new BigInt64Array((starts[ring + 1] - starts[ring]) * 3);
      for (let k = starts[ring], i = 0; k < starts[ring + 1]; k++) {
        values[i++] = BigInt(Math.round(points[2 * k] * 1e4));
        values[i++] = BigInt(Math.round(points[2 * k + 1] * 1e4));
        values[i++] = 0n;
      }
      const path = new module.Path64();
      path.assign(values);
      made.push_back(path);
      path.delete();
    }
    return made;
  };
  const counted = (made: InstanceType<MainModule['Paths64']>): number => {
    let nodes = 0;
    for (let k = 0; k < made.size(); k++) {
      const path = made.get(k);
      nodes += path.size();
      path.delete();
    }
    return nodes;
  };
  const theirs = (type: ClipType): { ms: number; value: number } =>
    timed(() => {
      const [subject, clip, out] = [paths(all), paths(other), new module.Paths64()];
      const run = module.CreateClipper64(true);
      run.AddSubject(subject);
      run.AddClip(clip);
      run.ExecutePath(type, module.FillRule.NonZero, out);
      const nodes = counted(out);
      for (const each of [run, subject, clip, out]) each.delete();
      return nodes;
    });
  row('join', timed(() => combineCurves(library, 'join', all, other)), theirs(module.ClipType.Union));
  row('cut out', timed(() => combineCurves(library, 'cutOut', all, other)), theirs(module.ClipType.Difference));
  row('common part', timed(() => combineCurves(library, 'common', all, other)), theirs(module.ClipType.Intersection));
  for (const byMm of [0.3, -0.3]) {
    const inflated = timed(() => {
      const subject = paths(all);
      const out = module.InflatePaths64(subject, byMm * 1e4, module.JoinType.Round, module.EndType.Polygon, 2, FLAT_MM * 1e4);
      const nodes = counted(out);
      for (const each of [subject, out]) each.delete();
      return nodes;
    });
    row(`offset by ${byMm} mm`, timed(() => offsetCurves(library, all, byMm)), inflated);
  }
  const typed = timed(() => letterCurves(library, face, { text: 'Harbour Mile 1886', font: 'Lora', heightMm: 30 }));
  const part = { id: 'all', box: { left: 0, top: 0, right: 1, bottom: 1 }, layers: [{ filmId: 'ink', curves: all }] };
  const first = performance.now();
  piecesIndex(all);
  const indexed = performance.now() - first;
  const pointed = timed(() => hitsAt([part], ['ink'], 200, 200, 1));
  console.log(`\nA keystroke to outline: ${typed.ms.toFixed(1)} ms. Pointing at one of the parts: ${pointed.ms.toFixed(1)} ms, the first time ${indexed.toFixed(0)} ms.`);
}

await measure();
