import sharp from 'sharp';
import { hexFromRgb, lumaOf, rgbFromHex } from '../src/core/colour/hex.ts';
import type { Rgb } from '../src/core/colour/oklab.ts';
import { makeRgba8, type Rgba8 } from '../src/core/raster/raster.ts';
import { colourSvgOf, type ColourDrawing } from './colourDrawings.ts';
import { randomFrom } from './drawings.ts';

/** A way in which drawings reach a decorator that is neither noise nor compression alone. */
interface Coming {
  /** Whether a drawing can come so. */
  readonly suits: (drawing: ColourDrawing) => boolean;
  readonly picture: (drawing: ColourDrawing) => Promise<Rgba8>;
  /** Nobody can be sure what is wanted: that the right start is offered first will do. */
  readonly asks: boolean;
}

const SIDE_PX = 512;
const QUALITY = 80;
const SQUARE_PX = 12;
/** How far a gradient goes towards white and black, and how much of the light is lost in the far corner. */
const GRADIENT = 0.35;
const LOST_LIGHT = 0.3;

const rgbOf = (hex: string): Rgb => rgbFromHex(hex) as Rgb;
const towards = (hex: string, level: number, share: number): string => {
  const { r, g, b } = rgbOf(hex);
  return hexFromRgb({ r: Math.round(r + (level - r) * share), g: Math.round(g + (level - g) * share), b: Math.round(b + (level - b) * share) });
};
/** Nothing of it is painted in the colour of its ground. */
const isBare = ({ ground, shapes }: ColourDrawing): boolean => shapes.every(({ fill }) => fill !== ground);

async function fromSvg(svg: string, change?: (bytes: Uint8Array) => void): Promise<Rgba8> {
  const drawn = await sharp(Buffer.from(svg), { density: 72 }).resize(SIDE_PX, SIDE_PX).flatten({ background: '#fff' }).removeAlpha().raw().toBuffer();
  change?.(drawn);
  const jpeg = await sharp(drawn, { raw: { width: SIDE_PX, height: SIDE_PX, channels: 3 } }).jpeg({ quality: QUALITY }).toBuffer();
  return makeRgba8(SIDE_PX, SIDE_PX, new Uint8Array(await sharp(jpeg).ensureAlpha().raw().toBuffer()), true);
}

/** The ground as squares of two greys, as a preview shows what is clear. */
function onSquares(drawing: ColourDrawing): Promise<Rgba8> {
  const px = (SQUARE_PX * drawing.size) / SIDE_PX;
  const squares = `<defs><pattern id="q" width="${2 * px}" height="${2 * px}" patternUnits="userSpaceOnUse"><rect width="${2 * px}" height="${2 * px}" fill="#fff"/><path d="M0 0h${px}v${2 * px}h${px}v${-px}H0Z" fill="#ccc"/></pattern></defs><rect width="${drawing.size}" height="${drawing.size}" fill="url(#q)"/>`;
  return fromSvg(colourSvgOf(drawing, SIDE_PX, false).replace(/<rect [^>]*>/, squares));
}

/** The first tone that is painted, each of its shapes lighter above and darker below. */
function withGradient(drawing: ColourDrawing): Promise<Rgba8> {
  const [{ fill }] = drawing.shapes;
  const gradient = `<defs><linearGradient id="g" x1="0" y1="0" x2="0" y2="1"><stop offset="0" stop-color="${towards(fill, 255, GRADIENT)}"/><stop offset="1" stop-color="${towards(fill, 0, GRADIENT)}"/></linearGradient></defs>`;
  const [start, ...parts] = colourSvgOf(drawing, SIDE_PX, false).split(/(?=<path )/);
  return fromSvg(start + gradient + parts.map((part) => part.replaceAll(`"${fill}"`, '"url(#g)"')).join(''));
}

/** Photographed on paper that the light falls on from one corner, with a little noise. */
function inUnevenLight(drawing: ColourDrawing): Promise<Rgba8> {
  const random = randomFrom(drawing.shapes.length);
  return fromSvg(colourSvgOf(drawing, SIDE_PX, false), (bytes) => {
    for (let i = 0; i < bytes.length; i++) {
      const pixel = Math.floor(i / 3);
      const light = 1 - (LOST_LIGHT * ((pixel % SIDE_PX) + Math.floor(pixel / SIDE_PX))) / (2 * SIDE_PX);
      bytes[i] = Math.max(0, Math.min(255, Math.round(bytes[i] * light + 4 * (random() + random() - 1))));
    }
  });
}

export const AS_THEY_COME: Readonly<Record<string, Coming>> = {
  'on squares that stand for clear': { suits: isBare, picture: onSquares, asks: false },
  'one tone as a gradient': { suits: isBare, picture: withGradient, asks: true },
  'on paper in uneven light': { suits: ({ ground }) => lumaOf(rgbOf(ground)) > 200, picture: inUnevenLight, asks: true },
};
