import { computed, type Ref } from 'vue';
import type { TablePoint } from '../../ui/useTableView.ts';
import type { Bridges } from './useBridges.ts';
import type { useFlaws } from './useFlaws.ts';
import type { PlaceMm, WeedLinesInHand } from './useWeedLines.ts';

/** What the pointer does on a sheet: flaws first, where they are being marked, then the grips of bridges and of weed lines. */
export function useSheetHands(isSheet: Ref<boolean>, pointer: Ref<PlaceMm | undefined>, { flaws, bridges, weedLines }: { readonly flaws: ReturnType<typeof useFlaws>; readonly bridges: Bridges; readonly weedLines: WeedLinesInHand }) {
  const cursor = computed(() => {
    const at = pointer.value;
    if (flaws.isMarking.value) return 'crosshair';
    return isSheet.value && at !== undefined && (bridges.gripAt(at) !== undefined || weedLines.lineAt(at) !== undefined) ? 'grab' : undefined;
  });
  return {
    cursor,
    press: (point: TablePoint): boolean => isSheet.value && (flaws.press(point) || bridges.press(point) || weedLines.press(point)),
    move(point: TablePoint): void {
      pointer.value = { x: point.x, y: point.y };
      flaws.move(point);
      if (isSheet.value && !bridges.move(point)) weedLines.move(point);
    },
    release(): void {
      flaws.release();
      bridges.release();
      weedLines.release();
    },
  };
}
