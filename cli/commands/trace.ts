import { basename, dirname, extname } from 'node:path';
import { figuresOf, figuresTogether } from '../../src/core/check/figures.ts';
import { mostLayers } from '../../src/core/check/mostLayers.ts';
import { AppError } from '../../src/core/errors/appError.ts';
import type { Film } from '../../src/core/film/film.ts';
import { scaling } from '../../src/core/geometry/affine.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { ringCount, type Curves } from '../../src/core/outline/curves.ts';
import { transformCurves } from '../../src/core/outline/transformCurves.ts';
import { artFromPicture } from '../../src/core/raster/art.ts';
import { proofOfFilms } from '../../src/core/run/proofOfFilms.ts';
import { mmFromPx, px, pxPerMm, pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { writeDxf } from '../../src/formats/dxf/writeDxf.ts';
import { filmPicture } from '../../src/formats/picture/filmPicture.ts';
import { idFromName, writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { DRAW_OPTION, FORCE_OPTION, drawnSide, lengthOption, numberOption, oneInput, required } from '../arguments.ts';
import { encodeFile } from '../encodeFile.ts';
import { readPicture } from '../files.ts';
import { Outputs } from '../outputs.ts';
import { Timings } from '../timings.ts';
import { BORDER_MM, PROPOSED, traceArt, tracePlan, type Traced } from '../tracePlan.ts';
import type { Command } from './command.ts';

/** Resolution assumed for a picture that states none: a CSS pixel. */
const ASSUMED_DPI = 96;
const ENDINGS = ['.svg', '.dxf', '.png'];

export const trace: Command = {
  usage:
    'limner trace IN --out OUT.svg|OUT.dxf|OUT.png [--recipe FILE|proposed] [--proposed | --colours N|auto | --tones N | --detail N] [--meet stacked|inset|middle] [--reach 0.5] [--border 2] [--width 200mm] [--report OUT.json] [--timings]',
  about: 'Outlines a picture as one colour or as several films and writes it as SVG, DXF, or one PNG a film.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'the SVG, DXF or PNG file to write', about: 'the file to write; its ending says which: .svg; .dxf with curves as splines and a layer a film; .png for OUT-1-RED.png and so on, one for each film' },
    recipe: { takes: 'a JSON file, or proposed', about: 'clean it first: a list of steps, a job whose recipe is meant, or as the first look at the picture proposes' },
    proposed: { about: 'recipe, tones and films as the first look at the picture proposes' },
    colours: { takes: 'auto or a whole number from 1 to 32', about: 'tones, counting the background: 2 is one colour on a ground (default 2)' },
    tones: { takes: 'a whole number from 2 to 6', about: 'tones of lightness for photos, the lightest being the blank; each film carries all darker ones' },
    detail: { takes: 'a number from 0 to 100', about: 'a back of all that is not ground and one layer of detail on it: 0 its broad shapes, 100 all of it' },
    meet: { takes: 'stacked, inset or middle', about: 'how films meet: upper ones on full lower ones, each cut out of the others, or lower ones as far as the middle of upper ones (default stacked)' },
    reach: { takes: 'mm, 0 to 20', about: 'for inset films: how far each runs on under its upper neighbours (default 0)' },
    border: { takes: `mm, 0 to ${BORDER_MM}`, about: 'one more film around and below all others, so wide' },
    outermost: { about: 'only the outermost edge around everything, as one film; at the distance of --border' },
    width: { takes: 'a length', about: 'width of the whole picture when finished, such as 200mm or "8 in" (default: what the file states, else 96 dpi)' },
    threshold: { takes: 'auto or 0 to 255', about: 'for 2 colours: lightness at which ink begins (default auto)' },
    chord: { takes: 'mm, 0.001 to 10', about: 'for DXF: polylines no further than this from the curves, for readers without splines' },
    report: { takes: 'a JSON file to write', about: 'films with pieces, nodes, cut length, smallest piece and expected weeding time; how the films differ from the picture' },
    ...FORCE_OPTION,
    timings: { about: 'print decode_ms, trace_ms (separation and outlining) and write_ms' },
  },
  notes: 'The SVG has the frame of the picture: its width, height and viewBox are in mm. It has one group for each film, the lowest first.',
  async run(parsed, console) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG, DXF or PNG file to write');
    const ending = extname(out).toLowerCase();
    if (!ENDINGS.includes(ending)) throw new AppError('badValue', { name: '--out', value: out, takes: 'a name that ends in .svg, .dxf or .png' });
    const widthMm = lengthOption(parsed, 'width');
    const chordMm = numberOption(parsed, 'chord', 0.001, 10);
    const plan = await tracePlan(parsed);
    const report = parsed.values.get('report');
    const recipeFile = parsed.values.get('recipe');
    const outputs = await Outputs.of(recipeFile === undefined || recipeFile === PROPOSED ? [input] : [input, recipeFile], parsed.values.has('force'));
    for (const file of report === undefined ? [out] : [out, report]) await outputs.check(file);
    await outputs.prepare(dirname(out));
    const timings = new Timings();
    const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
    const resolution = widthMm === undefined ? pxPerMmFromDpi(statedDpi ?? ASSUMED_DPI) : pxPerMm(picture.width / widthMm);
    const art = artFromPicture(picture);
    const traced = await timings.measure('trace', () => traceArt(plan, art, resolution, basename(input), console));
    if (traced.films.every(({ outline }) => ringCount(outline) === 0)) throw new AppError('nothingToCut');
    const inMm = scaling(mmFromPx(px(1), resolution));
    const outlines = namedApart(traced.films.map(({ film, outline }) => ({ film, curves: transformCurves(outline, inMm) })));
    const [wideMm, highMm] = [mmFromPx(px(traced.widthPx), resolution), mmFromPx(px(traced.heightPx), resolution)];
    await timings.measure('write', async () => {
      if (ending === '.dxf') await outputs.write(out, writeDxf(outlines, highMm, chordMm));
      else if (ending === '.svg') await outputs.write(out, writeOutlineSvg(outlines, wideMm, highMm, basename(input)));
      else {
        for (const [k, { film, curves }] of outlines.entries()) {
          const { picture: png, pxPerMm: made } = filmPicture(curves, film.colour, wideMm, highMm, resolution);
          await outputs.write(`${out.slice(0, -ending.length)}-${k + 1}-${idFromName(film.name)}.png`, await encodeFile(png, made));
        }
      }
    });
    if (report !== undefined) await outputs.write(report, `${JSON.stringify(reportOf(traced, outlines, timings), null, 2)}\n`);
    if (parsed.values.has('timings')) console.out(timings.lines());
    return 0;
  },
};

interface FilmOutline {
  readonly film: Film;
  readonly curves: Curves;
}

/** The same with ids that follow the names, which is how files tell films apart. */
const namedApart = (films: readonly FilmOutline[]): FilmOutline[] => films.map(({ film, curves }) => ({ film: { ...film, id: film.name }, curves }));

function reportOf(traced: Traced, films: readonly FilmOutline[], timings: Timings): Record<string, unknown> {
  const figures = films.map(({ curves }) => figuresOf(curves));
  const { layers } = mostLayers(films.map(({ curves }) => curves));
  return {
    films: films.map(({ film: { name, colour }, curves: _curves }, k) => ({ name, colour, ...figures[k] })),
    together: figuresTogether(figures),
    mostLayers: layers,
    tones: traced.tones,
    proof: { differs: proofOfFilms(newJob(''), traced.art, { ...traced, films: traced.artFilms }).differs, ...(traced.strayPx === undefined ? {} : { edgeMm: traced.strayPx / traced.artPxPerMm }) },
    ms: timings.record,
  };
}
