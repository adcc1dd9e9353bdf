import { basename, dirname, extname } from 'node:path';
import { figuresOf, figuresTogether } from '../../src/core/check/figures.ts';
import { mostLayers } from '../../src/core/check/mostLayers.ts';
import { hexFromRgb } from '../../src/core/colour/hex.ts';
import { AppError, isAppError } from '../../src/core/errors/appError.ts';
import { scaling } from '../../src/core/geometry/affine.ts';
import { finishFilms } from '../../src/core/run/finishFilms.ts';
import { tracedPart, type TracedPart } from '../../src/core/job/tracedPart.ts';
import type { Film } from '../../src/core/film/film.ts';
import type { Separation, Meet } from '../../src/core/separate/separation.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { proposedJob } from '../../src/core/propose/propose.ts';
import { proofOfFilms } from '../../src/core/run/proofOfFilms.ts';
import { cleanPart } from '../../src/core/run/runJob.ts';
import { separateArt, type SeparatedArt } from '../../src/core/run/separateArt.ts';
import { USUAL_STOCK } from '../../src/core/film/stock.ts';
import { finish } from '../../src/core/task/task.ts';
import { ringCount, type Curves } from '../../src/core/outline/curves.ts';
import { DEFAULT_OUTLINE, outlineOf } from '../../src/core/outline/traceOutline.ts';
import { transformCurves } from '../../src/core/outline/transformCurves.ts';
import { artFromPicture, type Art } from '../../src/core/raster/art.ts';
import { oneTone } from '../../src/core/separate/oneTone.ts';
import { mmFromPx, px, pxPerMm, pxPerMmFromDpi } from '../../src/core/units/length.ts';
import { writeDxf } from '../../src/formats/dxf/writeDxf.ts';
import { filmPicture } from '../../src/formats/picture/filmPicture.ts';
import { idFromName, writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { autoOrNumber, choiceOption, DRAW_OPTION, FORCE_OPTION, drawnSide, lengthOption, numberOption, oneInput, required, type Parsed } from '../arguments.ts';
import { encodeFile } from '../encodeFile.ts';
import { readPicture } from '../files.ts';
import { Outputs } from '../outputs.ts';
import { finishTelling } from '../progress.ts';
import { Timings } from '../timings.ts';
import type { Command, Console } from './command.ts';

/** Resolution assumed for a picture that states none: a CSS pixel. */
const ASSUMED_DPI = 96;
const MEETS: readonly Meet[] = ['stacked', 'inset', 'middle'];
const ENDINGS = ['.svg', '.dxf', '.png'];
const BORDER_MM = 100;

type Traced = Pick<SeparatedArt, 'films' | 'tone' | 'tones' | 'strayPx'>;

export const trace: Command = {
  usage: 'limner trace IN --out OUT.svg|OUT.dxf|OUT.png [--proposed | --colours N|auto | --tones N | --detail N] [--meet stacked|inset|middle] [--reach 0.5] [--border 2] [--width 200mm] [--report OUT.json] [--timings]',
  about: 'Outlines a picture as one colour or as several films and writes it as SVG, DXF, or one PNG a film.',
  options: {
    ...DRAW_OPTION,
    out: { takes: 'the SVG, DXF or PNG file to write', about: 'the file to write; its ending says which: .svg; .dxf with curves as splines and a layer a film; .png for OUT-1-RED.png and so on, one for each film' },
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
    const films = filmsFor(parsed);
    const report = parsed.values.get('report');
    const outputs = await Outputs.of([input], parsed.values.has('force'));
    for (const file of report === undefined ? [out] : [out, report]) await outputs.check(file);
    await outputs.prepare(dirname(out));
    const timings = new Timings();
    const { picture, statedDpi } = await timings.measure('decode', () => readPicture(input, drawnSide(parsed)));
    const resolution = widthMm === undefined ? pxPerMmFromDpi(statedDpi ?? ASSUMED_DPI) : pxPerMm(picture.width / widthMm);
    const art = artFromPicture(picture);
    const traced = await timings.measure('trace', () => films(art, resolution, console));
    if (traced.films.every(({ outline }) => ringCount(outline) === 0)) throw new AppError('nothingToCut');
    const inMm = scaling(mmFromPx(px(1), resolution));
    const outlines = namedApart(traced.films.map(({ film, outline }) => ({ film, curves: transformCurves(outline, inMm) })));
    const [wideMm, highMm] = [mmFromPx(px(picture.width), resolution), mmFromPx(px(picture.height), resolution)];
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
    if (report !== undefined) await outputs.write(report, `${JSON.stringify(reportOf(art, traced, outlines, resolution, timings), null, 2)}\n`);
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

function reportOf(art: Art, traced: Traced, films: readonly FilmOutline[], resolution: number, timings: Timings): Record<string, unknown> {
  const figures = films.map(({ curves }) => figuresOf(curves));
  const { layers } = mostLayers(films.map(({ curves }) => curves));
  return {
    films: films.map(({ film: { name, colour }, curves: _curves }, k) => ({ name, colour, ...figures[k] })),
    together: figuresTogether(figures),
    mostLayers: layers,
    tones: traced.tones,
    proof: { differs: proofOfFilms(newJob(''), art, traced).differs, ...(traced.strayPx === undefined ? {} : { edgeMm: traced.strayPx / resolution }) },
    ms: timings.record,
  };
}

/** What the options ask for, checked before the picture is read. */
function filmsFor(parsed: Parsed): (art: Art, resolution: number, console: Console) => Traced {
  const tones = numberOption(parsed, 'tones', 2, 6, true);
  const detail = numberOption(parsed, 'detail', 0, 100);
  const threshold = autoOrNumber(parsed, 'threshold', 0, 255);
  const common = { meet: choiceOption(parsed, 'meet', MEETS) ?? 'stacked', reachMm: numberOption(parsed, 'reach', 0, 20) ?? 0 } as const;
  const borderMm = numberOption(parsed, 'border', 0, BORDER_MM);
  const outline: TracedPart['outline'] = { ...freshPart().outline, ...(parsed.values.has('outermost') ? { outermost: true } : {}), ...(borderMm === undefined ? {} : { around: { widthMm: borderMm, openings: 'kept' as const } }) };
  const count = parsed.values.get('colours') === 'auto' ? 'auto' : (numberOption(parsed, 'colours', 1, 32, true) ?? 2);
  const ways = ['proposed', 'colours', 'tones', 'detail'].filter((name) => parsed.values.has(name));
  if (ways.length > 1) throw new AppError('badValue', { name: `--${ways[1]}`, value: `given with --${ways[0]}`, takes: 'its place: give one of them' });
  const by = (separation: Separation) => (art: Art, resolution: number, console: Console): Traced => finished(separated(art, separation, resolution, console), outline, art, resolution);
  if (parsed.values.has('proposed')) return (art, resolution, console) => asProposed(art, outline, resolution, console);
  if (tones !== undefined) return by({ way: 'tones', count: tones, ...common });
  if (detail !== undefined) return by({ way: 'backDetail', fineness: detail, threshold, back: 'open' });
  const flat = by({ way: 'flat', count, ...common });
  return (art, resolution, console) => {
    const ink = count === 2 ? oneColour(art, threshold) : undefined;
    return ink === undefined ? flat(art, resolution, console) : finished(ink, outline, art, resolution);
  };
}

/** A part as it starts. */
const freshPart = (): TracedPart => tracedPart(newJob(''));

const finished = (separated: SeparatedArt, outline: TracedPart['outline'], art: Art, resolution: number): Traced => ({ ...separated, films: finishFilms({ outline, films: freshPart().films }, art.frame, separated, () => resolution) });

/** One ink on its ground; undefined when the two differ in hue alone. */
function oneColour(art: Art, threshold: number | 'auto'): SeparatedArt | undefined {
  try {
    const tone = oneTone(art, { source: 'threshold', threshold, inkIs: 'auto' });
    const outline = outlineOf(tone.share);
    return { films: [{ film: { id: 'Ink', name: 'Ink', colour: hexFromRgb(tone.ink) }, outline }], whole: () => outline, tone };
  } catch (error) {
    if (isAppError(error) && error.code === 'oneColour' && threshold === 'auto') return undefined;
    throw error;
  }
}

/** Films as the first look proposes them: of the cleaned art, put back on the frame of the picture. */
function asProposed(came: Art, outline: TracedPart['outline'], resolution: number, console: Console): Traced {
  const part = tracedPart(proposedJob(newJob('Proposed'), came.colour, USUAL_STOCK));
  const { art } = finish(cleanPart(part, came.colour, 'picture'));
  return finished(separated(art, part.separation, resolution, console, part.films), outline, art, resolution);
}

/** Films as a part with these settings has them. */
const separated = (art: Art, separation: Separation, resolution: number, console: Console, films = freshPart().films): SeparatedArt => finishTelling(separateArt({ separation, films, outline: { leastPieceMm2: 0 } }, art, DEFAULT_OUTLINE, () => resolution), console, 'outlining');
