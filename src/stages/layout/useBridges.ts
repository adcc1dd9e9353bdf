import { useEventListener } from '@vueuse/core';
import { computed, shallowRef, watch, type Ref } from 'vue';
import { USUAL_BRIDGES, type BridgeSettings } from '../../core/bridge/bridge.ts';
import type { DesignBridge } from '../../core/bridge/holdIslands.ts';
import { withBridgeAcross, withBridgeMoved, withBridgeSlant, withBridgeWidth, withoutBridge, withoutOwnBridges } from '../../core/edit/bridgeEdits.ts';
import type { Job } from '../../core/job/job.ts';
import { PROCESSES } from '../../core/process/processes.ts';
import { useBench } from '../../stores/bench.ts';
import { isTyping } from '../shared/isTyping.ts';
import type { PlaceOnSheet } from './placeOnSheet.ts';
import { say } from '../../core/words/say.ts';

/** How near to a grip one may point, CSS px. */
const NEAR_PX = 10;

const STEPS: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** A bridge as it lies on the sheet. */
export interface BridgeGrip {
  readonly bridge: DesignBridge;
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

/** The bridges of the film on the table: their grips, which one is chosen, and what is done to it. @param at where the first copy of the design lies on the sheet. */
export function useBridges(filmId: Ref<string>, at: Ref<PlaceOnSheet | undefined>, scale: Ref<number>) {
  const bench = useBench();
  const job = computed(() => bench.job as Job);
  const isStencil = computed(() => PROCESSES[job.value.process].artIsOpening);
  const held = computed(() => bench.result?.cut?.held);
  const settings = computed(() => job.value.bridges ?? USUAL_BRIDGES);
  const all = computed(() => held.value?.bridges ?? []);
  const grips = computed((): BridgeGrip[] => {
    const place = at.value;
    if (place === undefined) return [];
    return all.value.filter((each) => each.filmId === filmId.value).map((bridge) => ({ bridge, from: place.to(bridge.from.x, bridge.from.y), to: place.to(bridge.to.x, bridge.to.y) }));
  });
  const chosenAt = shallowRef<number>();
  const chosen = computed(() => (chosenAt.value === undefined ? undefined : grips.value[chosenAt.value]));
  watch(filmId, () => (chosenAt.value = undefined));
  const room = computed(() => bench.result?.cut?.design ?? { widthMm: 1, heightMm: 1 });

  const withBridges = (bridges: BridgeSettings): Job => ({ ...job.value, bridges });
  const set = (label: string, bridges: BridgeSettings): void => bench.commit(label, withBridges(bridges));
  const change = (label: string, by: Partial<BridgeSettings>): void => set(label, { ...settings.value, ...by });
  const drag = (by: Partial<BridgeSettings>): void => bench.preview(withBridges({ ...settings.value, ...by }));

  const middleOf = ({ from, to }: BridgeGrip): { x: number; y: number } => ({ x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 });
  function gripAt({ x, y }: { x: number; y: number }): number | undefined {
    const found = grips.value.findIndex((grip) => Math.hypot(middleOf(grip).x - x, middleOf(grip).y - y) * scale.value <= NEAR_PX);
    return found < 0 ? undefined : found;
  }

  /** The bridge in hand, with all as they were when it was taken up. */
  let inHand: { readonly bridge: DesignBridge; readonly all: readonly DesignBridge[]; readonly before: BridgeSettings; readonly home: PlaceOnSheet; moved: boolean } | undefined;
  function press(point: { x: number; y: number }): boolean {
    const found = gripAt(point);
    chosenAt.value = found;
    if (found === undefined || at.value === undefined) return false;
    inHand = { bridge: grips.value[found].bridge, all: all.value, before: settings.value, home: at.value, moved: false };
    return true;
  }
  function move({ x, y }: { x: number; y: number }): boolean {
    if (inHand === undefined) return false;
    inHand.moved = true;
    bench.preview(withBridges(withBridgeMoved(inHand.before, inHand.all, inHand.bridge, inHand.home.from(x, y), room.value)));
    return true;
  }
  function release(): void {
    if (inHand?.moved === true) bench.commitPreview(say('Move a bridge'));
    inHand = undefined;
  }
  const ofChosen = (label: string, edit: (bridge: DesignBridge) => BridgeSettings): void => {
    if (chosen.value !== undefined) set(label, edit(chosen.value.bridge));
  };
  const takeOut = (): void => {
    ofChosen(say('Take out a bridge'), (bridge) => withoutBridge(settings.value, all.value, bridge, room.value));
    chosenAt.value = undefined;
  };
  /** Moves the chosen one along the edge by arrow keys, in mm of the design. */
  function nudge([dx, dy]: readonly [number, number], byMm: number): void {
    ofChosen(say('Move a bridge'), (bridge) => withBridgeMoved(settings.value, all.value, bridge, { x: bridge.from.x + dx * byMm, y: bridge.from.y + dy * byMm }, room.value));
  }
  useEventListener('keydown', (event: KeyboardEvent) => {
    if (isTyping(event.target) || chosen.value === undefined) return;
    const step = STEPS[event.key];
    if (step !== undefined) nudge(step, event.shiftKey ? 10 : 1);
    else if (event.key === 'Delete' || event.key === 'Backspace') takeOut();
    else if (event.key === 'Escape') {
      if (inHand !== undefined) bench.revert();
      inHand = undefined;
      chosenAt.value = undefined;
    } else return;
    event.preventDefault();
  });

  return {
    isStencil, held, settings, grips, chosen, chosenAt, change, drag, press, move, release, takeOut, gripAt,
    addAcross: () => ofChosen(say('One more bridge'), (bridge) => withBridgeAcross(settings.value, all.value, bridge, room.value)),
    widen: (widthMm: number) => ofChosen(say('Width of a bridge'), (bridge) => withBridgeWidth(settings.value, all.value, bridge, widthMm, room.value)),
    slant: (slantDeg: number) => ofChosen(say('Slant of a bridge'), (bridge) => withBridgeSlant(settings.value, all.value, bridge, slantDeg, room.value)),
    putBack: () => set(say('Bridges as found'), withoutOwnBridges(settings.value)),
    chooseNext: () => (chosenAt.value = grips.value.length === 0 ? undefined : ((chosenAt.value ?? -1) + 1) % grips.value.length),
  };
}
export type Bridges = ReturnType<typeof useBridges>;
