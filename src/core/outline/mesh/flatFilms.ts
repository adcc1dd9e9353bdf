import { hexFromRgb } from '../../colour/hex.ts';
import type { Art } from '../../raster/art.ts';
import type { FlatTones } from '../../separate/flatTones.ts';
import type { Task } from '../../task/task.ts';
import type { Curves } from '../curves.ts';
import { traceMesh, type ArcMesh, type MeshOptions } from './arcMesh.ts';
import { filmOutline } from './filmOutline.ts';
import { meshRegions } from './meshRegions.ts';
import { sidesOfRegions, stackedRegions, stackOrder } from './stackFilms.ts';

/** How films meet: each upper one on a full lower one, or each cut out of the others. */
export type Meet = 'stacked' | 'inset';

/** One film of a separation with what is cut of it. */
export interface FilmCurves {
  /** Tone that it has. */
  readonly tone: number;
  readonly colour: string;
  readonly curves: Curves;
}

/**
 * Traces tones to films, lowest first; the background is none.
 * @param order in which the tones lie over each other, lowest first; the one with the least edge when absent.
 */
export function* flatFilms(art: Art, { labels, tones, ground }: FlatTones, meet: Meet, options: MeshOptions, order?: readonly number[]): Task<{ mesh: ArcMesh; films: FilmCurves[] }> {
  const mesh = yield* traceMesh(art, labels, tones, options);
  const regions = meshRegions(mesh);
  const filmTones = [...new Set(regions.label)].filter((label) => label < tones.length && label !== ground).sort((a, b) => a - b);
  const filmOf = Int32Array.from(regions.label, (label) => filmTones.indexOf(label));
  const ranks = order === undefined ? stackOrder(mesh, regions, filmOf, filmTones.length) : Int32Array.from(filmTones, (tone) => order.indexOf(tone));
  const covered = meet === 'stacked' ? stackedRegions(mesh, regions, filmOf, ranks) : ownRegions(filmOf, filmTones.length);
  const lowestFirst = filmTones.map((_, film) => film).sort((a, b) => ranks[a] - ranks[b]);
  const films = lowestFirst.map((film): FilmCurves => {
    const sides = sidesOfRegions(regions, covered.subarray(film * regions.count, (film + 1) * regions.count));
    return { tone: filmTones[film], colour: hexFromRgb(tones[filmTones[film]]), curves: filmOutline(mesh, sides) };
  });
  return { mesh, films };
}

function ownRegions(filmOf: Int32Array, films: number): Uint8Array {
  const covered = new Uint8Array(films * filmOf.length);
  for (let r = 0; r < filmOf.length; r++) if (filmOf[r] >= 0) covered[filmOf[r] * filmOf.length + r] = 1;
  return covered;
}
