import { expect } from '@playwright/test';
import { goTo, openShelfWith, setQuantity, settled, test } from './bench.ts';

test('a pressed job is made once more for a child, kept as versions, compared and taken back', async ({ page }) => {
  await openShelfWith(page, ['Crew crest']);
  const menu = async (job: string, item: string): Promise<void> => {
    await page.getByRole('button', { name: `More for ${job}`, exact: true }).click();
    await page.getByRole('menuitem', { name: item }).filter({ visible: true }).click();
    await expect(page.getByRole('menuitem').filter({ visible: true })).toHaveCount(0);
  };

  await test.step('the same again, smaller, looked at before it is made', async () => {
    await menu('Crew crest', 'Same again…');
    const dialog = page.getByRole('dialog', { name: 'Same again' });
    await expect(dialog.getByRole('status')).toContainText('as before', { timeout: 30_000 });
    await dialog.getByLabel('Name').fill('Crest, child');
    await dialog.getByLabel('Width').fill('60');
    await dialog.getByLabel('Width').press('Tab');
    await expect(dialog.getByRole('status')).toContainText('60 mm ×');
    await dialog.getByRole('button', { name: 'Put it on the shelf' }).click();
    await expect(page).toHaveURL(/\/layout$/);
    await expect(page.locator('.slip h1')).toHaveText('Crest, child');
    await settled(page);
  });

  await test.step('a version is kept, the job changed, both compared', async () => {
    await page.getByRole('button', { name: 'Versions' }).click();
    await expect(page.getByText('Nothing is kept yet.')).toBeVisible();
    await page.getByLabel('Note').fill('60 mm, as asked');
    await page.getByRole('button', { name: 'Keep this version' }).click();
    await expect(page.getByText('The job is now as it was then.')).toBeVisible();
    await goTo(page, 'Lay out');
    await setQuantity(page, 'Margin', '9');
    await settled(page);
    await page.getByRole('button', { name: 'Versions' }).click();
    await expect(page.getByRole('row', { name: /Settings of the lay-out/ })).toBeVisible();
    await expect(page.getByRole('img', { name: 'The finished blank, then: 60 mm, as asked' })).toBeVisible({ timeout: 30_000 });
    await expect(page.getByRole('img', { name: 'The finished blank, now' })).toBeVisible({ timeout: 30_000 });
  });

  await test.step('it is taken back, undone, and is a job of its own', async () => {
    await page.getByRole('button', { name: 'Take it back' }).click();
    await expect(page.getByText('The job is now as it was then.')).toBeVisible();
    await page.keyboard.press('Control+z');
    await expect(page.getByRole('row', { name: /Settings of the lay-out/ })).toBeVisible();
    await page.getByRole('button', { name: 'As a job of its own' }).click();
    await expect(page.locator('.slip h1')).toHaveText('Crest, child, 60 mm, as asked');
    await settled(page);
  });

  await test.step('collections gather jobs on the shelf', async () => {
    await page.getByRole('button', { name: '‹ Shelf' }).click();
    await menu('Crew crest', 'Collections…');
    await page.locator('.el-message-box input').fill('Regatta, club shop');
    await page.getByRole('button', { name: 'Take', exact: true }).click();
    await expect(page.getByRole('listitem').filter({ hasText: 'club shop' })).toHaveCount(1);
    await page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Collection' }) }).click();
    await page.getByRole('option', { name: 'Regatta', exact: true }).filter({ visible: true }).click();
    await expect(page.getByRole('status').filter({ hasText: 'job' })).toHaveText('1 job');
  });
});
