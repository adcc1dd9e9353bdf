import { finish } from '../src/core/task/task.ts';
import { newJob } from '../src/core/job/newJob.ts';
import { separateArt } from '../src/core/run/separateArt.ts';
import { nodeCount } from '../src/core/outline/curves.ts';
import { pathData } from '../src/core/outline/pathData.ts';
import { DEFAULT_OUTLINE } from '../src/core/outline/traceOutline.ts';
import { transformCurves } from '../src/core/outline/transformCurves.ts';
import type { Art } from '../src/core/raster/art.ts';
import type { ColourShape } from './colourLibraries.ts';

/** The films of a picture, stacked, as they would be cut. */
export interface Outlined {
  readonly ground: string;
  readonly shapes: readonly ColourShape[];
  readonly nodes: number;
}

/** @param undo from px of the art to those of the drawing. @param more tones than the drawing has, what is clear among them. */
export function outlined(art: Art, tones: readonly string[], undo: (x: number, y: number) => [number, number] = (x, y) => [x, y], more = 0): Outlined {
  const { scale } = art.frame;
  const job = { separation: { way: 'flat', count: tones.length + more, meet: 'stacked' } as const, films: newJob('').films, outline: { leastPieceMm2: 0 } };
  const { films, tones: found } = finish(separateArt(job, art, { ...DEFAULT_OUTLINE, followPx: DEFAULT_OUTLINE.followPx * scale }, () => 1));
  const [e, f] = undo(0, 0);
  const [ax, ay] = undo(1, 0);
  const [bx, by] = undo(0, 1);
  const shapes = films.map(({ film, outline }): ColourShape => ({ fill: film.colour, path: pathData(transformCurves(outline, { a: ax - e, b: ay - f, c: bx - e, d: by - f, e, f })), nodes: nodeCount(outline) }));
  return { ground: found?.find(({ film }) => film === null)?.colour ?? tones[0], shapes, nodes: shapes.reduce((sum, { nodes }) => sum + nodes, 0) };
}
