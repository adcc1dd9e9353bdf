import { createRequire } from 'node:module';
import type { Clipper2ZFactoryFunction } from 'clipper2-wasm/dist/clipper2z';
import type { PolygonLibrary } from '../src/core/combine/polygonLibrary.ts';
import { polygonLibrary } from '../src/formats/polygons/polygonLibrary.ts';
import { packageFile } from './packageFile.ts';

// Code that was kept compiled cannot import while it runs, as the library's other build does, but it can require.
const load = createRequire(import.meta.url);

let library: Promise<PolygonLibrary> | undefined;

/** The polygon library, started once. */
export function loadPolygons(): Promise<PolygonLibrary> {
  library ??= (async () => {
    const start = load('clipper2-wasm') as Clipper2ZFactoryFunction;
    return polygonLibrary(await start({ wasmBinary: new Uint8Array(await packageFile('clipper2-wasm/dist/es/clipper2z.wasm')).buffer }));
  })();
  return library;
}
