import type { ShapeTools } from '../src/engine/designShapes.ts';
import { fontFromBytes, loadFont } from './loadFont.ts';
import { loadPolygons } from './loadPolygons.ts';

/** Lettering and cutting on the command line and in tests. */
export const shapeTools: ShapeTools = { polygons: loadPolygons, font: loadFont, readFont: (bytes, file) => Promise.resolve(fontFromBytes(bytes, file)) };
