import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { MainModule } from 'clipper2-wasm/dist/clipper2z';
import type { PolygonLibrary } from '../src/core/combine/polygonLibrary.ts';
import { polygonLibrary } from '../src/formats/polygons/polygonLibrary.ts';

/** What combines outlines, as the product has it. */
export async function benchPolygons(): Promise<PolygonLibrary> {
  const require = createRequire(import.meta.url);
  const es = join(dirname(require.resolve('clipper2-wasm')), '..', 'es', 'clipper2z.wasm');
  const start = require('clipper2-wasm') as (options: { wasmBinary: Uint8Array }) => Promise<MainModule>;
  return polygonLibrary(await start({ wasmBinary: await readFile(es) }));
}
