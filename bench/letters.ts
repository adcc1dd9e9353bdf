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

const FONTS = ['zilla-slab/files/zilla-slab-latin-600', 'poppins/files/poppins-latin-600', 'fredoka/files/fredoka-latin-500', 'oswald/files/oswald-latin-500'];
const HEIGHTS = [9, 13, 18, 26];
/** Quality of the compression; none. */
const QUALITIES = [undefined, 80, 60, 40];
const LINES = ['Regatta crews', 'back across', 'to cosy boats', '1958 & 2046'];
const SIZE = 320;

/** Lines of text with capitals so many px high. */
function letteringOf(face: FontFace, heightPx: number): ColourDrawing {
  const scale = heightPx / face.capitalHeight;
  const path = LINES.map((line, row) => {
    let x = 12.3;
    return face.shape(line).map(({ outline, advance }) => {
      const glyph = pathData(transformCurves(glyphCurves(outline, scale), translation(x, 40.4 + row * 1.8 * heightPx)));
      x += advance * scale;
      return glyph;
    }).join('');
  }).join('');
  return { name: face.name, size: SIZE, ground: '#ffffff', shapes: [{ fill: '#1c2b4a', path }] };
}

async function pictured(drawing: ColourDrawing, quality: number | undefined): Promise<Rgba8> {
  let image = sharp(Buffer.from(colourSvgOf(drawing, SIZE, false)), { density: 72 }).flatten({ background: '#fff' });
  if (quality !== undefined) image = sharp(await image.jpeg({ quality }).toBuffer());
  const { data, info } = await image.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return makeRgba8(info.width, info.height, new Uint8Array(data), true);
}

const mean = (values: readonly number[]): number => values.reduce((sum, value) => sum + value, 0) / values.length;

/** Outlines of small lettering, alone in its picture, beside general-purpose libraries: means over four fonts by the height of a capital. */
export async function benchLetters(): Promise<void> {
  const { resolve } = createRequire(import.meta.url);
  const faces = await Promise.all(FONTS.map(async (file) => fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await readFile(resolve(`@fontsource/${file}-normal.woff2`))), file)));
  const tracers = [ours('stacked'), ...(await colourLibraries()).filter(({ name }) => name !== 'imagetracerjs')];
  for (const quality of QUALITIES) {
    console.log(`\n### Small lettering, ${quality === undefined ? 'clean' : `JPEG ${quality}`}\n\n| capitals | | edge error px | 95 % px | wrong % | nodes |\n|---|---|---|---|---|---|`);
    for (const heightPx of HEIGHTS) {
      const rows = new Map(tracers.map(({ name }) => [name, [] as (ToneComparison & { nodes: number })[]]));
      for (const drawing of faces.map((face) => letteringOf(face, heightPx))) {
        const picture = await pictured(drawing, quality);
        for (const { name, trace } of tracers) {
          const { ground, shapes } = await trace(picture, tonesOf(drawing));
          rows.get(name)?.push({ ...(await compareTones(drawing, SIZE, ground, shapes)), nodes: shapes.reduce((sum, { nodes }) => sum + nodes, 0) });
        }
      }
      for (const [name, all] of rows) console.log(`| ${heightPx} px | ${name} | ${mean(all.map((row) => row.mean)).toFixed(3)} | ${mean(all.map((row) => row.p95)).toFixed(2)} | ${(100 * mean(all.map((row) => row.wrong))).toFixed(2)} | ${Math.round(mean(all.map((row) => row.nodes)))} |`);
    }
  }
}
