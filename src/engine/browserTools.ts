import { AppError } from '../core/errors/appError.ts';
import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import type { FontFace } from '../core/lettering/fontFace.ts';
import { fontNamed, hasLetters } from '../core/lettering/fonts.ts';
import { fontFace, type FontLibrary } from '../formats/fonts/fontFace.ts';
import { ownFont } from '../formats/fonts/ownFonts.ts';
import { polygonLibrary } from '../formats/polygons/polygonLibrary.ts';
import type { ShapeTools } from './designShapes.ts';
import { FONT_ADDRESSES } from './fontAddresses.ts';
import { FONT_SUBSETS } from './fontSubsets.ts';
import { say } from '../core/words/say.ts';

let library: Promise<PolygonLibrary> | undefined;
const faces = new Map<string, Promise<FontFace>>();

/** Lettering and cutting in the browser: everything is fetched from where the application came from, when it is first wanted. */
export const browserTools: ShapeTools = {
  polygons() {
    library ??= (async () => {
      const [{ default: start }, { default: address }] = await Promise.all([import('clipper2-wasm/dist/es/clipper2z.js'), import('clipper2-wasm/dist/es/clipper2z.wasm?url')]);
      return polygonLibrary(await start({ wasmBinary: await (await fetch(address)).arrayBuffer() }));
    })();
    return library;
  },
  readFont,
  async font(name, text = '') {
    const face = await keptFace(name, () => load(name));
    return hasLetters(face, text) ? face : keptFace(say`${name}, all letters`, () => load(name, true));
  },
};

function keptFace(key: string, make: () => Promise<FontFace>): Promise<FontFace> {
  let face = faces.get(key);
  if (face === undefined) {
    face = make();
    faces.set(key, face);
    // One that could not be fetched is tried again the next time.
    face.catch(() => faces.delete(key));
  }
  return face;
}

async function readFont(bytes: Uint8Array, file: string): Promise<FontFace> {
  return fontFace((await import('fontkit')) as unknown as FontLibrary, bytes, file);
}

/** @param whole with all further letters that a shipped font has. */
async function load(name: string, whole = false): Promise<FontFace> {
  const fontkit = (await import('fontkit')) as unknown as FontLibrary;
  const shipped = fontNamed(name);
  const address = shipped === undefined ? undefined : FONT_ADDRESSES[shipped.name];
  if (address === undefined) {
    const bytes = await ownFont(name);
    if (bytes === undefined) throw new AppError('badFont', { file: name, reason: say('it is none of the shipped fonts, and its file was not brought in on this computer') });
    return fontFace(fontkit, bytes, name, name);
  }
  const further = whole ? Object.values(FONT_SUBSETS[shipped?.name ?? name] ?? {}) : [];
  const [first, ...more] = await Promise.all([address, ...further].map(fetched));
  return fontFace(fontkit, first, name, name, more);
}

async function fetched(address: () => Promise<{ readonly default: string }>): Promise<Uint8Array> {
  return new Uint8Array(await (await fetch((await address()).default)).arrayBuffer());
}
