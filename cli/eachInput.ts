import { stat } from 'node:fs/promises';
import { basename, extname, join } from 'node:path';
import { AppError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import { required, type Parsed } from './arguments.ts';
import { STOPPED, type Console } from './commands/command.ts';
import { manyPictures, type PictureWork } from './manyPictures.ts';
import { Outputs } from './outputs.ts';
import { uniqueNames } from './uniqueNames.ts';

/** What a command does with one picture. It speaks to the console that it is given. */
export type Work = (input: string, output: string, outputs: Outputs, console: Console) => Promise<void>;

/**
 * Runs `work` for every input with the path of its output: the file that `--out` names, or NAME plus ending in the folder that it names, which is meant when
 * there are several inputs or the folder exists. Several are done on all cores, each as a command of its own, unless times are to be taken; one that fails is told and the others go on.
 * @param command what the command is called. @param reads files that are read beside the pictures.
 * @returns exit code 0 when all are done, 1 otherwise. @throws AppError when nothing can be started, or of the only input.
 */
export async function eachInput(parsed: Parsed, console: Console, command: string, ending: string, work: Work, reads: readonly string[] = []): Promise<number> {
  const { inputs } = parsed;
  if (inputs.length === 0) throw new AppError('badValue', { name: 'The input', value: 'nothing', takes: 'at least one picture file' });
  const out = required(parsed, 'out', inputs.length === 1 ? `the ${ending} file to write` : 'a folder');
  const outputs = await Outputs.of([...inputs, ...reads], parsed.values.has('force'));
  if (inputs.length === 1 && !(await isFolder(out))) {
    await outputs.check(withEnding(out, ending));
    await work(inputs[0], out, outputs, console);
    return 0;
  }
  await outputs.prepare(out);
  return onAll(parsed, console, command, uniqueNames(inputs).map((name) => join(out, `${name}${ending}`)), outputs, work);
}

async function onAll({ inputs, options, values }: Parsed, console: Console, command: string, names: readonly string[], outputs: Outputs, work: Work): Promise<number> {
  let failed = 0;
  const tell = (index: number, { what, todo }: { what: string; todo: string }): void => {
    console.err(`${console.live ? '\r\u001b[K' : ''}${basename(inputs[index])}: ${what} ${todo}\n`);
    failed++;
  };
  const prefix = `limner ${command}: `;
  const works = inputs.map((input, index): PictureWork => ({
    name: basename(input),
    task: { kind: 'command', words: [command, ...options, `--out=${names[index]}`, '--force', '--', input] },
    async here() {
      let out = '';
      let err = '';
      await work(input, names[index], outputs, { out: (text) => (out += text), err: (text) => (err += text), live: false });
      return { command: { code: 0, out, err } };
    },
  }));
  // Checked here: a thread knows one picture only.
  const refused = await Promise.all(names.map((name) => outputs.check(name).then(() => undefined, (error: AppError) => error)));
  const allowed = inputs.map((_, index) => index).filter((index) => refused[index] === undefined);
  for (const [index, error] of refused.entries()) if (error !== undefined) tell(index, explain(error));
  const refusals = failed;
  const done = await manyPictures(allowed.map((index) => works[index]), console, !values.has('timings'), (answer, k) => {
    const index = allowed[k];
    if ('error' in answer) return tell(index, explain(answer.error));
    if (!('command' in answer)) throw new TypeError('a report where a command was asked for');
    const { code, out, err } = answer.command;
    if (out !== '') console.out(out);
    if (err !== '') console.err(`${console.live ? '\r\u001b[K' : ''}${err.startsWith(prefix) ? `${basename(inputs[index])}: ${err.slice(prefix.length)}` : err}`);
    if (code !== 0) failed++;
  });
  console.out(`${done + refusals - failed} of ${inputs.length} pictures done\n`);
  if (console.interrupted?.aborted === true) return STOPPED;
  return failed === 0 ? 0 : 1;
}

/** @throws AppError `badValue` for a name that says that it is another kind of file. */
export function withEnding(out: string, ...endings: readonly string[]): string {
  if (endings.includes(extname(out).toLowerCase())) return out;
  throw new AppError('badValue', { name: '--out', value: out, takes: `a name that ends in ${endings.join(' or ')}, or a folder that is there` });
}

export async function isFolder(path: string): Promise<boolean> {
  if (/[/\\]$/.test(path)) return true;
  return stat(path).then((info) => info.isDirectory(), () => false);
}
