import { version } from '../package.json' with { type: 'json' };
import { isAppError } from '../src/core/errors/appError.ts';
import { explain } from '../src/core/errors/explain.ts';
import { parseArguments } from './arguments.ts';
import { again } from './commands/again.ts';
import { auto } from './commands/auto.ts';
import type { Command, Console } from './commands/command.ts';
import { clean } from './commands/clean.ts';
import { combine } from './commands/combine.ts';
import { check } from './commands/check.ts';
import { decal } from './commands/decal.ts';
import { exportFiles } from './commands/export.ts';
import { fontOfPicture } from './commands/fontOf.ts';
import { fonts } from './commands/fonts.ts';
import { importDrawing } from './commands/import.ts';
import { letter } from './commands/letter.ts';
import { lift } from './commands/lift.ts';
import { look } from './commands/look.ts';
import { marks } from './commands/marks.ts';
import { nestParts } from './commands/nest.ts';
import { offset } from './commands/offset.ts';
import { proof } from './commands/proof.ts';
import { ticket } from './commands/ticket.ts';
import { together } from './commands/together.ts';
import { report } from './commands/report.ts';
import { run } from './commands/run.ts';
import { square } from './commands/square.ts';
import { stencil } from './commands/stencil.ts';
import { trace } from './commands/trace.ts';

const COMMANDS: Readonly<Record<string, Command>> = { look, clean, lift, square, marks, trace, run, auto, again, report, import: importDrawing, combine, offset, nest: nestParts, together, stencil, decal, check, proof, export: exportFiles, ticket, fonts, letter, 'font-of': fontOfPicture };

function overview(): string {
  const lines = Object.entries(COMMANDS).map(([name, command]) => `  ${name.padEnd(8)}${command.about}`);
  return `limner: pictures to cut files, without the interface\n\nUsage: limner COMMAND ... [--help]\n\n${lines.join('\n')}\n\nReads PNG, JPEG, WebP, GIF, BMP, TIFF, HEIC and SVG.\n“limner COMMAND --help” or “-h” says what it takes; “limner --version” which Limner it is.\nExit codes: 0 done, 1 a picture could not be done, 2 the command was not understood, 130 stopped.\n`;
}

function helpOf(command: Command): string {
  const entries = Object.entries(command.options);
  const width = Math.max(...entries.map(([name]) => name.length)) + 4;
  const options = entries.map(([name, { takes, about }]) => `  ${`--${name}`.padEnd(width)}${about}${takes === undefined ? '' : `\n  ${''.padEnd(width)}takes ${takes}`}`).join('\n');
  return `Usage: ${command.usage}\n\n${command.about}\n\n${options}\n${command.notes === undefined ? '' : `\n${command.notes}\n`}`;
}

/** Runs the command line. @returns the exit code. */
export async function main(words: readonly string[], console: Console): Promise<number> {
  const [name, ...rest] = words;
  if (name === '--version') {
    console.out(`limner ${version}\n`);
    return 0;
  }
  if (name === undefined || name === '--help' || name === '-h' || name === 'help') {
    console.out(overview());
    return name === undefined ? 2 : 0;
  }
  const command = Object.hasOwn(COMMANDS, name) ? COMMANDS[name] : undefined;
  if (command === undefined) {
    console.err(`limner: there is no command “${name}”. Commands: ${Object.keys(COMMANDS).join(', ')}.\n`);
    return 2;
  }
  if (rest.includes('--help') || rest.includes('-h')) {
    console.out(helpOf(command));
    return 0;
  }
  try {
    return await command.run(parseArguments(rest, command.options), console);
  } catch (error) {
    if (!isAppError(error)) throw error;
    const { what, todo } = explain(error);
    console.err(`limner ${name}: ${what} ${todo}\n`);
    if (error.code === 'badValue') console.err(`Usage: ${command.usage}\n`);
    return error.code === 'badValue' ? 2 : 1;
  }
}
