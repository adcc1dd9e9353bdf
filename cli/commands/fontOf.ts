import { SHIPPED_FONTS } from '../../src/core/lettering/fonts.ts';
import { fontOf } from '../../src/core/lettering/fontOf.ts';
import { artFromPicture } from '../../src/core/raster/art.ts';
import { oneTone } from '../../src/core/separate/oneTone.ts';
import { DRAW_OPTION, drawnSide, oneInput } from '../arguments.ts';
import { readPicture } from '../files.ts';
import { loadFont } from '../loadFont.ts';
import { finishTelling } from '../progress.ts';
import type { Command } from './command.ts';

const TOLD = 5;

export const fontOfPicture: Command = {
  usage: 'limner font-of PICTURE [--json]',
  about: 'Says which of the fonts the letters in a picture are most like.',
  options: { ...DRAW_OPTION, json: { about: 'all fonts as a list of {"font", "score", "heightPx"}, the likeliest first' } },
  notes: 'The picture holds lettering in one ink on its ground: crop away what is no letter first. heightPx is how high a capital would be in it.',
  async run(parsed, console) {
    const { picture } = await readPicture(oneInput(parsed), drawnSide(parsed));
    const { share } = oneTone(artFromPicture(picture), { source: 'threshold', threshold: 'auto', inkIs: 'auto' });
    const faces = await Promise.all(SHIPPED_FONTS.map(({ name }) => loadFont(name)));
    const guesses = finishTelling(fontOf(share.data, share.width, share.height, faces), console, 'comparing fonts');
    const told = guesses.map(({ font, score, heightPx }) => ({ font, score: Math.round(score * 1000) / 1000, heightPx: Math.round(heightPx * 10) / 10 }));
    if (parsed.values.has('json')) console.out(`${JSON.stringify(told, null, 2)}\n`);
    else for (const { font, score, heightPx } of told.slice(0, TOLD)) console.out(`${font.padEnd(28)}${Math.round(score * 100)} % alike, capitals ${heightPx} px high\n`);
    return 0;
  },
};
