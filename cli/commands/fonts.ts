import { SHIPPED_FONTS } from '../../src/core/lettering/fonts.ts';
import { fontPath } from '../loadFont.ts';
import type { Command } from './command.ts';

export const fonts: Command = {
  usage: 'limner fonts [--json]',
  about: 'Lists the fonts for lettering, by manner.',
  options: { json: { about: 'as a list of {"name", "manner", "file"}' } },
  async run(parsed, console) {
    const listed = SHIPPED_FONTS.map((font) => ({ name: font.name, manner: font.manner, file: fontPath(font) }));
    if (parsed.values.has('json')) console.out(`${JSON.stringify(listed, null, 2)}\n`);
    else for (const { name, manner } of listed) console.out(`${manner.padEnd(12)}${name}\n`);
    return 0;
  },
};
