import { MOST_BRIDGES, USUAL_BRIDGES, type BridgeSettings, type OwnBridge } from '../bridge/bridge.ts';
import type { DesignBridge } from '../bridge/holdIslands.ts';

/** What bridges are placed in, mm. */
interface Room {
  readonly widthMm: number;
  readonly heightMm: number;
}

/** The bridges of a job with one moved: it leaves its island at the place of the edge that is nearest to where it was let go. */
export const withBridgeMoved = (settings: BridgeSettings | undefined, all: readonly DesignBridge[], moved: DesignBridge, to: { x: number; y: number }, room: Room): BridgeSettings =>
  withOwn(settings, all, moved, room, (own) => own.map((bridge, k) => (siblings(all, moved)[k] === moved ? { ...bridge, ...shareOf(to, room) } : bridge)));

/** With one taken out; an island whose last one goes is left as it is. */
export const withoutBridge = (settings: BridgeSettings | undefined, all: readonly DesignBridge[], gone: DesignBridge, room: Room): BridgeSettings =>
  withOwn(settings, all, gone, room, (own) => own.filter((_, k) => siblings(all, gone)[k] !== gone));

/** With one more on the same island, on the other side of it. */
export const withBridgeAcross = (settings: BridgeSettings | undefined, all: readonly DesignBridge[], beside: DesignBridge, room: Room): BridgeSettings =>
  withOwn(settings, all, beside, room, (own) => (own.length >= MOST_BRIDGES ? own : [...own, shareOf({ x: 2 * beside.middle.x - beside.from.x, y: 2 * beside.middle.y - beside.from.y }, room)]));

/** With one as wide as is asked. */
export const withBridgeWidth = (settings: BridgeSettings | undefined, all: readonly DesignBridge[], changed: DesignBridge, widthMm: number, room: Room): BridgeSettings =>
  withOwn(settings, all, changed, room, (own) => own.map((bridge, k) => (siblings(all, changed)[k] === changed ? { ...bridge, widthMm } : bridge)));

/** With one turned so far from straight across, degrees. */
export const withBridgeSlant = (settings: BridgeSettings | undefined, all: readonly DesignBridge[], changed: DesignBridge, slantDeg: number, room: Room): BridgeSettings =>
  withOwn(settings, all, changed, room, (own) =>
    own.map((bridge, k) => {
      if (siblings(all, changed)[k] !== changed) return bridge;
      const { slantDeg: _, ...straight } = bridge;
      return slantDeg === 0 ? straight : { ...straight, slantDeg };
    }),
  );

/** All as the program places them. */
export function withoutOwnBridges(settings: BridgeSettings | undefined): BridgeSettings {
  const { islands: _, ...rest } = settings ?? USUAL_BRIDGES;
  return rest;
}

/** The bridges that hold the same island, in their order. */
export const siblings = (all: readonly DesignBridge[], { filmId, island }: DesignBridge): DesignBridge[] => all.filter((each) => each.filmId === filmId && each.island.x === island.x && each.island.y === island.y);

const shareOf = ({ x, y }: { x: number; y: number }, { widthMm, heightMm }: Room): { x: number; y: number } => ({ x: clamped(x / widthMm), y: clamped(y / heightMm) });
const clamped = (share: number): number => Math.max(-1, Math.min(2, share));

/** The settings with the bridges of one island as its own, changed. */
function withOwn(settings: BridgeSettings = USUAL_BRIDGES, all: readonly DesignBridge[], bridge: DesignBridge, room: Room, change: (own: readonly OwnBridge[]) => readonly OwnBridge[]): BridgeSettings {
  const key = shareOf(bridge.island, room);
  const usual = settings.widthMm;
  const own = siblings(all, bridge).map(({ from, widthMm, isOwn, slantDeg }): OwnBridge => ({ ...shareOf(from, room), ...(isOwn && widthMm !== usual ? { widthMm } : {}), ...(slantDeg === undefined ? {} : { slantDeg }) }));
  const near = ({ film, x, y }: { film: string; x: number; y: number }): boolean => film === bridge.filmId && Math.hypot(x - key.x, y - key.y) < 1e-6;
  const others = (settings.islands ?? []).filter((each) => !near(each));
  return { ...settings, islands: [...others, { film: bridge.filmId, ...key, bridges: [...change(own)] }] };
}
