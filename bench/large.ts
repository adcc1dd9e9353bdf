import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { colourSvgOf, tonesOf } from './colourDrawings.ts';
import { composedDrawing } from './composed.ts';
import { freshProcess } from './freshProcess.ts';

const SIDE_PX = 3464;
const ROUNDS = 3;
/** What is done, and the nearest that a library does. */
const DONE: readonly (readonly [string, string | undefined])[] = [
  ['area lift', undefined],
  ['subject lift', undefined],
  ['tidy', 'native median filter'],
  ['separate', 'layers'],
];

interface Run {
  readonly ms: number;
  /** The longest of it without giving way. */
  readonly deaf: number;
  readonly mb: number;
}

/** Twelve megapixels, each thing in a process that has done nothing before: time and memory at the peak. */
export async function benchLarge(): Promise<void> {
  const folder = await mkdtemp(join(tmpdir(), 'large-'));
  const drawing = composedDrawing(61, 5);
  const file = join(folder, 'large.jpg');
  await sharp(Buffer.from(colourSvgOf(drawing, SIDE_PX, false)), { density: 72 }).flatten({ background: '#fff' }).jpeg({ quality: 90 }).toFile(file);
  const one = await freshProcess('largeOne.ts');
  const measured = async (what: string): Promise<Run> => {
    const runs: Run[] = [];
    for (let round = 0; round < ROUNDS; round++) runs.push(JSON.parse(await one(what, file, ...tonesOf(drawing))) as Run);
    return runs.sort((a, b) => a.ms - b.ms)[ROUNDS >> 1];
  };
  console.log(`\n### ${((SIDE_PX * SIDE_PX) / 1e6).toFixed(0)} megapixels, ${tonesOf(drawing).length} tones\n\n| what | ms | longest until a cancel is heard, ms | MB | library | ms | MB | time | memory |\n|---|---|---|---|---|---|---|---|---|`);
  for (const [what, library] of DONE) {
    const own = await measured(what);
    const theirs = library === undefined ? undefined : await measured(`${what}, library`);
    const beside = theirs === undefined ? '– | – | – | –' : `${theirs.ms.toFixed(0)} | ${theirs.mb.toFixed(0)} | ${(own.ms / theirs.ms).toFixed(2)} | ${(own.mb / theirs.mb).toFixed(2)}`;
    console.log(`| ${what} | ${own.ms.toFixed(0)} | ${own.deaf.toFixed(0)} | ${own.mb.toFixed(0)} | ${library ?? '–'} | ${beside} |`);
  }
  await rm(folder, { recursive: true });
}
