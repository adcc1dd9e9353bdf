import { stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { AppError, isAppError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import { required, type Parsed } from './arguments.ts';
import type { Console } from './commands/command.ts';

/** File names without ending, numbered where two inputs share one. */
export function uniqueNames(inputs: readonly string[]): string[] {
  const seen = new Map<string, number>();
  return inputs.map((input) => {
    const name = basename(input, extname(input));
    const times = (seen.get(name) ?? 0) + 1;
    seen.set(name, times);
    return times === 1 ? name : `${name}-${times}`;
  });
}

/**
 * Runs `work` for every input with the path of its output: the file that `--out` names, or NAME plus ending in the folder that it names, which is meant when
 * there are several inputs or the folder exists. One input that fails is told and the others go on.
 * @returns exit code 0 when all are done, 1 otherwise. @throws AppError when nothing can be started, or of the only input.
 */
export async function eachInput(parsed: Parsed, console: Console, ending: string, work: (input: string, output: string) => Promise<void>): Promise<number> {
  const { inputs } = parsed;
  if (inputs.length === 0) throw new AppError('badValue', { name: 'The input', value: 'nothing', takes: 'at least one picture file' });
  const out = required(parsed, 'out', inputs.length === 1 ? `the ${ending} file to write` : 'a folder');
  if (inputs.length === 1 && !(await isFolder(out))) {
    await work(inputs[0], out);
    return 0;
  }
  let failed = 0;
  for (const [index, name] of uniqueNames(inputs).entries()) {
    if (console.live) console.err(`\r${index + 1}/${inputs.length} ${name}\u001b[K`);
    try {
      await work(inputs[index], join(out, `${name}${ending}`));
    } catch (error) {
      if (!isAppError(error)) throw error;
      failed++;
      const { what, todo } = explain(error);
      console.err(`${console.live ? '\r\u001b[K' : ''}${basename(inputs[index])}: ${what} ${todo}\n`);
    }
  }
  if (console.live) console.err('\r\u001b[K');
  console.out(`${inputs.length - failed} of ${inputs.length} pictures done\n`);
  return failed === 0 ? 0 : 1;
}

async function isFolder(path: string): Promise<boolean> {
  if (/[/\\]$/.test(path)) return true;
  return stat(path).then((info) => info.isDirectory(), () => false);
}
