import { AppError } from '../core/errors/appError.ts';
import type { PolygonLibrary } from '../core/combine/polygonLibrary.ts';
import type { FontFace } from '../core/lettering/fontFace.ts';
import { fontNamed } from '../core/lettering/fonts.ts';
import { fontFace, type FontLibrary } from '../formats/fonts/fontFace.ts';
import { ownFont } from '../formats/fonts/ownFonts.ts';
import { polygonLibrary } from '../formats/polygons/polygonLibrary.ts';
import type { ShapeTools } from './designShapes.ts';
import { FONT_ADDRESSES } from './fontAddresses.ts';

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
  font(name) {
    let face = faces.get(name);
    if (face === undefined) {
      face = load(name);
      faces.set(name, face);
      // One that could not be fetched is tried again the next time.
      face.catch(() => faces.delete(name));
    }
    return face;
  },
};

async function readFont(bytes: Uint8Array, file: string): Promise<FontFace> {
  return fontFace((await import('fontkit')) as unknown as FontLibrary, bytes, file);
}

async function load(name: string): Promise<FontFace> {
  const shipped = fontNamed(name);
  const address = shipped === undefined ? undefined : FONT_ADDRESSES[shipped.name];
  if (address === undefined) {
    const bytes = await ownFont(name);
    if (bytes === undefined) throw new AppError('badFont', { file: name, reason: 'it is none of the shipped fonts, and its file was not brought in on this computer' });
    return fontFace((await import('fontkit')) as unknown as FontLibrary, bytes, name, name);
  }
  const [fontkit, { default: file }] = await Promise.all([import('fontkit'), address()]);
  return fontFace(fontkit as unknown as FontLibrary, new Uint8Array(await (await fetch(file)).arrayBuffer()), name, name);
}
