import { z } from 'zod';
import { filmId } from '../film/film.ts';

/** Bridges of one island at most. */
export const MOST_BRIDGES = 12;
/** Islands with bridges of their own. */
const MOST_OWN = 2000;

const share = z.number().min(-1).max(2);

/** One bridge that was put where it is: where it leaves the island, as a share of the design's width and height, so that it stays at every size. */
const ownBridgeSchema = z.strictObject({
  x: share,
  y: share,
  /** Away from straight across, degrees. */
  slantDeg: z.number().min(-60).max(60).optional(),
  widthMm: z.number().min(0.1).max(50).optional(),
});
export type OwnBridge = z.infer<typeof ownBridgeSchema>;

/** An island that is held as somebody wants it, or not at all; the island is the one at that place. */
const ownIslandSchema = z.strictObject({ film: filmId, x: share, y: share, bridges: z.array(ownBridgeSchema).max(MOST_BRIDGES) });
export type OwnIsland = z.infer<typeof ownIslandSchema>;

/** How the islands of a stencil are held. */
export const bridgesSchema = z.strictObject({
  on: z.boolean(),
  /** As wide as suits the design's size when absent. */
  widthMm: z.number().min(0.1).max(50).optional(),
  /** For each island; by its size when absent. */
  count: z.number().int().min(1).max(MOST_BRIDGES).optional(),
  /** Islands smaller than this fall out, mm². */
  leastIslandMm2: z.number().min(0).max(1000).optional(),
  islands: z.array(ownIslandSchema).max(MOST_OWN).optional(),
});
export type BridgeSettings = z.infer<typeof bridgesSchema>;

/** Every job of a stencil has bridges until somebody takes them out. */
export const USUAL_BRIDGES: BridgeSettings = { on: true };

/** A bridge is no narrower than what film holds, and no wider than is usual. */
const USUAL_SHARE = 0.0075;
const MOST_USUAL_MM = 2;

/** The width of bridges that suits a design, mm. @param longSideMm of the design. @param leastMm narrowest strip of the film that holds. */
export const usualBridgeMm = (longSideMm: number, leastMm: number): number => Math.round(Math.max(leastMm, Math.min(MOST_USUAL_MM, USUAL_SHARE * longSideMm)) * 10) / 10;
