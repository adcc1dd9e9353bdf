import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';
import { goTo, openShelfWith, settled, test } from './bench.ts';

/** As people have it: the reference, a large dark one, and the reference at 200 % zoom. */
const SCREENS = [
  { name: '1280 × 800, light', width: 1280, height: 800, colorScheme: 'light' },
  { name: '1920 × 1080, dark', width: 1920, height: 1080, colorScheme: 'dark' },
  { name: '200 %', width: 640, height: 400, colorScheme: 'light' },
] as const;

/** What an accessibility checker finds on a page, on each of the screens. */
async function check(page: Page, where: string): Promise<void> {
  for (const { name, width, height, colorScheme } of SCREENS) {
    await page.setViewportSize({ width, height });
    await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
    // Zoom changes no colour: that rule, which takes half of the time, has been asked of the same theme.
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa']).disableRules(name === '200 %' ? ['color-contrast'] : []).analyze();
    expect.soft(violations.map(({ id, nodes }) => `${where}, ${name}: ${id} ${nodes.map((node) => `${node.target.join(' ')} ${node.html.slice(0, 160)}`).join('; ')}`)).toEqual([]);
  }
  await page.setViewportSize({ width: 1280, height: 800 });
}

test('every stage has names for all controls and text that can be read, on every screen and in both themes', async ({ page }) => {
  await openShelfWith(page, ['Crest, one film']);
  await page.getByRole('button', { name: 'Open Crest, one film' }).click();
  for (const stage of ['Picture', 'Clean', 'Separate', 'Assemble', 'Lay out', 'Hand off']) {
    await goTo(page, stage);
    await settled(page);
    await check(page, stage);
  }
  await page.getByRole('link', { name: 'Open the ticket' }).click();
  await expect(page.getByRole('article', { name: 'Ticket' })).toContainText('Then, in this order', { timeout: 30_000 });
  await check(page, 'ticket');
  await page.getByRole('link', { name: 'Back to the files' }).click();
  await page.getByRole('link', { name: 'Open the cutter' }).click();
  await expect(page.getByText('Now load', { exact: false })).toBeVisible();
  await check(page, 'machine');
  await page.getByRole('button', { name: 'Versions' }).click();
  await page.getByRole('button', { name: 'Keep this version' }).click();
  await expect(page.getByRole('img', { name: /^The finished blank, then/ })).toBeVisible({ timeout: 30_000 });
  await check(page, 'versions');
});

test('so have the pages around the jobs, the help and the dialogs', async ({ page }) => {
  await openShelfWith(page, ['Duck race soap', 'Heron glasses']);
  await check(page, 'shelf');
  for (const [link, heading] of [['Workshop', 'Workshop'], ['Safe keeping', 'Safe keeping'], ['Several on one sheet', 'Several jobs']] as const) {
    await page.getByRole('link', { name: link }).click();
    await expect(page.getByRole('heading', { name: heading }).first()).toBeVisible();
    await check(page, link);
    await page.goBack();
  }
  await page.keyboard.press('F1');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeVisible();
  await check(page, 'help');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog', { name: 'Help' })).toBeHidden();
  await page.getByRole('button', { name: 'More for Heron glasses' }).click();
  await page.getByRole('menuitem', { name: 'Same again…' }).filter({ visible: true }).click();
  await expect(page.getByRole('dialog', { name: 'Same again' }).getByRole('status')).toContainText('as before', { timeout: 30_000 });
  await check(page, 'same again');
});
