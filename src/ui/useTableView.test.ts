// @vitest-environment jsdom
import { effectScope, nextTick, ref, type EffectScope } from 'vue';
import { afterEach, describe, expect, it } from 'vitest';
import { useTableView } from './useTableView.ts';
import { toScreenX, toScreenY } from './viewport.ts';

let scope: EffectScope;
function tableView() {
  scope = effectScope();
  const box = ref({ x: 0, y: 0, width: 300, height: 200 });
  const trueScale = ref(2);
  const view = scope.run(() => useTableView(ref<HTMLElement>(), box, trueScale));
  if (view === undefined) throw new Error('no scope');
  view.size.value = { width: 800, height: 600 };
  view.fit();
  return { box, trueScale, ...view };
}
afterEach(() => scope.stop());

describe('what is seen on the table', () => {
  it('fits its box, also a new one', async () => {
    const { box, view } = tableView();
    const { scale } = view.value;
    box.value = { x: 0, y: 0, width: 600, height: 400 };
    await nextTick();
    expect(view.value.scale).toBeCloseTo(scale / 2, 9);
  });

  it('stays at true size when the size of the design becomes known, and around the middle of a new box', async () => {
    const { box, trueScale, view, showTrueSize } = tableView();
    showTrueSize();
    expect(view.value.scale).toBe(2);
    trueScale.value = 1.5;
    await nextTick();
    expect(view.value.scale).toBeCloseTo(1.5, 9);
    box.value = { x: 40, y: 20, width: 100, height: 50 };
    await nextTick();
    expect(view.value.scale).toBeCloseTo(1.5, 9);
    expect(toScreenX(view.value, 90)).toBeCloseTo(400, 6);
    expect(toScreenY(view.value, 45)).toBeCloseTo(300, 6);
  });

  it('leaves a zoom by hand alone when the true size changes', async () => {
    const { trueScale, view, showTrueSize, zoomBy } = tableView();
    showTrueSize();
    zoomBy(3);
    trueScale.value = 1;
    await nextTick();
    expect(view.value.scale).toBeCloseTo(6, 9);
  });

  it('fits again on request, and then no longer keeps to true size', async () => {
    const { trueScale, view, showTrueSize, fit } = tableView();
    const fittedScale = view.value.scale;
    showTrueSize();
    fit();
    trueScale.value = 5;
    await nextTick();
    expect(view.value.scale).toBe(fittedScale);
  });
});
