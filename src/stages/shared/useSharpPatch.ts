import { useDebounceFn } from '@vueuse/core';
import { shallowRef } from 'vue';
import { asAppError } from '../../core/errors/appError.ts';
import { useBench } from '../../stores/bench.ts';
import { toWorldX, toWorldY, type Size, type Viewport } from '../../ui/viewport.ts';
import type { Placed } from './pictureScene.ts';

const SETTLE_MS = 140;

/**
 * When one looks closer than the reduced picture can show, fetches just what is in view from the engine at screen resolution. `patch` is drawn over
 * the reduced picture; it is dropped as soon as it no longer belongs to what is shown.
 */
export function useSharpPatch(of: 'picture' | 'base' | 'clean') {
  const bench = useBench();
  /** The picture as it came, or as places in the recipe are counted in it. */
  const source = () => (of === 'picture' ? bench.picture : bench.base);
  const patch = shallowRef<Placed & { key: string }>();
  let wanted = '';

  const fetchPatch = useDebounceFn(async (key: string, view: Viewport, size: Size) => {
    const { picture, result } = bench;
    const base = source();
    if (picture === undefined || base === undefined || wanted !== key) return;
    const x = Math.max(0, Math.floor(toWorldX(view, 0)));
    const y = Math.max(0, Math.floor(toWorldY(view, 0)));
    const width = Math.min(base.widthPx, Math.ceil(toWorldX(view, size.width))) - x;
    const height = Math.min(base.heightPx, Math.ceil(toWorldY(view, size.height))) - y;
    if (width <= 0 || height <= 0) return;
    const factor = Math.min(1, view.scale * window.devicePixelRatio);
    const request = { pictureKey: picture.pictureKey, xPx: x, yPx: y, widthPx: width, heightPx: height, outWidth: Math.max(1, Math.round(width * factor)), outHeight: Math.max(1, Math.round(height * factor)) };
    try {
      const cleanKey = of === 'clean' ? result?.clean.key : undefined;
      const baseKey = of === 'base' && base !== picture ? result?.base?.key : undefined;
      const pixels = await bench.region({ ...request, ...(cleanKey === undefined ? {} : { cleanKey }), ...(baseKey === undefined ? {} : { baseKey }) });
      if (wanted === key) patch.value = { pixels, box: { x, y, width, height }, key };
    } catch (error) {
      // The art moved on meanwhile; the reduced picture stays until the next look.
      if (asAppError(error, 'unexpected').code !== 'cancelled') throw error;
    }
  }, SETTLE_MS);

  function look(view: Viewport, size: Size): void {
    const { result } = bench;
    const base = source();
    if (base === undefined || (of === 'clean' && result?.quality !== 'final')) return;
    const reduced = base.view.width / base.widthPx;
    const key = `${of === 'clean' ? result?.clean.key : of === 'base' ? result?.base?.key : 'picture'}|${view.scale}|${view.x}|${view.y}|${size.width}`;
    if (reduced >= 1 || view.scale < reduced * 1.15) {
      wanted = '';
      patch.value = undefined;
      return;
    }
    if (key === wanted) return;
    wanted = key;
    if (of === 'clean' && patch.value !== undefined && !patch.value.key.startsWith(`${result?.clean.key}|`)) patch.value = undefined;
    void fetchPatch(key, view, size);
  }
  return { patch, look };
}
