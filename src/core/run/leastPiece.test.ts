import { expect, it } from 'vitest';
import { asJpeg } from '../../../tests/fixtures/asJpeg.ts';
import { paintedArt } from '../../../tests/fixtures/shapes.ts';
import type { Rgb } from '../colour/oklab.ts';
import { newJob } from '../job/newJob.ts';
import { piecesOf } from '../outline/pieces.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import { finish } from '../task/task.ts';
import { separateArt } from './separateArt.ts';

const [WHITE, CREAM, BLUE, BLACK]: Rgb[] = [{ r: 255, g: 255, b: 255 }, { r: 227, g: 207, b: 164 }, { r: 156, g: 201, b: 230 }, { r: 28, g: 27, b: 32 }];
const SIDE = 150;
const PX_PER_MM = 2.4;
const LEAST_MM2 = 0.3;

/** A black band between blue and a white ground that has a cream area on it. @param turn of the band. */
const banded = (turn: number): ReturnType<typeof paintedArt> =>
  paintedArt(SIDE, SIDE, (x, y) => {
    const [u, v] = [(x - 75) * Math.cos(turn) + (y - 75) * Math.sin(turn), (y - 75) * Math.cos(turn) - (x - 75) * Math.sin(turn)];
    if (Math.hypot(x - 75, y - 75) > 66) return WHITE;
    if (Math.abs(v) < 5.5) return BLACK;
    return v > 0 ? BLUE : Math.abs(u + 0.2 * v) < 24 + 6 * turn ? CREAM : WHITE;
  });

it('no film has a piece below the least one, although a bit of a tone lies where three meet and films reach under each other', async () => {
  const job = { separation: { way: 'flat', count: 4, meet: 'inset', reachMm: 0.3 } as const, films: newJob('').films, outline: { leastPieceMm2: LEAST_MM2 } };
  let [films, small] = [0, 0];
  for (let k = 0; k < 14; k++) {
    const { films: found } = finish(separateArt(job, await asJpeg(banded(0.21 * k + 0.05), 80), DEFAULT_OUTLINE, () => PX_PER_MM));
    films += found.length;
    small += found.flatMap(({ outline }) => piecesOf(outline)).filter(({ area }) => area < LEAST_MM2 * PX_PER_MM ** 2).length;
  }
  expect([films, small]).toEqual([42, 0]);
});
