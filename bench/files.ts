import { deflateSync } from 'node:zlib';
import { cutPlanOf, type CutPlan } from '../src/core/layout/cutPlan.ts';
import { knifeWay } from '../src/core/layout/knifeWay.ts';
import { laySheet } from '../src/core/layout/laySheet.ts';
import { toolStrokes } from '../src/core/layout/toolStrokes.ts';
import { usualMaterial } from '../src/core/process/material.ts';
import { sheetsDxf } from '../src/formats/dxf/sheetsDxf.ts';
import { sheetsPdf } from '../src/formats/pdf/sheetsPdf.ts';
import { writePlotter } from '../src/formats/plotter/writePlotter.ts';
import { writeSheetSvg } from '../src/formats/svg/writeSvg.ts';
import { manyDesign, manyPieces, MANY_SHEET } from './sheets.ts';

/** What is written without thought: chords of a hundredth of a mm, in the order in which the pieces come. */
const CHORD_MM = 0.01;

/** Each chord as an entity of its own, as converters write it. */
function naiveDxf(plan: CutPlan): string {
  const lines: string[] = ['0', 'SECTION', '2', 'ENTITIES'];
  for (const { points } of toolStrokes(plan, { chordMm: CHORD_MM })) for (let i = 0; i + 3 < points.length; i += 2) lines.push('0', 'LINE', '8', '0', '10', points[i].toFixed(6), '20', points[i + 1].toFixed(6), '11', points[i + 2].toFixed(6), '21', points[i + 3].toFixed(6));
  return [...lines, '0', 'ENDSEC', '0', 'EOF'].join('\n');
}

function naivePlotter(plan: CutPlan): string {
  const lines = ['IN;SP1;'];
  for (const { points } of toolStrokes(plan, { chordMm: CHORD_MM })) for (let i = 0; i < points.length; i += 2) lines.push(`${i === 0 ? 'PU' : 'PD'}${Math.round(points[i] * 40)},${Math.round(points[i + 1] * 40)};`);
  return lines.join('\n');
}

function naiveSvg(plan: CutPlan): string {
  const paths = toolStrokes(plan, { chordMm: CHORD_MM }).map(({ points }) => `<polyline fill="none" stroke="#000" points="${Array.from(points, (value) => value.toFixed(3)).join(' ')}"/>`);
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${plan.widthMm}mm" height="${plan.heightMm}mm" viewBox="0 0 ${plan.widthMm} ${plan.heightMm}">${paths.join('\n')}</svg>`;
}

const naivePdf = (plan: CutPlan): Uint8Array => deflateSync(toolStrokes(plan, { chordMm: CHORD_MM }).map(({ points }) => `${Array.from({ length: points.length / 2 }, (_, k) => `${(points[2 * k] * 2.834645669).toFixed(3)} ${(points[2 * k + 1] * 2.834645669).toFixed(3)} ${k === 0 ? 'm' : 'l'}`).join('\n')}\nS`).join('\n'));

/** The files of a sheet of two thousand pieces beside what a writer without thought makes of it, and the way of the tool between pieces. */
export async function benchFiles(): Promise<void> {
  const film = { id: 'a', name: 'Navy', colour: '#22375f' };
  const sheet = laySheet(manyDesign(manyPieces()), 'a', MANY_SHEET);
  const plan = cutPlanOf(sheet, film);
  const asDrawn: CutPlan = { ...plan, runs: sheet.parts.map(({ curves }) => ({ role: 'cut' as const, curves, order: Int32Array.from(curves.parent.keys()) })) };
  const writers: readonly (readonly [string, () => string | Uint8Array | Promise<Uint8Array>, () => string | Uint8Array])[] = [
    ['SVG', () => writeSheetSvg(plan, 'Sheet', 'lines'), () => naiveSvg(plan)],
    ['DXF 2000', () => sheetsDxf([plan]), () => naiveDxf(plan)],
    ['DXF R12', () => sheetsDxf([plan], '12'), () => naiveDxf(plan)],
    ['PDF', () => sheetsPdf([plan], 'Sheet', true), () => naivePdf(plan)],
    ['HP-GL', () => writePlotter(plan), () => naivePlotter(plan)],
  ];
  console.log('\n### Files of one sheet\n\n| | kB | ms | plain writer, kB | ms |\n|---|---|---|---|---|');
  for (const [name, ours, plain] of writers) {
    const measured: string[] = [];
    for (const write of [ours, plain]) {
      await write();
      const began = performance.now();
      const made = await write();
      measured.push(`${Math.round(made.length / 1000)} | ${Math.round(performance.now() - began)}`);
    }
    console.log(`| ${name} | ${measured.join(' | ')} |`);
  }
  const { cut } = usualMaterial('htv');
  const [routed, drawn] = [plan, asDrawn].map((each) => knifeWay(each, cut).travelMm);
  console.log(`\nBetween pieces the tool goes ${(routed / 1000).toFixed(1)} m; in the order in which they were drawn ${(drawn / 1000).toFixed(1)} m.`);
}
