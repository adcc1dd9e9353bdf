import { expect, type Page } from '@playwright/test';
import { addStep, goTo, openJob, settled, table, test } from './bench.ts';

test.use({ hasTouch: true, viewport: { width: 1180, height: 820 } });

/** Two fingers that go apart, as the browser gets them from a screen. */
async function spread(page: Page, x: number, y: number, from: number, to: number): Promise<void> {
  const session = await page.context().newCDPSession(page);
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', half?: number) =>
    session.send('Input.dispatchTouchEvent', { type, touchPoints: half === undefined ? [] : [{ x: x - half, y, id: 1 }, { x: x + half, y, id: 2 }] });
  await touch('touchStart', from);
  for (let k = 1; k <= 6; k++) await touch('touchMove', from + ((to - from) * k) / 6);
  await touch('touchEnd');
  await session.detach();
}
const scaleOf = async (page: Page): Promise<number> => Number(/([\d.]+) × true size/.exec((await page.locator('.readout').textContent()) ?? '')?.[1]);

test('on a tablet two fingers zoom, one lifts, and what a finger goes to is large enough', async ({ page }) => {
  await openJob(page, 'Duck race soap', 'Clean');
  const box = (await table(page).boundingBox())!;
  const before = await scaleOf(page);
  await spread(page, box.x + box.width / 2, box.y + box.height / 2, 40, 120);
  await expect.poll(() => scaleOf(page)).toBeGreaterThan(before * 2.5);
  await page.getByRole('button', { name: 'fit' }).tap();
  await expect.poll(() => scaleOf(page)).toBeCloseTo(before, 2);
  // Fingers that zoomed lifted nothing; one that taps does.
  await addStep(page, 'Colour lift');
  const step = page.locator('.step', { hasText: 'Colour lift' }).last();
  const unpressed = (await step.locator('.words').textContent()) ?? '';
  await spread(page, box.x + box.width / 2, box.y + box.height / 2, 60, 80);
  await expect(step.locator('.words')).toHaveText(unpressed);
  await page.touchscreen.tap(box.x + box.width * 0.1, box.y + box.height * 0.3);
  await settled(page);
  await expect(step.locator('.words')).not.toHaveText(unpressed);
  for (const stage of ['Clean', 'Separate', 'Assemble', 'Lay out', 'Hand off']) {
    await goTo(page, stage);
    await settled(page);
    const small = await page.locator('button:visible').evaluateAll((buttons) => buttons.filter((button) => button.getBoundingClientRect().height < 39.5).map((button) => button.outerHTML.slice(0, 120)));
    expect(small, stage).toEqual([]);
    // Nothing runs out of the page.
    expect(await page.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true);
  }
});
