import { createRequire } from 'node:module';
import type { Rgba8 } from '../src/core/raster/raster.ts';
import { writePng } from '../src/formats/picture/writePng.ts';

/** A general-purpose tracing library, set to one colour on white: gives SVG path data in picture px with the transform that places it. */
export interface Library {
  readonly name: string;
  readonly trace: (picture: Rgba8) => Promise<Traced>;
}

export interface Traced {
  readonly paths: readonly string[];
  readonly scaleX: number;
  readonly scaleY: number;
  readonly offsetX: number;
  readonly offsetY: number;
}

const require = createRequire(import.meta.url);
const PLAIN = { scaleX: 1, scaleY: 1, offsetX: 0, offsetY: 0 };
const numbers = (text: string): number[] => text.split(/[ ,]+/).map(Number);

/** Path data of dark fills in an SVG text, each with its translation added in. */
function pathsOf(svg: string): Traced {
  const paths = [...svg.matchAll(/<path[^>]*>/g)].map((match) => match[0]).filter((tag) => !/fill="(#fff(fff)?|#f[0-9a-f]f[0-9a-f]f[0-9a-f]|rgb\(2[345]\d,2[345]\d,2[345]\d\)|white)"/i.test(tag));
  const scale = /scale\(([^)]+)\)/.exec(svg);
  const moved = /translate\(([^)]+)\)/.exec(svg);
  const [scaleX, scaleY] = scale === null ? [1, 1] : numbers(scale[1]);
  const [offsetX, offsetY] = moved === null || scale === null ? [0, 0] : numbers(moved[1]);
  return { paths: paths.flatMap((tag) => / d="([^"]+)"/.exec(tag)?.[1] ?? []), scaleX, scaleY, offsetX, offsetY };
}

function luma(picture: Rgba8): Uint8Array {
  const gray = new Uint8Array(picture.width * picture.height);
  for (let i = 0; i < gray.length; i++) gray[i] = 0.2126 * picture.data[4 * i] + 0.7152 * picture.data[4 * i + 1] + 0.0722 * picture.data[4 * i + 2];
  return gray;
}

async function wasm(): Promise<Library> {
  // The package expects the browser's picture class; only its fields are read.
  class Picture {
    constructor(readonly data: Uint8ClampedArray, readonly width: number, readonly height: number) {}
  }
  // Under Node it looks for the names of the older module system.
  Object.assign(globalThis, { require, __dirname: '.', ImageData: Picture, HTMLImageElement: class {}, SVGImageElement: class {}, HTMLCanvasElement: class {}, ImageBitmap: class {} });
  const { potrace, init } = (await import('esm-potrace-wasm')) as { potrace: (source: unknown, options: object) => Promise<string>; init: () => Promise<void> };
  await init();
  return {
    name: 'esm-potrace-wasm',
    async trace(picture) {
      const source = new Picture(new Uint8ClampedArray(picture.data), picture.width, picture.height);
      return pathsOf(await potrace(source, { turdsize: 2, turnpolicy: 4, alphamax: 1, opticurve: 1, opttolerance: 0.2, pathonly: false, extractcolors: false }));
    },
  };
}

function javascript(): Library {
  const { Potrace } = require('potrace') as { Potrace: new () => Record<string, unknown> & { _processLoadedImage(image: unknown): void; getPathTag(): string } };
  return {
    name: 'potrace',
    async trace(picture) {
      const tracer = new Potrace();
      const bitmap = { width: picture.width, height: picture.height, data: Buffer.from(picture.data) };
      const scan = (_x: number, _y: number, _w: number, _h: number, visit: (x: number, y: number, i: number) => void): void => {
        for (let y = 0, i = 0; y < picture.height; y++) for (let x = 0; x < picture.width; x++, i += 4) visit.call({ bitmap }, x, y, i);
      };
      tracer._processLoadedImage({ bitmap, scan });
      return pathsOf(tracer.getPathTag());
    },
  };
}

function tracer(): Library {
  const library = require('imagetracerjs') as { imagedataToSVG(data: object, options: object): string };
  return {
    name: 'imagetracerjs',
    async trace(picture) {
      const options = { pal: [{ r: 22, g: 22, b: 28, a: 255 }, { r: 255, g: 255, b: 255, a: 255 }], colorquantcycles: 1, strokewidth: 0, pathomit: 4 };
      return pathsOf(library.imagedataToSVG({ width: picture.width, height: picture.height, data: picture.data }, options));
    },
  };
}

interface Neplex {
  readonly vectorize: (source: Buffer, options: object) => Promise<string>;
  readonly ColorMode: Readonly<Record<string, number>>;
  readonly Hierarchical: Readonly<Record<string, number>>;
  readonly PathSimplifyMode: Readonly<Record<string, number>>;
}

/** That library with what is set alike for one colour and for several. */
export async function loadNeplex(): Promise<Neplex & { readonly settings: object }> {
  const library = (await import('@neplex/vectorizer')) as unknown as Neplex;
  const settings = { mode: library.PathSimplifyMode['Spline'], colorPrecision: 6, filterSpeckle: 4, spliceThreshold: 45, cornerThreshold: 60, layerDifference: 5, lengthThreshold: 4, maxIterations: 10, pathPrecision: 5 };
  return { ...library, settings };
}

async function neplex(): Promise<Library> {
  const { vectorize, ColorMode, Hierarchical, settings } = await loadNeplex();
  return {
    name: '@neplex/vectorizer',
    async trace(picture) {
      const gray = luma(picture);
      const two = new Uint8Array(picture.data.length).fill(255);
      gray.forEach((value, i) => two.fill(value < 128 ? 0 : 255, 4 * i, 4 * i + 3));
      const svg = await vectorize(Buffer.from(writePng({ ...picture, data: two })), {
        ...settings, colorMode: ColorMode['Binary'], hierarchical: Hierarchical['Cutout'],
      });
      // Here every path has a translation of its own.
      const paths = [...svg.matchAll(/<path d="([^"]+)"[^>]*?(?:transform="translate\(([^)]+)\)")?\s*\/>/g)].map((match) => moved(match[1], match[2] === undefined ? [0, 0] : numbers(match[2])));
      return { ...PLAIN, paths };
    },
  };
}

/** Path data of absolute commands, moved. */
function moved(path: string, [dx, dy]: readonly number[]): string {
  let k = 0;
  return path.replace(/[A-Za-z]|-?\d+\.?\d*/g, (token) => (/[A-Za-z]/.test(token) ? ((k = 0), token) : `${Number(token) + (k++ % 2 === 0 ? dx : dy)} `));
}

export async function libraries(): Promise<Library[]> {
  return [javascript(), await wasm(), tracer(), await neplex()];
}
