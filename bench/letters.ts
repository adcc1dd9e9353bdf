import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import * as fontkit from 'fontkit';
import sharp from 'sharp';
import { glyphCurves } from '../src/core/lettering/glyphCurves.ts';
import type { FontFace } from '../src/core/lettering/fontFace.ts';
import { translation } from '../src/core/geometry/affine.ts';
import { pathData } from '../src/core/outline/pathData.ts';
import { transformCurves } from '../src/core/outline/transformCurves.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { fontFace, type FontLibrary } from '../src/formats/fonts/fontFace.ts';
import { colourSvgOf, tonesOf, type ColourDrawing } from './colourDrawings.ts';
import { colourLibraries } from './colourLibraries.ts';
import { ours } from './colourOutline.ts';
import { compareTones, type ToneComparison } from './toneTruth.ts';

const BOLD = ['zilla-slab/files/zilla-slab-latin-600', 'poppins/files/poppins-latin-600', 'fredoka/files/fredoka-latin-500', 'oswald/files/oswald-latin-500'];
/** Strokes of a pixel and a half at 13 px. */
const REGULAR = ['poppins', 'lora', 'nunito', 'zilla-slab', 'montserrat', 'cormorant-garamond'].map((font) => `${font}/files/${font}-latin-400`);
const HEIGHTS = [9, 13, 18, 26];
const REGULAR_HEIGHTS = [9, 12, 16];
/** Quality of the compression; none. */
const QUALITIES = [undefined, 80, 60, 40];
const LINES = ['Regatta crews', 'back across', 'to cosy boats', '1958 & 2046'];
const SIZE = 320;

/** A line of text with capitals so many px high, from a place on its base line. */
function lineOf(face: FontFace, text: string, heightPx: number, left: number, base: number): string {
  const scale = heightPx / face.capitalHeight;
  let x = left;
  return face
    .shape(text)
    .map(({ outline, advance }) => {
      const glyph = pathData(transformCurves(glyphCurves(outline, scale), translation(x, base)));
      x += advance * scale;
      return glyph;
    })
    .join('');
}

/** Lines of text by themselves. */
const alone = (face: FontFace, heightPx: number): ColourDrawing => ({
  name: face.name,
  size: SIZE,
  ground: '#ffffff',
  shapes: [{ fill: '#1c2b4a', path: LINES.map((line, row) => lineOf(face, line, heightPx, 12.3, 40.4 + row * 1.8 * heightPx)).join('') }],
});

/** Lines of text in four tones, beside areas of them: dark on white and on yellow, white on red, red on white. */
const inFourTones = (face: FontFace, heightPx: number): ColourDrawing => ({
  name: face.name,
  size: 400,
  ground: '#ffffff',
  shapes: [
    { fill: '#f2b632', path: 'M20 20L380 20L380 110L20 110Z' },
    { fill: '#b3262e', path: 'M20.4 120.6L380 130L360 215L20 205Z' },
    {
      fill: '#1c2b4a',
      path: `${lineOf(face, 'crews, coxes & bank', heightPx, 32.3, 55.2)}${lineOf(face, 'regatta 1958', heightPx, 32.6, 90.4)}${lineOf(face, 'Millpond rowing', heightPx, 32.3, 250.4)}${lineOf(face, 'summer by the bay', heightPx, 32.1, 285.7)}M200 370C240 330 330 330 380 350L370 390L220 390Z`,
    },
    { fill: '#b3262e', path: lineOf(face, 'Landing stage 46', heightPx, 32.3, 330.4) },
    { fill: '#ffffff', path: `${lineOf(face, 'Boat house keys', heightPx, 36.3, 155.4)}${lineOf(face, 'across the quay', heightPx, 36.3, 188.4)}` },
  ],
});

async function pictured(drawing: ColourDrawing, quality: number | undefined): Promise<Rgba8> {
  let image = sharp(Buffer.from(colourSvgOf(drawing, drawing.size, false)), { density: 72 }).flatten({ background: '#fff' });
  if (quality !== undefined) image = sharp(await image.jpeg({ quality }).toBuffer());
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Outlines of small lettering, bold and alone in its picture, and regular among four tones, beside general-purpose libraries: means over the fonts. */
export async function benchLetters(): Promise<void> {
  await lettering('Small lettering', BOLD, HEIGHTS, alone);
  await lettering('Regular lettering in four tones', REGULAR, REGULAR_HEIGHTS, inFourTones);
}

async function lettering(title: string, fonts: readonly string[], heights: readonly number[], draw: (face: FontFace, heightPx: number) => ColourDrawing): Promise<void> {
  const { resolve } = createRequire(import.meta.url);
  const faces = await Promise.all(fonts.map(async (file) => fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await readFile(resolve(`@fontsource/${file}-normal.woff2`))), file)));
  const tracers = [ours('stacked'), ...(await colourLibraries()).filter(({ name }) => name !== 'imagetracerjs')];
  for (const quality of QUALITIES) {
    console.log(`\n### ${title}, ${quality === undefined ? 'clean' : `JPEG ${quality}`}\n\n| capitals | | edge error px | 95 % px | wrong % | nodes |\n|---|---|---|---|---|---|`);
    for (const heightPx of heights) {
      const rows = new Map(tracers.map(({ name }) => [name, [] as (ToneComparison & { nodes: number })[]]));
      for (const drawing of faces.map((face) => draw(face, heightPx))) {
        const picture = await pictured(drawing, quality);
        for (const { name, trace } of tracers) {
          const { ground, shapes } = await trace(picture, tonesOf(drawing));
          rows.get(name)?.push({ ...(await compareTones(drawing, drawing.size, ground, shapes)), nodes: shapes.reduce((sum, { nodes }) => sum + nodes, 0) });
        }
      }
      for (const [name, all] of rows) {
        const [error, far, wrong, nodes] = [all.map((row) => row.mean), all.map((row) => row.p95), all.map((row) => row.wrong), all.map((row) => row.nodes)].map(mean);
        console.log(`| ${heightPx} px | ${name} | ${error.toFixed(3)} | ${far.toFixed(2)} | ${(100 * wrong).toFixed(2)} | ${Math.round(nodes)} |`);
      }
    }
  }
}
