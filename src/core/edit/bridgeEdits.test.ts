import { beforeAll, describe, expect, it } from 'vitest';
import { loadPolygons } from '../../../cli/loadPolygons.ts';
import type { BridgeSettings } from '../bridge/bridge.ts';
import type { PolygonLibrary } from '../combine/polygonLibrary.ts';
import type { Job } from '../job/job.ts';
import { newJob } from '../job/newJob.ts';
import { piecesOf } from '../outline/pieces.ts';
import { designRun } from '../run/designRun.ts';
import { siblings, withBridgeAcross, withBridgeMoved, withBridgeSlant, withBridgeWidth, withoutBridge, withoutOwnBridges } from './bridgeEdits.ts';

let library: PolygonLibrary;
beforeAll(async () => {
  library = await loadPolygons();
});

/** A square opening with an island in it. */
const PATH = 'M0 0L80 0L80 60L0 60ZM20 20L60 20L60 40L20 40Z';
function run(bridges?: BridgeSettings, scale = 1) {
  const fresh = newJob('Soap', 'stencil');
  const job: Job = {
    ...fresh,
    objects: [...fresh.objects, { kind: 'imported', id: 'drawn', fileName: 'frame.svg', paths: [{ film: 'film-1', path: PATH }], placement: { a: scale, b: 0, c: 0, d: scale, e: 0, f: 0 } }],
    ...(bridges === undefined ? {} : { bridges }),
  };
  const { design, held } = designRun(job, new Map(), new Map(), { library, lettered: new Map() });
  return { all: held?.bridges ?? [], room: { widthMm: design.widthMm, heightMm: design.heightMm }, loose: design.layers.flatMap(({ curves }) => piecesOf(curves).flatMap(({ holes }) => holes)).length };
}
const before = () => run();

describe('bridges that somebody changes', () => {
  it('go where they are dragged along the edge, and stay there at another size', () => {
    const { all, room } = before();
    const moved = withBridgeMoved(undefined, all, all[0], { x: 61, y: 33 }, room);
    const after = run(moved);
    expect(after.all.some(({ from, isOwn }) => isOwn && Math.abs(from.x - 60) < 0.5 && Math.abs(from.y - 33) < 1)).toBe(true);
    const double = run(moved, 2);
    expect(double.all.some(({ from, isOwn }) => isOwn && Math.abs(from.x - 120) < 1 && Math.abs(from.y - 66) < 2)).toBe(true);
    expect([after.loose, double.loose]).toEqual([0, 0]);
    expect(withoutOwnBridges(moved)).not.toHaveProperty('islands');
  });

  it('slant as far as asked, become as wide as asked, and keep both when another is moved', () => {
    const { all, room } = before();
    const slanted = withBridgeSlant(undefined, all, all[0], 30, room);
    const one = run(slanted);
    const [bridge] = siblings(one.all, one.all.find(({ slantDeg }) => slantDeg === 30) ?? one.all[0]);
    expect(bridge.slantDeg).toBe(30);
    const along = { x: bridge.to.x - bridge.from.x, y: bridge.to.y - bridge.from.y };
    const offAxis = (Math.atan2(Math.min(Math.abs(along.x), Math.abs(along.y)), Math.max(Math.abs(along.x), Math.abs(along.y))) * 180) / Math.PI;
    expect(offAxis).toBeCloseTo(30, 0);
    expect(one.loose).toBe(0);
    const wide = run(withBridgeWidth(slanted, one.all, bridge, 3.5, one.room));
    expect(wide.all.find(({ slantDeg }) => slantDeg === 30)?.widthMm).toBe(3.5);
    expect(run(withBridgeSlant(slanted, one.all, bridge, 0, one.room)).all.every(({ slantDeg }) => slantDeg === undefined)).toBe(true);
  });

  it('are one more on the other side, or one less; the island whose last one goes is loose', () => {
    const { all, room } = before();
    const more = withBridgeAcross(undefined, all, all[0], room);
    expect(run(more).all).toHaveLength(all.length + 1);
    let now = run(more);
    let settings: BridgeSettings = more;
    while (now.all.length > 0) {
      settings = withoutBridge(settings, now.all, now.all[0], now.room);
      now = run(settings);
    }
    expect(now.loose).toBe(1);
  });
});
