import { appendFile, readFile, writeFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';
import { goTo, openShelfWith, save, settled, test } from './bench.ts';

test.use({ serviceWorkers: 'allow' });
const worker = fileURLToPath(new URL('../../dist/service-worker.js', import.meta.url));

test('without a network Limner starts, opens a job and cuts it; a newer build is told and taken up when one likes', async ({ page, context }) => {
  await openShelfWith(page, ['Duck race soap']);
  await page.getByRole('link', { name: 'Safe keeping' }).click();
  await expect(page.getByText('Ready: the whole application is in this browser')).toBeVisible({ timeout: 60_000 });
  await expect(page.getByText('used of the')).toBeVisible();

  await test.step('started anew without a network', async () => {
    await context.setOffline(true);
    await page.goto('/');
    await page.getByRole('button', { name: 'Open Duck race soap' }).click();
    await goTo(page, 'Lay out');
    await settled(page);
    await goTo(page, 'Hand off');
    expect((await save(page, 'Save SVG')).bytes.toString()).toContain('<svg');
    await page.reload();
    await expect(page.locator('.slip h1')).toHaveText('Duck race soap');
    await context.setOffline(false);
  });

  await test.step('a newer build waits until it is taken up', async () => {
    const before = await readFile(worker);
    try {
      await appendFile(worker, '\n// newer\n');
      await page.evaluate(async () => void (await (await navigator.serviceWorker.ready).update()));
      const told = page.getByRole('status').filter({ hasText: 'A newer Limner is here' });
      await expect(told).toBeVisible({ timeout: 60_000 });
      const reloaded = page.waitForEvent('load');
      await told.getByRole('button', { name: 'Take it up' }).click();
      await reloaded;
      await expect(page.locator('.slip h1')).toHaveText('Duck race soap');
      await expect(told).toHaveCount(0);
    } finally {
      await writeFile(worker, before);
    }
  });
});

test('all jobs leave as one file, and the day of the copies is told', async ({ page }) => {
  await openShelfWith(page, ['Duck race soap', 'Heron glasses']);
  await page.goto('/keeping');
  await expect(page.getByText('No copies were made yet.')).toBeVisible();
  const { name, bytes } = await save(page, 'Save all jobs as one file');
  expect(name).toMatch(/^all jobs, \d{4}-\d\d-\d\d\.zip$/);
  expect(bytes.length).toBeGreaterThan(10_000);
  await expect(page.getByText(/^Copies were made last on/)).toBeVisible();
  const [licences] = await Promise.all([page.waitForEvent('popup'), page.getByRole('link', { name: 'all licences' }).click()]);
  await expect(licences.locator('body')).toContainText('Limner is made with');
});

test('a folder for copies gets each job as a file of its own, and again when it has changed', async ({ page }) => {
  // The browser's own private folder stands for the one that a person would choose.
  await page.addInitScript(() => Object.assign(window, { showDirectoryPicker: () => navigator.storage.getDirectory() }));
  await openShelfWith(page, ['Duck race soap', 'Heron glasses']);
  const copies = () => page.evaluate(async () => {
    const found: Record<string, number> = {};
    const folder = (await navigator.storage.getDirectory()) as unknown as { entries(): AsyncIterable<[string, FileSystemFileHandle]> };
    for await (const [name, file] of folder.entries()) found[name] = (await file.getFile()).size;
    return found;
  });
  await page.getByRole('link', { name: 'Safe keeping' }).click();
  await page.getByRole('button', { name: 'Choose a folder…' }).click();
  await expect(page.getByText('Every job has its newest copy there.')).toBeVisible();
  const first = await copies();
  expect(Object.keys(first).map((name) => name.replace(/ \w{8}\.limner$/, '')).sort()).toEqual(['Duck race soap', 'Heron glasses']);
  await page.getByRole('link', { name: 'All jobs' }).click();
  await page.getByRole('button', { name: 'More for Heron glasses' }).click();
  await page.getByRole('menuitem', { name: 'Rename…' }).filter({ visible: true }).click();
  await page.getByRole('textbox', { name: 'Name of the job' }).or(page.locator('.el-message-box input')).first().fill('Reed glasses');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Open Reed glasses' })).toBeVisible();
  await page.getByRole('link', { name: 'Safe keeping' }).click();
  await expect(page.getByText('One job is newer than its copy there.')).toBeVisible();
  await page.getByRole('button', { name: 'Write what has changed' }).click();
  await expect(page.getByText('Every job has its newest copy there.')).toBeVisible();
  expect(Object.keys(await copies()).map((name) => name.replace(/ \w{8}\.limner$/, '')).sort()).toEqual(['Duck race soap', 'Reed glasses']);
});
