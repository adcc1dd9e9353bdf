import { expect, it } from 'vitest';
import { artFromShare, polygon } from '../../../tests/fixtures/shapes.ts';
import { newJob } from '../job/newJob.ts';
import { nodeCount } from '../outline/curves.ts';
import { DEFAULT_OUTLINE } from '../outline/traceOutline.ts';
import { makeShareMap } from '../raster/raster.ts';
import { finish } from '../task/task.ts';
import { separateArt } from './separateArt.ts';

it('draws thin lines of two levels by where they run, not by the stairs of their pixels', () => {
  const bar = polygon(200, 90, [[12.3, 20.2], [186.1, 52.4], [185.5, 55.6], [11.7, 23.4]]);
  const stepped = makeShareMap(200, 90, bar.data.map((share) => (share < 128 ? 0 : 255)));
  const [{ outline }] = finish(separateArt({ separation: { way: 'flat', count: 2, meet: 'stacked' }, films: newJob('').films, outline: {} } as never, artFromShare(stepped), DEFAULT_OUTLINE, () => 1)).films;
  // Four corners, and what is left of some thirty steps on either side.
  expect(nodeCount(outline)).toBeLessThan(24);
});
