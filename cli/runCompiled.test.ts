import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';

let folder = '';
let program = '';
const kept = (): string => `${program}.v8`;
const runCompiled = new URL('../scripts/runCompiled.mjs', import.meta.url).href;
/** What the program prints when it is run in a process of its own. */
const printed = (command: string): string => execFileSync(process.execPath, ['--input-type=module', '-e', `import { runCompiled } from '${runCompiled}'; runCompiled(${JSON.stringify(program)});`, '-', command], { encoding: 'utf8' });

beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'compiled-'));
  program = join(folder, 'program.cjs');
  writeFileSync(program, "const { basename } = require('node:path'); const twice = (n) => 2 * n; console.log(basename(__filename), twice(21));");
});
afterEach(() => rmSync(folder, { recursive: true }));

describe('a program that keeps what was compiled of it', () => {
  it('keeps it when a command ends that uses most of the code, and does the same with it', () => {
    expect(printed('help')).toBe('program.cjs 42\n');
    expect(existsSync(kept())).toBe(false);
    expect(printed('trace')).toBe('program.cjs 42\n');
    const { mtimeMs, size } = statSync(kept());
    expect(size).toBeGreaterThan(100);
    expect(printed('trace')).toBe('program.cjs 42\n');
    // It was used, so it was not made again.
    expect(statSync(kept()).mtimeMs).toBe(mtimeMs);
  });

  it('is not led astray by damage, nor by what was kept of an older program', () => {
    printed('trace');
    const good = readFileSync(kept());
    writeFileSync(kept(), good.subarray(0, good.length >> 1));
    expect(printed('help')).toBe('program.cjs 42\n');
    writeFileSync(kept(), 'nothing of the kind');
    expect(printed('trace')).toBe('program.cjs 42\n');
    writeFileSync(program, "console.log('another');");
    expect(printed('trace')).toBe('another\n');
  });

  it('is what the command is run as: libraries that are loaded when they are needed are found then too', () => {
    const drawn = join(folder, 'row.svg');
    writeFileSync(drawn, '<svg xmlns="http://www.w3.org/2000/svg" width="60" height="40"><circle cx="30" cy="20" r="12"/></svg>');
    const pictures = [drawn, new URL('../tests/fixtures/disc.heic', import.meta.url).pathname];
    // The first time may bundle and keep, the second uses what was kept.
    for (const _ of [1, 2]) {
      for (const picture of pictures) {
        const out = join(folder, 'out.svg');
        execFileSync(process.execPath, [new URL('../scripts/limner.mjs', import.meta.url).pathname, 'trace', picture, '--out', out, '--force'], { encoding: 'utf8' });
        expect(readFileSync(out, 'utf8')).toContain('<path');
      }
      for (const words of [['letter', 'Row', '--font', 'Pacifico', '--height', '20mm', '--join'], ['offset', drawn, '--by', '2mm']]) {
        const out = join(folder, 'out.svg');
        execFileSync(process.execPath, [new URL('../scripts/limner.mjs', import.meta.url).pathname, ...words, '--out', out, '--force'], { encoding: 'utf8' });
        expect(readFileSync(out, 'utf8')).toContain('<path');
      }
    }
  }, 60_000);
});
