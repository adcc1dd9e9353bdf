import { basename, dirname, extname } from 'node:path';
import { USUAL_BRIDGES } from '../../src/core/bridge/bridge.ts';
import { figureCurves } from '../../src/core/figure/figureCurves.ts';
import { translation } from '../../src/core/geometry/affine.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import { nestBySense } from '../../src/core/outline/nestBySense.ts';
import { joinCurves, transformCurves } from '../../src/core/outline/transformCurves.ts';
import { idFromName, writeOutlineSvg } from '../../src/formats/svg/writeSvg.ts';
import { FORCE_OPTION, lengthOption, numberOption, oneInput, required } from '../arguments.ts';
import { cutInput } from '../cutInput.ts';
import { Outputs } from '../outputs.ts';
import type { Command } from './command.ts';

/** Film around the openings, as a share of the longer side, and at least, mm. */
const FRAME_SHARE = 0.08;
const LEAST_FRAME_MM = 8;
/** Holes by which several sheets are laid on the same pins. */
const PIN_MM = 5;

export const stencil: Command = {
  usage: 'limner stencil PICTURE --out OUT.svg [--width 280mm] [--bridge 2mm] [--bridges N] [--frame 20mm]',
  about: 'Makes a stencil of a picture: its art as openings, every island held by bridges.',
  options: {
    out: { takes: 'the SVG file to write', about: 'the openings as filled shapes on a page that is the film, its frame included; several colours as a group each, and each also in a file of its own' },
    width: { takes: 'a length', about: 'finished width of the art (default: what is usual on the blank)' },
    bridge: { takes: 'a length', about: 'width of the bridges (default: as suits the size, 1 to 2 mm)' },
    bridges: { takes: 'a whole number', about: 'for each island (default: one for each 50 widths of its outline)' },
    frame: { takes: 'a length', about: 'film around the openings (default: 8 % of the longer side)' },
    ...FORCE_OPTION,
  },
  notes: 'Islands smaller than 2 mm² fall out. Several colours get holes for the same two pins; the lowest is painted first.',
  async run(parsed, console) {
    const input = oneInput(parsed);
    const out = required(parsed, 'out', 'the SVG file to write');
    const bridgeMm = lengthOption(parsed, 'bridge', 0.1, 50);
    const widthMm = lengthOption(parsed, 'width');
    const count = numberOption(parsed, 'bridges', 1, 12, true);
    const frame = lengthOption(parsed, 'frame', 0, 500);
    const outputs = await Outputs.of([input], parsed.values.has('force'));
    await outputs.check(out);
    await outputs.prepare(dirname(out));
    const bridges = { ...USUAL_BRIDGES, ...(bridgeMm === undefined ? {} : { widthMm: Number(bridgeMm) }), ...(count === undefined ? {} : { count }) };
    const { cut } = await cutInput({ ...newJob(basename(input, extname(input)), 'stencil'), bridges }, { path: input }, { proposed: { widthMm } });
    const { design, rack, held } = cut;
    const frameMm = frame ?? Math.max(LEAST_FRAME_MM, FRAME_SHARE * Math.max(design.widthMm, design.heightMm));
    const [pageWidth, pageHeight] = [design.widthMm + 2 * frameMm, design.heightMm + 2 * frameMm];
    const pins = rack.length > 1 && frameMm >= 2 * PIN_MM ? [frameMm / 2, pageWidth - frameMm / 2].map((x) => transformCurves(figureCurves({ form: 'round', widthMm: PIN_MM, heightMm: PIN_MM }), translation(x - PIN_MM / 2, (frameMm - PIN_MM) / 2))) : [];
    const films = design.layers.map(({ curves }, k) => ({ film: rack[k], curves: nestBySense(joinCurves([transformCurves(curves, translation(frameMm, frameMm)), ...pins])) }));
    await outputs.write(out, writeOutlineSvg(films, pageWidth, pageHeight, basename(input)));
    if (films.length > 1) for (const [k, each] of films.entries()) await outputs.write(`${out.replace(/\.svg$/i, '')}-${k + 1}-${idFromName(each.film.name)}.svg`, writeOutlineSvg([each], pageWidth, pageHeight, each.film.name));
    const { islands = 0, fellOut = 0, bridges: placed = [], widthMm: bridge = 0 } = held ?? {};
    console.out(`${islands === 0 ? 'no islands' : `${islands === 1 ? '1 island' : `${islands} islands`} held by ${placed.length === 1 ? '1 bridge' : `${placed.length} bridges`} of ${bridge} mm`}${fellOut === 0 ? '' : `, ${fellOut} too small to hold`}\n`);
    return 0;
  },
};
