import { basename } from 'node:path';
import { hexFromRgb } from '../../src/core/colour/hex.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import { scaling } from '../../src/core/geometry/affine.ts';
import { ringCount } from '../../src/core/outline/curves.ts';
import { outlineOf } from '../../src/core/outline/traceOutline.ts';
import { transformCurves } from '../../src/core/outline/transformCurves.ts';
import { artFromPicture } from '../../src/core/raster/art.ts';
import { oneTone } from '../../src/core/separate/oneTone.ts';
import { mmFromPx, px, pxPerMm, pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { autoOrNumber, DRAW_OPTION, drawnSide, lengthOption, numberOption, oneInput, required } from '../arguments.ts';
import { readPicture, writeBytes } from '../files.ts';
import { Timings } from '../timings.ts';
import type { Command } from './command.ts';

/** Resolution assumed for a picture that states none: a CSS pixel. */
const ASSUMED_DPI = 96;

export const trace: Command = {
  usage: 'limner trace IN --out OUT.svg [--colours N] [--width 200mm] [--threshold auto|0..255] [--timings]',
  about: 'Outlines a picture as one colour and writes it as SVG.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'the SVG file to write', about: 'the SVG file to write' },
    colours: { takes: 'a whole number from 2 to 32', about: 'tones, counting the background: 2 is one colour on a ground (default 2)' },
    width: { takes: 'a length', about: 'width of the whole picture when finished, such as 200mm or "8 in" (default: what the file states, else 96 dpi)' },
    threshold: { takes: 'auto or 0 to 255', about: 'lightness at which ink begins (default auto)' },
    timings: { about: 'print decode_ms, trace_ms (separation and outlining) and write_ms' },
  },
  notes: 'The SVG has the frame of the picture: its width, height and viewBox are in mm.',
  async run(parsed, console) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG file to write');
    const colours = numberOption(parsed, 'colours', 2, 32, true) ?? 2;
    const widthMm = lengthOption(parsed, 'width');
    const threshold = autoOrNumber(parsed, 'threshold', 0, 255);
    if (colours > 2) throw new AppError('notYet', { feature: `${colours} tones`, instead: 'Use --colours 2 for one colour on a ground.' });
    const timings = new Timings();
    const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
    const { tone, outline } = await timings.measure('trace', () => {
      const tone = oneTone(artFromPicture(picture), { source: 'threshold', threshold, inkIs: 'auto' });
      return { tone, outline: outlineOf(tone.share) };
    });
    if (ringCount(outline) === 0) throw new AppError('nothingToCut');
    await timings.measure('write', async () => {
      const resolution = widthMm === undefined ? pxPerMmFromDpi(statedDpi ?? ASSUMED_DPI) : pxPerMm(picture.width / widthMm);
      const curves = transformCurves(outline, scaling(mmFromPx(px(1), resolution)));
      const colour = hexFromRgb(tone.ink);
      const svg = writeOutlineSvg(curves, mmFromPx(px(picture.width), resolution), mmFromPx(px(picture.height), resolution), { id: 'ink', name: 'Ink', colour }, basename(input));
      await writeBytes(out, svg);
    });
    if (parsed.values.has('timings')) console.out(timings.lines());
    return 0;
  },
};
