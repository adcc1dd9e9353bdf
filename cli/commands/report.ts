import { readdir, readFile, stat } from 'node:fs/promises';
import { join } from 'node:path';
import { AppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import { FORCE_OPTION } from '../arguments.ts';
import { reasonOf } from '../files.ts';
import { Outputs } from '../outputs.ts';
import { entriesOf, entriesOfLines, type RunEntry } from '../runReport.ts';
import type { Command } from './command.ts';

export const report: Command = {
  usage: 'limner report DIR... [--out OUT.json] [--force]',
  about: 'Puts the reports of runs together: those of all parts in one folder, or in several.',
  options: {
    out: { takes: 'a JSON file', about: 'the whole report (default: only a summary is printed)' },
    ...FORCE_OPTION,
  },
  notes: 'Reads report.json and report-1-of-8.json and so on, and what a run that was broken off left. A picture that is in several counts once, as it went last. The exit code is 1 when a picture failed.',
  async run(parsed, console) {
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The folders', value: 'nothing', takes: 'at least one folder that “limner run” wrote to' });
    const pictures = new Map<string, RunEntry & { readonly folder: string }>();
    for (const folder of parsed.inputs) for (const entry of await entriesIn(folder)) pictures.set(join(folder, entry.name), { folder, ...entry });
    const entries = [...pictures.values()];
    if (entries.length === 0) throw new AppError('badValue', { name: 'The folders', value: parsed.inputs.join(' '), takes: 'folders with a report of “limner run” in them' });
    const failed = entries.filter(({ ok }) => !ok);
    const out = parsed.values.get('out');
    if (out !== undefined) {
      const outputs = await Outputs.of(parsed.inputs, parsed.values.has('force'));
      await outputs.write(out, `${JSON.stringify({ done: entries.length - failed.length, failed: failed.length, pictures: entries }, null, 2)}\n`);
    }
    for (const { input, error } of failed) {
      const { what, todo } = explain(error ?? { code: 'unexpected', details: {} });
      console.err(`${input}: ${what} ${todo}\n`);
    }
    console.out(`${entries.length - failed.length} of ${entries.length} pictures done\n`);
    return failed.length === 0 ? 0 : 1;
  },
};

/** What the reports in a folder say, older ones first. @throws AppError `cannotRead` where there is no such folder. */
async function entriesIn(folder: string): Promise<RunEntry[]> {
  const names = await readdir(folder).catch((error: unknown) => {
    throw new AppError('cannotRead', { file: folder, message: reasonOf(error) }, error);
  });
  const reports = names.filter((name) => /^report(-\d+-of-\d+)?(\.growing\.jsonl|\.json)$/.test(name));
  const dated = await Promise.all(reports.map(async (name) => ({ name, at: (await stat(join(folder, name))).mtimeMs })));
  const found: RunEntry[] = [];
  for (const { name } of dated.sort((a, b) => a.at - b.at)) {
    const text = await readFile(join(folder, name), 'utf8');
    found.push(...(name.endsWith('.jsonl') ? entriesOfLines(text) : entriesOf(text)));
  }
  return found;
}
