import { basename } from 'node:path';
import { hexFromRgb } from '../../src/core/colour/hex.ts';
import { AppError, isAppError } from '../../src/core/errors/appError.ts';
import { scaling } from '../../src/core/geometry/affine.ts';
import type { Separation } from '../../src/core/job/job.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { separateArt } from '../../src/core/job/separateArt.ts';
import { ringCount, type Curves } from '../../src/core/outline/curves.ts';
import type { Meet } from '../../src/core/outline/mesh/filmsOfMesh.ts';
import { DEFAULT_OUTLINE, outlineOf } from '../../src/core/outline/traceOutline.ts';
import { transformCurves } from '../../src/core/outline/transformCurves.ts';
import { artFromPicture, type Art } from '../../src/core/raster/art.ts';
import { oneTone } from '../../src/core/separate/oneTone.ts';
import { finish } from '../../src/core/task/task.ts';
import { mmFromPx, px, pxPerMm, pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { writeDxf } from '../../src/formats/dxf/writeDxf.ts';
import { writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { autoOrNumber, choiceOption, DRAW_OPTION, drawnSide, lengthOption, numberOption, oneInput, required, type Parsed } from '../arguments.ts';
import { readPicture, writeBytes } from '../files.ts';
import { Timings } from '../timings.ts';
import type { Command } from './command.ts';

/** Resolution assumed for a picture that states none: a CSS pixel. */
const ASSUMED_DPI = 96;
const MEETS: readonly Meet[] = ['stacked', 'inset'];

interface Traced {
  readonly name: string;
  readonly colour: string;
  readonly curves: Curves;
}

export const trace: Command = {
  usage: 'limner trace IN --out OUT.svg|OUT.dxf [--colours N|auto | --tones N] [--meet stacked|inset] [--reach 0.5] [--width 200mm] [--threshold auto|0..255] [--timings]',
  about: 'Outlines a picture as one colour or as several films and writes it as SVG or DXF.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'the SVG or DXF file to write', about: 'the file to write; its ending says which: .svg, or .dxf with curves as splines and a layer a film' },
    colours: { takes: 'auto or a whole number from 2 to 32', about: 'tones, counting the background: 2 is one colour on a ground (default 2)' },
    tones: { takes: 'a whole number from 2 to 6', about: 'tones of lightness for photos, the lightest being the blank; each film carries all darker ones' },
    meet: { takes: 'stacked or inset', about: 'how films meet: upper ones on full lower ones, or each cut out of the others (default stacked)' },
    reach: { takes: 'mm, 0 to 20', about: 'for inset films: how far each runs on under its upper neighbours (default 0)' },
    width: { takes: 'a length', about: 'width of the whole picture when finished, such as 200mm or "8 in" (default: what the file states, else 96 dpi)' },
    threshold: { takes: 'auto or 0 to 255', about: 'for 2 colours: lightness at which ink begins (default auto)' },
    timings: { about: 'print decode_ms, trace_ms (separation and outlining) and write_ms' },
  },
  notes: 'The SVG has the frame of the picture: its width, height and viewBox are in mm. It has one group for each film, the lowest first.',
  async run(parsed, console) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG or DXF file to write');
    const widthMm = lengthOption(parsed, 'width');
    const films = filmsFor(parsed);
    const timings = new Timings();
    const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
    const resolution = widthMm === undefined ? pxPerMmFromDpi(statedDpi ?? ASSUMED_DPI) : pxPerMm(picture.width / widthMm);
    const traced = await timings.measure('trace', () => films(artFromPicture(picture), resolution));
    if (traced.every(({ curves }) => ringCount(curves) === 0)) throw new AppError('nothingToCut');
    await timings.measure('write', async () => {
      const inMm = scaling(mmFromPx(px(1), resolution));
      const outlines = traced.map(({ name, colour, curves }) => ({ film: { id: name, name, colour }, curves: transformCurves(curves, inMm) }));
      const [wideMm, highMm] = [mmFromPx(px(picture.width), resolution), mmFromPx(px(picture.height), resolution)];
      await writeBytes(out, out.toLowerCase().endsWith('.dxf') ? writeDxf(outlines, highMm) : writeOutlineSvg(outlines, wideMm, highMm, basename(input)));
    });
    if (parsed.values.has('timings')) console.out(timings.lines());
    return 0;
  },
};

/** What the options ask for, checked before the picture is read. */
function filmsFor(parsed: Parsed): (art: Art, resolution: number) => Traced[] {
  const tones = numberOption(parsed, 'tones', 2, 6, true);
  const threshold = autoOrNumber(parsed, 'threshold', 0, 255);
  const common = { meet: choiceOption(parsed, 'meet', MEETS) ?? 'stacked', reachMm: numberOption(parsed, 'reach', 0, 20) ?? 0 } as const;
  const count = parsed.values.get('colours') === 'auto' ? 'auto' : (numberOption(parsed, 'colours', 2, 32, true) ?? 2);
  if (tones !== undefined && parsed.values.has('colours')) throw new AppError('badValue', { name: '--tones', value: 'given with --colours', takes: 'its place: give one of the two' });
  if (tones !== undefined) return (art, resolution) => separated(art, { way: 'tones', count: tones, ...common }, resolution);
  return (art, resolution) => (count === 2 ? oneColour(art, threshold) : undefined) ?? separated(art, { way: 'flat', count, ...common }, resolution);
}

/** One ink on its ground; undefined when the two differ in hue alone. */
function oneColour(art: Art, threshold: number | 'auto'): Traced[] | undefined {
  try {
    const { share, ink } = oneTone(art, { source: 'threshold', threshold, inkIs: 'auto' });
    return [{ name: 'Ink', colour: hexFromRgb(ink), curves: outlineOf(share) }];
  } catch (error) {
    if (isAppError(error) && error.code === 'oneColour' && threshold === 'auto') return undefined;
    throw error;
  }
}

/** Films as a job with these settings has them. */
function separated(art: Art, separation: Separation, resolution: number): Traced[] {
  const { films } = finish(separateArt({ separation, assembly: newJob('').assembly }, art, DEFAULT_OUTLINE, resolution));
  return films.map(({ film: { name, colour }, outline }) => ({ name, colour, curves: outline }));
}
