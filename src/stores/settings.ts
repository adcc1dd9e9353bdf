import { usePreferredDark, useStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { lensSchema, type LensSettings as Lens } from '../core/clean/steps/squaring.ts';
import type { LengthUnit } from '../core/units/parseLength.ts';

export type Theme = 'auto' | 'light' | 'dark';
export type Backdrop = 'hatch' | 'paper' | 'blank' | 'loud';

/** Choices of the person at the bench, the same for all jobs. */
export const useSettings = defineStore('settings', () => {
  const unit = useStorage<LengthUnit>('limner.unit', 'mm');
  const theme = useStorage<Theme>('limner.theme', 'auto');
  const backdrop = useStorage<Backdrop>('limner.backdrop', 'hatch');
  /** CSS pixels on one mm of this screen; 96 dpi until it was measured. */
  const screenPxPerMm = useStorage('limner.screenPxPerMm', 96 / 25.4);
  const screenMeasured = useStorage('limner.screenMeasured', false);
  const prefersDark = usePreferredDark();
  const isDark = computed(() => theme.value === 'dark' || (theme.value === 'auto' && prefersDark.value));
  /** How the lenses of cameras bend, as photos of the mark sheet told. */
  const lenses = useStorage<Record<string, unknown>>('limner.lenses', {});
  function lensOf(camera: string): Lens | undefined {
    const known = lensSchema.safeParse(Object.hasOwn(lenses.value, camera) ? lenses.value[camera] : undefined);
    return known.success ? known.data : undefined;
  }
  function rememberLens(camera: string, lens: Lens): void {
    const known = lensOf(camera);
    if (known?.k1 !== lens.k1 || known.k2 !== lens.k2) lenses.value = { ...lenses.value, [camera]: lens };
  }
  return { lensOf, rememberLens, unit, theme, backdrop, screenPxPerMm, screenMeasured, isDark };
});
