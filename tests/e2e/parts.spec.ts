import { expect } from '@playwright/test';
import { choose, goTo, openJob, save, setQuantity, settled, test } from './bench.ts';
import { boxOf, readCutFile } from './svgGeometry.ts';

test('a name is set under a crest, on a bar that it is knocked out of, and goes to the cut file', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Assemble');
  const parts = page.getByRole('list', { name: 'Parts of the design' }).getByRole('button');
  const height = async (): Promise<number> => Number(/× (\d+) mm/.exec((await page.locator('.tab', { hasText: 'Assemble' }).textContent()) ?? '')?.[1]);
  const plain = await height();
  const add = async (name: string): Promise<void> => {
    await page.getByRole('button', { name: 'Add a part' }).click();
    await page.getByRole('menuitem', { name }).click();
    await settled(page);
  };

  await test.step('lettering comes under it, is typed, and set in another font and size', async () => {
    await add('Lettering');
    await expect(parts).toHaveCount(2);
    await page.getByLabel('Text', { exact: true }).fill('Row 46');
    await expect(parts.first()).toContainText('“Row 46”');
    await page.getByLabel('Text', { exact: true }).press('Tab');
    await choose(page, 'Font', 'Alfa Slab One, slab');
    await setQuantity(page, 'Capital height', '20');
    await settled(page);
    expect(await height()).toBeGreaterThan(plain + 15);
    // An empty field leaves the last text where it is.
    await page.getByLabel('Text', { exact: true }).fill('');
    await page.getByLabel('Text', { exact: true }).press('Tab');
    await expect(parts.first()).toContainText('“Row 46”');
  });

  await test.step('a bar is laid below it, and it is cut out of the bar', async () => {
    await add('Rectangle');
    await setQuantity(page, 'Part width', '130');
    await setQuantity(page, 'Part height', '30');
    await setQuantity(page, 'Corner radius', '4');
    await page.getByRole('button', { name: 'Lay lower' }).click();
    await expect(parts.nth(1)).toContainText('Rectangle');
    await settled(page);
    const pieces = async (): Promise<number> => Number(/(\d+) pieces?/.exec((await page.locator('.rack .roll').first().textContent()) ?? '')?.[1]);
    const before = await pieces();
    await parts.first().click();
    await page.getByText('Cut out of what lies below').click();
    await expect(parts.first()).toContainText('cut out');
    await settled(page);
    expect(await pieces()).not.toBe(before);
    await page.keyboard.press('Control+z');
    await expect(parts.first()).not.toContainText('cut out');
    await page.keyboard.press('Control+Shift+z');
    await expect(parts.first()).toContainText('cut out');
    await settled(page);
  });

  await test.step('it is nudged, doubled and taken off by keys and buttons', async () => {
    const left = page.getByLabel('Across', { exact: true });
    const at = Number.parseFloat(await left.inputValue());
    await page.keyboard.press('Shift+ArrowLeft');
    await settled(page);
    expect(Number.parseFloat(await left.inputValue())).toBeCloseTo(at - 10, 0);
    await page.keyboard.press('Control+z');
    await page.getByRole('button', { name: 'Double it' }).click();
    await expect(parts).toHaveCount(4);
    await page.keyboard.press('Delete');
    await expect(parts).toHaveCount(3);
    await settled(page);
  });

  await test.step('the cut file has all of it', async () => {
    const whole = await height();
    await goTo(page, 'Hand off');
    await settled(page);
    const { bytes } = await save(page, 'Save SVG');
    const { art } = readCutFile(bytes.toString());
    const box = boxOf(art);
    expect(Math.abs(box.bottom - box.top - whole)).toBeLessThan(2);
  });
});
