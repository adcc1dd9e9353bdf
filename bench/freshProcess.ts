import { execFile } from 'node:child_process';
import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { fileURLToPath } from 'node:url';
import { promisify } from 'node:util';
import { bundleProgram } from '../scripts/build.mjs';

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url));
const runFile = promisify(execFile);

/**
 * A program of the bench, bundled as the command is, to be run in a process of its own; the libraries stay where they are, as native code and WebAssembly want
 * it.
 * @returns what runs it and gives what it prints.
 */
export async function freshProcess(program: string): Promise<(...args: readonly string[]) => Promise<string>> {
  const { dependencies } = JSON.parse(await readFile(here('./package.json'), 'utf8')) as { dependencies: Record<string, string> };
  const entryFileNames = `${basename(program, '.ts')}.mjs`;
  await bundleProgram(here(`./${program}`), here('./build'), { entryFileNames }, ['sharp', '@resvg/resvg-wasm', 'libheif-js', ...Object.keys(dependencies)]);
  return async (...args) => (await runFile(process.execPath, [here(`./build/${entryFileNames}`), ...args])).stdout;
}
