// @vitest-environment jsdom
import { config, mount, type VueWrapper } from '@vue/test-utils';
import { describe, expect, it } from 'vitest';
import QuantityInput from './QuantityInput.vue';
import { sayInTemplates } from './sayInTemplates.ts';

config.global.plugins = [sayInTemplates];

const field = (wrapper: VueWrapper) => wrapper.find('input');
const valueOf = (wrapper: VueWrapper): string => (field(wrapper).element as HTMLInputElement).value;
const lengthInput = (props: Record<string, unknown> = {}) => mount(QuantityInput, { props: { label: 'Width', kind: 'length', modelValue: 120, least: 1, most: 2000, ...props } as never, attachTo: document.body });

async function type(wrapper: VueWrapper, text: string, key = 'Enter'): Promise<void> {
  await field(wrapper).trigger('focus');
  await field(wrapper).setValue(text);
  await field(wrapper).trigger('keydown', { key });
}

describe('quantity input', () => {
  it('shows its value with the unit of the bench and takes either unit, with fractions', async () => {
    const wrapper = lengthInput();
    expect(valueOf(wrapper)).toBe('120 mm');
    await type(wrapper, '3 1/2 in');
    expect(wrapper.emitted('done')?.at(-1)?.[0]).toBeCloseTo(88.9, 6);
    await type(wrapper, '15');
    expect(wrapper.emitted('done')?.at(-1)).toEqual([15]);
    await wrapper.setProps({ unit: 'in', modelValue: 25.4 });
    await type(wrapper, '2');
    expect(wrapper.emitted('done')?.at(-1)?.[0]).toBeCloseTo(50.8, 6);
  });

  it('says what it takes when that is not a length or out of range, and keeps the old value', async () => {
    const wrapper = lengthInput();
    for (const text of ['wide', '5000', '-3', '']) {
      await type(wrapper, text);
      expect(wrapper.find('[role="alert"]').text()).toBe('takes 1 mm to 2000 mm');
      expect(field(wrapper).attributes('aria-invalid')).toBe('true');
    }
    expect(wrapper.emitted('done')).toBeUndefined();
    await type(wrapper, 'wide', 'Escape');
    expect(valueOf(wrapper)).toBe('120 mm');
    expect(wrapper.find('[role="alert"]').exists()).toBe(false);
  });

  it('steps with the arrow keys, with Shift by ten, and stops at its ends', async () => {
    const wrapper = mount(QuantityInput, { props: { label: 'Copies', modelValue: 3, least: 1, most: 8 } });
    await field(wrapper).trigger('keydown', { key: 'ArrowUp' });
    await field(wrapper).trigger('keydown', { key: 'ArrowDown' });
    await field(wrapper).trigger('keydown', { key: 'ArrowUp', shiftKey: true });
    await field(wrapper).trigger('keydown', { key: 'ArrowDown', shiftKey: true });
    expect(wrapper.emitted('done')).toEqual([[4], [2], [8], [1]]);
  });

  it('steps by a sixteenth of an inch when the bench is in inches', async () => {
    const wrapper = lengthInput({ unit: 'in', modelValue: 25.4 });
    await field(wrapper).trigger('keydown', { key: 'ArrowUp' });
    expect(wrapper.emitted('done')?.[0]?.[0]).toBeCloseTo(25.4 * (1 + 1 / 16), 5);
  });

  it('tells that it holds no text under way, so that undo belongs to the bench', async () => {
    const wrapper = lengthInput();
    expect(field(wrapper).attributes('data-settled')).toBe('');
    await field(wrapper).setValue('99');
    expect(field(wrapper).attributes('data-settled')).toBeUndefined();
    await field(wrapper).trigger('keydown', { key: 'Enter' });
    expect(field(wrapper).attributes('data-settled')).toBe('');
  });

  it('changes while its name is dragged, is done once at the end, and goes back on Escape', async () => {
    const wrapper = mount(QuantityInput, { props: { label: 'Margin', modelValue: 10, most: 50, onChange: (value: number) => void wrapper.setProps({ modelValue: value }) } as never });
    const name = wrapper.find('.name');
    (name.element as HTMLElement).setPointerCapture = () => undefined;
    const at = (kind: string, clientX: number): void => void name.element.dispatchEvent(Object.assign(new MouseEvent(kind, { clientX, button: 0, bubbles: true }), { pointerId: 1 }));
    at('pointerdown', 100);
    at('pointermove', 112);
    await wrapper.vm.$nextTick();
    at('pointermove', 120);
    await wrapper.vm.$nextTick();
    at('pointerup', 120);
    expect(wrapper.emitted('change')).toEqual([[13], [15]]);
    expect(wrapper.emitted('done')).toEqual([[15]]);
    at('pointerdown', 100);
    at('pointermove', 130);
    window.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    at('pointermove', 160);
    at('pointerup', 160);
    expect(wrapper.emitted('cancel')).toHaveLength(1);
    expect(wrapper.emitted('done')).toHaveLength(1);
  });
});
