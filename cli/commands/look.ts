import { basename } from 'node:path';
import { AppError, isAppError } from '../../src/core/errors/appError.ts';
import { explain } from '../../src/core/errors/explain.ts';
import { firstLook, type FirstLook } from '../../src/core/job/firstLook.ts';
import { DRAW_OPTION, drawnSide } from '../arguments.ts';
import { readPicture } from '../files.ts';
import type { Command } from './command.ts';

interface Seen extends FirstLook {
  readonly input: string;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly statedDpi?: number;
}

const KINDS = { line: 'line drawing', flat: 'flat colour', shaded: 'shaded', photo: 'photo' } as const;

export const look: Command = {
  usage: 'limner look IN... [--json]',
  about: 'Says what kind of picture it is and how to start with it.',
  options: { ...DRAW_OPTION, json: { about: 'print one JSON list instead of text' } },
  async run(parsed, console) {
    if (parsed.inputs.length === 0) throw new AppError('badValue', { name: 'The input', value: 'nothing', takes: 'at least one picture file' });
    const seen: Seen[] = [];
    let failed = 0;
    for (const input of parsed.inputs) {
      try {
        const { picture, statedDpi } = await readPicture(input, drawnSide(parsed));
        const found = { input: basename(input), widthPx: picture.width, heightPx: picture.height, ...firstLook(picture) };
        seen.push(statedDpi === undefined ? found : { ...found, statedDpi });
      } catch (error) {
        if (!isAppError(error)) throw error;
        failed++;
        const { what, todo } = explain(error);
        console.err(`${basename(input)}: ${what} ${todo}\n`);
      }
    }
    console.out(parsed.values.has('json') ? `${JSON.stringify(seen, null, 2)}\n` : seen.map(inWords).join(''));
    return failed === 0 ? 0 : 1;
  },
};

function inWords({ input, widthPx, heightPx, statedDpi, kind, sure, tones, noise, words, recipe }: Seen): string {
  const size = `${widthPx} x ${heightPx} px${statedDpi === undefined ? '' : `, ${statedDpi} dpi`}`;
  return `${input}: ${KINDS[kind]} (${Math.round(sure * 100)} % sure), ${size}, ${tones} tones, noise ${noise.toFixed(1)}\n  ${words}\n  Start with: ${recipe.map((step) => step.kind).join(', ')}\n`;
}
