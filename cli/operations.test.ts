import { readFile, writeFile } from 'node:fs/promises';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { limner, ownFolder } from '../tests/fixtures/command.ts';
import { newJob } from '../src/core/job/newJob.ts';
import type { DesignObject } from '../src/core/job/objects.ts';

const at = await ownFolder();
beforeAll(async () => {
  const body = '<rect width="120" height="120" fill="#fff"/><circle cx="60" cy="60" r="40" fill="none" stroke="#123" stroke-width="8"/>';
  await sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="120" height="120">${body}</svg>`)).png().toFile(at('ring.png'));
});

describe('run of a job whose parts are worked on', () => {
  it('writes a sheet for each film that operations lay down, with marks and holes', async () => {
    const start = newJob('Badge');
    const film = (id: string, colour: string) => ({ id, name: id, colour });
    const [art] = start.objects;
    const objects: DesignObject[] = [
      { kind: 'base', id: 'base', film: 'Board', base: { form: 'round', marginMm: 2, cornerMm: 0, corners: 'round' } },
      {
        ...(art as Extract<DesignObject, { kind: 'traced' }>),
        size: { by: 'width', sizeMm: 80, turnDeg: 0 },
        operations: [
          { id: 'fill', kind: 'fill', film: 'Sail', at: [{ x: 60, y: 60 }], reachMm: 0.5, gapMm: 0 },
          { id: 'border', kind: 'border', film: 'Edge', widthMm: 3, corners: 'round', openings: 'filled' },
          { id: 'gone', kind: 'takeOff', pieces: [{ film: 'Sail', x: -500, y: 0 }] },
        ],
      },
      { kind: 'holes', id: 'holes', holes: { where: 'top', diameterMm: 4, fromTopMm: 6, fromSideMm: 6 } },
    ];
    const job = { ...start, films: [film('Board', '#ffffff'), film('Edge', '#e5702a'), film('Sail', '#f2b632'), ...start.films], objects };
    await writeFile(at('badge.json'), JSON.stringify(job));
    const { code, err } = await limner('run', at('badge.json'), at('ring.png'), '--out', at('done'));
    expect([code, err]).toEqual([0, '']);
    const sheets = await Promise.all(['1-board', '2-edge', '3-sail', '4-harbour-navy'].map((name) => readFile(at(`done/ring-${name}.svg`), 'utf8')));
    const rings = sheets.map((sheet) => (/-art"[^>]*>([\s\S]*?)<\/g>/.exec(sheet)?.[1].match(/<path/g) ?? []).length);
    // The board is an outline and the hole; border and filling are one piece each, the ring has its opening.
    expect(rings).toEqual([2, 1, 1, 2]);
  }, 30_000);
});
