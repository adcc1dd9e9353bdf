import { parseArgs } from 'node:util';
import { AppError } from '../src/core/errors/appError.ts';
import { DRAWN_SIDE_PX, LEAST_DRAWN_SIDE_PX, MOST_DRAWN_SIDE_PX } from '../src/formats/picture/drawSvg.ts';
import { parseLength } from '../src/core/units/parseLength.ts';

/** What an option takes: nothing, or a word shown in the help. */
export interface OptionSpec {
  readonly takes?: string;
  readonly about: string;
}

export interface Parsed {
  readonly inputs: readonly string[];
  /** The options as they were written, without `--out` and `--force`, in their order. */
  readonly options: readonly string[];
  readonly values: ReadonlyMap<string, string>;
}

/** Reads `--name value`, `--name=value` and inputs; `--` ends the options. @throws AppError `badValue` for what the command does not know. */
export function parseArguments(words: readonly string[], options: Readonly<Record<string, OptionSpec>>): Parsed {
  const types = Object.fromEntries(Object.entries(options).map(([name, { takes }]) => [name, { type: takes === undefined ? 'boolean' : 'string' } as const]));
  const { tokens, positionals } = parseArgs({ args: [...words], options: types, strict: false, allowPositionals: true, tokens: true });
  const given: string[] = [];
  const values = new Map<string, string>();
  for (const token of tokens) {
    if (token.kind !== 'option') continue;
    const { name, rawName, value, inlineValue } = token;
    const spec = rawName.startsWith('--') && Object.hasOwn(options, name) ? options[name] : undefined;
    if (spec === undefined) throw new AppError('badValue', { name: 'An option', value: rawName, takes: `one of ${Object.keys(options).map((o) => `--${o}`).join(', ')}` });
    if (spec.takes === undefined && value !== undefined) throw new AppError('badValue', { name: rawName, value, takes: 'no value' });
    if (spec.takes !== undefined && (value === undefined || (inlineValue !== true && value.startsWith('--')))) throw new AppError('badValue', { name: rawName, value: value ?? 'nothing', takes: spec.takes });
    values.set(name, value ?? '');
    if (name !== 'out' && name !== 'force') given.push(value === undefined ? rawName : `${rawName}=${value}`);
  }
  return { inputs: positionals, values, options: given };
}

/** For commands that write files. */
export const FORCE_OPTION = { force: { about: 'write over an input where that is meant' } } as const satisfies Record<string, OptionSpec>;

/** For commands that read pictures: at what size an SVG becomes one. */
export const DRAW_OPTION = { 'draw-px': { takes: `px, ${LEAST_DRAWN_SIDE_PX} to ${MOST_DRAWN_SIDE_PX}`, about: `long side at which an SVG is drawn (default: ${DRAWN_SIDE_PX})` } } as const satisfies Record<string, OptionSpec>;
export const drawnSide = (parsed: Parsed): { drawnSidePx: number | undefined } => ({ drawnSidePx: numberOption(parsed, 'draw-px', LEAST_DRAWN_SIDE_PX, MOST_DRAWN_SIDE_PX) });

export function required(parsed: Parsed, name: string, takes: string): string {
  const value = parsed.values.get(name);
  if (value === undefined || value === '') throw new AppError('badValue', { name: `--${name}`, value: 'nothing', takes });
  return value;
}

/** Numbers with commas between them, as many as one of the counts. */
export function numbersOption(parsed: Parsed, name: string, counts: readonly number[], takes: string): number[] {
  const text = parsed.values.get(name) ?? '';
  const values = text.split(',').map((part) => (part.trim() === '' ? NaN : Number(part)));
  if (!counts.includes(values.length) || !values.every(Number.isFinite)) throw new AppError('badValue', { name: `--${name}`, value: text, takes });
  return values;
}

/** A number within a range, or undefined when the option is not given. */
export function numberOption(parsed: Parsed, name: string, least: number, most: number, whole = false): number | undefined {
  const text = parsed.values.get(name);
  if (text === undefined) return undefined;
  const value = text.trim() === '' ? NaN : Number(text);
  if (!(value >= least && value <= most) || (whole && !Number.isInteger(value))) {
    throw new AppError('badValue', { name: `--${name}`, value: text, takes: `a ${whole ? 'whole ' : ''}number from ${least} to ${most}` });
  }
  return value;
}

/** A number within a range or the word `auto` (the default). */
export function autoOrNumber(parsed: Parsed, name: string, least: number, most: number): 'auto' | number {
  const text = parsed.values.get(name);
  if (text === undefined || text === 'auto') return 'auto';
  try {
    return numberOption(parsed, name, least, most) ?? 'auto';
  } catch (error) {
    throw new AppError('badValue', { name: `--${name}`, value: text, takes: `auto or a number from ${least} to ${most}` }, error);
  }
}

/** One of some words, or undefined when the option is not given. */
export function choiceOption<Choice extends string>(parsed: Parsed, name: string, choices: readonly Choice[]): Choice | undefined {
  const text = parsed.values.get(name);
  const found = choices.find((choice) => choice === text);
  if (text !== undefined && found === undefined) throw new AppError('badValue', { name: `--${name}`, value: text, takes: choices.join(' or ') });
  return found;
}

/** A length in mm, or undefined. A bare number is mm. @param least and @param most of it, mm. */
export function lengthOption(parsed: Parsed, name: string, least = 1, most = 10_000): number | undefined {
  const text = parsed.values.get(name);
  if (text === undefined) return undefined;
  const length = parseLength(text, 'mm');
  if (length === undefined || !(length >= least && length <= most)) throw new AppError('badValue', { name: `--${name}`, value: text, takes: `a length from ${least} mm to ${most >= 1000 ? `${most / 1000} m` : `${most} mm`} such as ${least < 1 ? '2mm, 0.4mm' : '200mm, 20cm'} or "3 1/2 in"` });
  return length;
}

export function oneInput(parsed: Parsed): string {
  if (parsed.inputs.length === 1) return parsed.inputs[0];
  throw new AppError('badValue', { name: 'The input', value: parsed.inputs.length === 0 ? 'nothing' : parsed.inputs.join(' '), takes: 'exactly one picture file' });
}
