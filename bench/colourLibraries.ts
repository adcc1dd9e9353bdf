import { createRequire } from 'node:module';
import { rgbFromHex } from '../src/core/colour/hex.ts';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { writePng } from '../src/formats/picture/writePng.ts';
import { loadNeplex } from './libraries.ts';
import { nodesOf } from './pathNodes.ts';

export interface ColourShape {
  readonly fill: string;
  readonly path: string;
  readonly nodes: number;
  /** SVG transform that places it in picture px; absent when it lies there already. */
  readonly place?: string;
}

export interface ColourTraced {
  readonly ground: string;
  /** Painted over each other in this order. */
  readonly shapes: readonly ColourShape[];
}

/** A general-purpose way to trace in colour. It is told the tones, ground first, as `#rrggbb`. */
export interface ColourLibrary {
  readonly name: string;
  readonly trace: (picture: Rgba8, tones: readonly string[]) => Promise<ColourTraced>;
}

const require = createRequire(import.meta.url);

/** Palette, nearest colour, 3 × 3 mode filter and potrace for each colour, stacked: what one would assemble from the libraries. */
function layers(): ColourLibrary {
  const { Potrace } = require('potrace') as { Potrace: new () => Record<string, unknown> & { _processLoadedImage(image: unknown): void; getPathTag(): string } };
  return {
    name: 'layers',
    async trace(picture, tones) {
      const labels = modeFiltered(nearestTones(picture, tones), picture.width, picture.height, tones.length);
      const counts = new Float64Array(tones.length);
      for (const label of labels) counts[label]++;
      const order = tones.map((_, k) => k).slice(1).sort((a, b) => counts[b] - counts[a]);
      const shapes = order.map((tone, rank): ColourShape => {
        const above = new Set(order.slice(rank));
        const data = Buffer.alloc(labels.length * 4, 255);
        for (let i = 0; i < labels.length; i++) if (above.has(labels[i])) data.fill(0, 4 * i, 4 * i + 3);
        const bitmap = { width: picture.width, height: picture.height, data };
        const scan = (_x: number, _y: number, _w: number, _h: number, visit: (x: number, y: number, i: number) => void): void => {
          for (let y = 0, i = 0; y < picture.height; y++) for (let x = 0; x < picture.width; x++, i += 4) visit.call({ bitmap }, x, y, i);
        };
        const tracer = new Potrace();
        tracer._processLoadedImage({ bitmap, scan });
        const path = / d="([^"]*)"/.exec(tracer.getPathTag())?.[1] ?? '';
        return { fill: tones[tone], path, nodes: nodesOf([path]) };
      });
      return { ground: tones[0], shapes };
    },
  };
}

function nearestTones(picture: Rgba8, tones: readonly string[]): Uint8Array {
  const palette = tones.map((hex) => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 });
  const labels = new Uint8Array(picture.width * picture.height);
  for (let i = 0; i < labels.length; i++) {
    let least = Infinity;
    for (let k = 0; k < palette.length; k++) {
      const d = (palette[k].r - picture.data[4 * i]) ** 2 + (palette[k].g - picture.data[4 * i + 1]) ** 2 + (palette[k].b - picture.data[4 * i + 2]) ** 2;
      if (d >= least) continue;
      least = d;
      labels[i] = k;
    }
  }
  return labels;
}

function modeFiltered(labels: Uint8Array, width: number, height: number, tones: number): Uint8Array {
  const out = labels.slice();
  const votes = new Uint8Array(tones);
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1, i = y * width + 1; x < width - 1; x++, i++) {
      votes.fill(0);
      for (let dy = -width; dy <= width; dy += width) for (let dx = -1; dx <= 1; dx++) votes[labels[i + dy + dx]]++;
      let best = labels[i];
      for (let k = 0; k < tones; k++) if (votes[k] > votes[best]) best = k;
      out[i] = best;
    }
  }
  return out;
}

function tracer(): ColourLibrary {
  const library = require('imagetracerjs') as { imagedataToSVG(data: object, options: object): string };
  return {
    name: 'imagetracerjs',
    async trace(picture, tones) {
      const pal = tones.map((hex) => ({ ...(rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 }), a: 255 }));
      const svg = library.imagedataToSVG({ width: picture.width, height: picture.height, data: picture.data }, { pal, colorquantcycles: 1, strokewidth: 0, pathomit: 4 });
      const shapes = [...svg.matchAll(/<path fill="([^"]+)"[^>]*? d="([^"]+)"/g)].map(([, fill, path]): ColourShape => ({ fill, path, nodes: nodesOf([path]) }));
      return { ground: tones[0], shapes: withoutGround(shapes, tones[0]) };
    },
  };
}

async function neplex(): Promise<ColourLibrary> {
  const { vectorize, ColorMode, Hierarchical, settings } = await loadNeplex();
  return {
    name: '@neplex/vectorizer',
    async trace(picture, tones) {
      const palette = tones.map((hex) => rgbFromHex(hex) ?? { r: 0, g: 0, b: 0 });
      const flat = new Uint8Array(picture.data.length).fill(255);
      nearestTones(picture, tones).forEach((label, i) => flat.set([palette[label].r, palette[label].g, palette[label].b], 4 * i));
      const svg = await vectorize(Buffer.from(writePng({ ...picture, data: flat })), {
        ...settings, colorMode: ColorMode['Color'], hierarchical: Hierarchical['Stacked'],
      });
      const shapes = [...svg.matchAll(/<path d="([^"]+)" fill="([^"]+)"(?: transform="([^"]+)")?/g)].map(([, path, fill, place]): ColourShape => ({ fill, path, nodes: nodesOf([path]), ...(place === undefined ? {} : { place }) }));
      return { ground: tones[0], shapes: withoutGround(shapes, tones[0]) };
    },
  };
}

/** The ground is no film: what is painted first in its colour counts no nodes. */
function withoutGround(shapes: readonly ColourShape[], ground: string): ColourShape[] {
  return shapes.map((shape, k) => (k === 0 && shape.fill.toLowerCase() === ground ? { ...shape, nodes: 0 } : shape));
}

export async function colourLibraries(): Promise<ColourLibrary[]> {
  return [layers(), tracer(), await neplex()];
}
