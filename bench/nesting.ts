import { execFile } from 'node:child_process';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { areaOf, NEST_SETS, type NestSet, type Point } from './nestSets.ts';

/** What is used of the packer, which is installed for the bench alone. */
interface Packer {
  addArray(rectangles: readonly { readonly width: number; readonly height: number }[]): void;
  readonly bins: readonly { readonly width: number; readonly height: number }[];
}

// Its package names a module that does not export what it should.
const { MaxRectsPacker } = (await import('maxrects-packer/dist/maxrects-packer.mjs' as string)) as { MaxRectsPacker: new (width: number, height: number, padding: number, options: object) => Packer };

const SECONDS = 5;
const LIMNER = fileURLToPath(new URL('../scripts/limner.mjs', import.meta.url));
const run = promisify(execFile);

/** Nesting by the command line in five seconds, parts turned any way and not at all, beside a packer of the rectangles around them that may turn them by quarters. */
export async function benchNesting(): Promise<void> {
  console.log(`\nNesting, ${SECONDS} s, share of the used length that is parts\n\n| | rectangles | turned any way | | not turned | |\n|---|---|---|---|---|---|`);
  const ratios: number[][] = [[], []];
  for (const set of NEST_SETS) {
    const packed = utilisation(set, packedLength(set));
    const cells: string[] = [];
    for (const [k, turns] of ['free', 'none'].entries()) {
      const own = await nested(set, turns);
      ratios[k].push(own / packed);
      cells.push(`${percent(own)} | ${(own / packed).toFixed(2)} ×`);
    }
    console.log(`| ${set.name} | ${percent(packed)} | ${cells.join(' | ')} |`);
  }
  console.log(`\nleast ${ratios.map((each) => `${Math.min(...each).toFixed(2)} ×`).join(', ')}, median ${ratios.map((each) => `${each.sort((a, b) => a - b)[Math.floor(each.length / 2)].toFixed(2)} ×`).join(', ')}\n`);
}

const percent = (share: number): string => `${(100 * share).toFixed(1)} %`;
const utilisation = ({ parts, widthMm }: NestSet, lengthMm: number): number => parts.reduce((sum, part) => sum + areaOf(part), 0) / (widthMm * lengthMm);

/** The shortest strip on which the packer lays all rectangles. */
function packedLength({ parts, widthMm }: NestSet): number {
  const sizes = parts.map((part) => [0, 1].map((axis) => Math.max(...part.map((point) => point[axis])) - Math.min(...part.map((point) => point[axis]))));
  const fits = (lengthMm: number): boolean => {
    const packer = new MaxRectsPacker(lengthMm, widthMm, 0, { smart: false, pot: false, square: false, allowRotation: true });
    packer.addArray(sizes.map(([width, height]) => ({ width, height })));
    return packer.bins.length === 1 && packer.bins.every((bin) => bin.width <= lengthMm && bin.height <= widthMm);
  };
  let [low, high] = [0, 4000];
  while (high - low > 0.25) {
    const middle = (low + high) / 2;
    if (fits(middle)) high = middle;
    else low = middle;
  }
  return high;
}

async function nested({ parts, widthMm }: NestSet, turns: string): Promise<number> {
  const folder = await mkdtemp(join(tmpdir(), 'limner-nest-'));
  const files = await Promise.all(
    parts.map(async (part, k) => {
      const file = join(folder, `part-${k + 1}.svg`);
      await writeFile(file, svgOf(part));
      return file;
    }),
  );
  await run(process.execPath, [LIMNER, 'nest', ...files, '--sheet', `4000mmx${widthMm}mm`, '--gap', '0', '--turns', turns, '--seconds', String(SECONDS), '--out', join(folder, 'out')]);
  return (JSON.parse(await readFile(join(folder, 'out', 'report.json'), 'utf8')) as { utilisation: number }).utilisation;
}

function svgOf(part: readonly Point[]): string {
  const [left, top] = [0, 1].map((axis) => Math.min(...part.map((point) => point[axis])));
  const at = part.map(([x, y]) => `${x - left} ${y - top}`).join('L');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200"><path d="M${at}Z"/></svg>`;
}
