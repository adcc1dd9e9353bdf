import startClipper from 'clipper2-wasm/dist/es/clipper2z.js';
import type { PolygonLibrary } from '../src/core/combine/polygonLibrary.ts';
import { polygonLibrary } from '../src/formats/polygons/polygonLibrary.ts';
import { packageFile } from './packageFile.ts';

let library: Promise<PolygonLibrary> | undefined;

/** The polygon library, started once. */
export function loadPolygons(): Promise<PolygonLibrary> {
  library ??= (async () => polygonLibrary(await startClipper({ wasmBinary: new Uint8Array(await packageFile('clipper2-wasm/dist/es/clipper2z.wasm')).buffer })))();
  return library;
}
