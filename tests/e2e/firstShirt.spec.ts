import { expect, type Locator, type Page } from '@playwright/test';
import { openShelfWith, settled, test } from './bench.ts';

test.use({ contextOptions: { reducedMotion: 'no-preference' } });

/** Counts what a newcomer does: each press, each number that is typed. */
function countedOn(page: Page): { press(on: Locator): Promise<void>; type(on: Locator, text: string): Promise<void>; readonly count: number } {
  let count = 0;
  return {
    async press(on) {
      count++;
      await on.click();
    },
    async type(on, text) {
      count++;
      await on.fill(text);
      await on.press('Enter');
      await settled(page);
    },
    get count() {
      return count;
    },
  };
}

test('a newcomer makes a first shirt, told step by step, in at most 25 actions', async ({ page }) => {
  await openShelfWith(page, []);
  const actions = countedOn(page);
  const { press, type } = actions;
  const tour = page.getByRole('region', { name: 'First shirt' });
  const step = (title: string) => expect(tour.getByRole('heading', { name: title })).toBeVisible({ timeout: 30_000 });
  const tab = (stage: string) => page.locator('.tab', { hasText: stage });
  await press(page.getByRole('button', { name: 'Make a first shirt' }));
  await step('What does it go on?');
  await settled(page);
  await press(page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Blank', exact: true }) }));
  await press(page.getByRole('option', { name: /^Shirt, adult M/ }).filter({ visible: true }));
  await step('See its films');
  await press(tab('Separate'));
  await step('More colours, or fewer');
  await type(page.getByLabel('Tones with background'), '4');
  await step('Make it the right size');
  await press(tab('Assemble'));
  await type(page.getByLabel('Width', { exact: true }), '180');
  await step('See it on the shirt');
  await press(tab('Lay out'));
  await press(page.getByRole('radio', { name: 'on the blank', exact: true }));
  await step('A second shirt');
  await press(page.getByRole('radio', { name: 'sheet', exact: true }));
  await type(page.getByLabel('On this sheet'), '2');
  await step('To the cutter');
  await press(tab('Hand off'));
  await settled(page);
  const coming = page.waitForEvent('download');
  await press(page.locator('.plain-button.main', { hasText: 'Save' }).first());
  expect((await coming).suggestedFilename()).toMatch(/^First shirt.*\.(zip|svg)$/);
  await step('That is a shirt');
  await press(tour.getByRole('button', { name: 'Done' }));
  await expect(tour).toHaveCount(0);
  expect(actions.count).toBeLessThanOrEqual(25);
});

test('the tour can be left at any time; help is there by F1, searched while typing, with all keys', async ({ page }) => {
  await openShelfWith(page, []);
  await page.getByRole('button', { name: 'Make a first shirt' }).click();
  const tour = page.getByRole('region', { name: 'First shirt' });
  await expect(tour).toBeVisible({ timeout: 30_000 });
  await page.reload();
  await expect(tour.getByRole('heading', { name: 'What does it go on?' })).toBeVisible({ timeout: 30_000 });
  await tour.getByRole('button', { name: 'Leave the tour' }).click();
  await expect(tour).toHaveCount(0);
  await page.keyboard.press('F1');
  const help = page.getByRole('dialog', { name: 'Help' });
  await expect(help.locator('summary').first()).toContainText('Will it cut?');
  await help.getByLabel('Search the help').fill('mirrored');
  await expect(help.locator('summary').first()).toContainText('Why is it mirrored?');
  await help.getByLabel('Search the help').fill('undo');
  await expect(help.getByText('Ctrl+Z', { exact: true })).toBeVisible();
  await help.getByLabel('Search the help').fill('hovercraft');
  await expect(help).toContainText('Nothing says that.');
  await page.keyboard.press('Escape');
  await expect(help).toBeHidden();
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await expect(page.getByRole('region', { name: 'First visit' })).toHaveCount(0);
});
