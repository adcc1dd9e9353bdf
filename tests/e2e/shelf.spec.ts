import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import { hugePng } from '../fixtures/files.ts';
import { unzipSync } from 'fflate';
import { addStep, choose, demoPicture, dropFiles, goTo, openShelf, openShelfWith, save, setQuantity, settled, test, unfold } from './bench.ts';

test('the shelf holds the demo jobs, finds, renames, duplicates and deletes with undo', async ({ page }) => {
  await openShelf(page);
  await expect(page.locator('.card')).toHaveCount(8);
  await expect(page.locator('.card img')).toHaveCount(8);
  await page.getByLabel('Find jobs').fill('glass heron');
  await expect(page.locator('.card')).toHaveCount(1);
  await page.getByLabel('Find jobs').fill('');

  const menu = async (job: string, action: string): Promise<void> => {
    await page.getByRole('button', { name: `More for ${job}` }).click();
    await page.getByRole('menuitem', { name: action }).filter({ visible: true }).click();
    await expect(page.getByRole('menuitem').filter({ visible: true })).toHaveCount(0);
  };
  await menu('Duck race soap', 'Duplicate');
  await expect(page.getByRole('button', { name: 'Open Duck race soap, copy' })).toBeVisible();
  await menu('Duck race soap, copy', 'Rename');
  await page.getByRole('textbox', { name: '' }).last().fill('Duck race, small bars');
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await expect(page.getByRole('button', { name: 'Open Duck race, small bars' })).toBeVisible();
  await menu('Duck race, small bars', 'Delete');
  await expect(page.getByRole('button', { name: 'Open Duck race, small bars' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'Open Duck race, small bars' })).toBeVisible();
  await page.reload();
  await expect(page.locator('.card')).toHaveCount(9);
});

test('a picture pasted anywhere starts a job, shown at true size once the screen is measured', async ({ page }) => {
  await openShelfWith(page, []);
  const base64 = (await readFile(demoPicture('heron-mark.png'))).toString('base64');
  await page.evaluate((text) => {
    const data = new DataTransfer();
    data.items.add(new File([Uint8Array.from(atob(text), (c) => c.charCodeAt(0))], 'image.png', { type: 'image/png' }));
    document.body.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true }));
  }, base64);
  await expect(page).toHaveURL(/\/picture$/);
  await expect(page.getByText('300 × 300', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'true size' }).click();
  await page.getByLabel('The line is').fill('80');
  await page.getByLabel('The line is').press('Enter');
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  const status = page.locator('.readout [role="status"]');
  await expect(status).toContainText(/^1 × true size/);
  await setQuantity(page, 'Finished width', '90');
  await settled(page);
  await expect(status).toContainText(/^1 × true size/);
  await page.getByRole('button', { name: 'fit', exact: true }).click();
  await expect(status).not.toContainText(/^1 × true size/);
});

test('bad files each get one clear message and change nothing', async ({ page }) => {
  await openShelfWith(page, ['Heron glasses']);
  const png = await readFile(demoPicture('heron-mark.png'));
  const cases: readonly [string, string, Uint8Array][] = [
    ['letter.txt', 'is not a picture', Buffer.from('Dear workshop, please find the logo attached, thank you, and so on.')],
    ['cut-short.png', 'breaks off', png.subarray(0, 2000)],
    ['nothing.png', '0 bytes', new Uint8Array(0)],
    ['dot.png', '1 × 1', hugePng(1, 1)],
    ['wall.png', '20000 × 20000', hugePng(20_000, 20_000)],
    ['job.limner', 'not a whole zip', png],
  ];
  for (const [name, words, bytes] of cases) {
    await dropFiles(page, [{ name, type: 'image/png', bytes }]);
    const message = page.locator('.app-error', { hasText: words });
    await expect(message).toHaveCount(1);
    await expect(message).toContainText('Nothing is lost');
    await message.locator('.el-message__closeBtn').click();
    await expect(page.locator('.card')).toHaveCount(1);
  }
});

test('a file over the limit is refused by its size alone', async ({ page }) => {
  await openShelfWith(page, []);
  await page.evaluate(() => {
    const file = new File([new Uint8Array(1)], 'scan.tif');
    Object.defineProperty(file, 'size', { value: 200_000_000 });
    window.dispatchEvent(new CustomEvent('limner:files', { detail: [file] }));
  });
  await expect(page.locator('.app-error')).toContainText('200 MB');
});

test('an archive of a newer version and a full disk are said, and nothing is lost', async ({ page }) => {
  await openShelfWith(page, ['Duck race soap']);
  const { zipSync, strToU8 } = await import('fflate');
  await dropFiles(page, [{ name: 'later.limner', type: '', bytes: zipSync({ 'job.json': strToU8(JSON.stringify({ format: 'limner-job', version: 99 })) }) }]);
  await expect(page.locator('.app-error')).toContainText('newer Limner');
  await page.locator('.el-message__closeBtn').click();

  await page.evaluate(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('full', 'QuotaExceededError');
    };
  });
  await dropFiles(page, [{ name: 'heron.png', type: 'image/png', bytes: await readFile(demoPicture('heron-mark.png')) }]);
  await expect(page.locator('.app-error', { hasText: 'no room left' })).toBeVisible();
  await expect(page.locator('.card')).toHaveCount(1);
});

test('nothing to cut is said and not exported', async ({ page }) => {
  await openShelfWith(page, ['Heron glasses']);
  await page.getByRole('button', { name: 'Open Heron glasses' }).click();
  await goTo(page, 'Separate');
  await unfold(page, 'Outline');
  await page.getByLabel('Drop pieces smaller than').fill('1000');
  await page.getByLabel('Drop pieces smaller than').press('Enter');
  await goTo(page, 'Assemble');
  await page.getByLabel('Height', { exact: true }).fill('12');
  await page.getByLabel('Height', { exact: true }).press('Enter');
  await goTo(page, 'Hand off');
  await expect(page.getByText('nothing to cut', { exact: false }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Save SVG' })).toBeDisabled();
});

test('a twelve-megapixel photo opens, lifts and shows its cut while the page goes on', async ({ page }) => {
  await openShelfWith(page, ['Landing stage']);
  await page.getByRole('button', { name: 'Open Landing stage' }).click();
  await expect(page.getByText('4,000 × 3,000', { exact: true })).toBeVisible();
  await goTo(page, 'Clean');
  await page.getByRole('button', { name: 'Add a step' }).click();
  await page.getByRole('menuitem', { name: 'Area lift' }).click();
  const box = await page.locator('.surface').boundingBox();
  await page.mouse.click(box!.x + box!.width * 0.2, box!.y + box!.height * 0.2);
  await expect(page.locator('.step', { hasText: 'Area lift' })).toContainText('found:');
  // The full picture is still being worked on; the page answers all the same.
  await page.getByRole('radio', { name: 'one view' }).click();
  await expect(page.getByRole('radio', { name: 'one view' })).toHaveAttribute('aria-checked', 'true');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('piece', { timeout: 60_000 });
});

test('a scan on shaded paper becomes clean ink: light levelled, break mended, its tones found', async ({ page }) => {
  await openShelfWith(page, ['Bell buoy tote']);
  await page.getByRole('button', { name: 'Open Bell buoy tote' }).click();
  await goTo(page, 'Clean');
  for (const [name, words] of [['Light levelling', 'light fell off by'], ['Levels', 'found: '], ['Gap mending', /^[1-9] breaks? closed/], ['Fewer colours', /^found: [23] tones$/], ['Smoothing', 'noise']] as const) {
    await addStep(page, name);
    await expect(page.locator('.step', { hasText: name }).locator('.words')).toContainText(words, { timeout: 30_000 });
  }
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('piece');
  await settled(page);
  // Paper, ink, and the faint line under it, which the picture reduced for the screen does not show.
  const words = page.locator('.step', { hasText: 'Fewer colours' }).locator('.words');
  await expect(words).toHaveText('found: 3 tones');
  await page.getByRole('button', { name: /^Fewer colours/ }).click();
  await setQuantity(page, 'Tones with background', '2');
  await expect(words).toContainText(/^2 tones/);
  await page.keyboard.press('Control+z');
  await settled(page);
  await expect(words).toHaveText('found: 3 tones');
});

test('a first look says what the picture is and shows ways to start, one of which is taken by a click', async ({ page }) => {
  await openShelfWith(page, ['Bell buoy tote']);
  await page.getByRole('button', { name: 'Open Bell buoy tote' }).click();
  await goTo(page, 'Picture');
  await expect(page.getByText(/^Line drawing, \d+ % sure$/)).toBeVisible({ timeout: 30_000 });
  const ways = page.getByRole('group', { name: 'Ways to start' }).getByRole('button');
  await ways.first().click();
  await expect(ways.first()).toHaveAttribute('aria-pressed', 'true');
  await expect(page.getByText(/^Started as one film/)).toBeVisible();
  await goTo(page, 'Clean');
  await expect(page.locator('.step .names .name').first()).toHaveText('Light levelling');
  await expect(page.locator('.step .names .name').last()).toHaveText('Sweep');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.step')).toHaveCount(0);
});

test('the jobs that are shown leave as one file, and come in from one', async ({ page }) => {
  await openShelfWith(page, ['Duck race soap', 'Heron glasses']);
  await choose(page, 'Process', 'Stencil');
  await expect(page.getByRole('button', { name: 'Save them as one file' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Show all', exact: true }).click();
  const { name, bytes } = await save(page, 'Save them as one file');
  expect(name).toMatch(/^jobs, \d{4}-\d\d-\d\d\.zip$/);
  expect(Object.keys(unzipSync(new Uint8Array(bytes))).sort()).toEqual(['Duck race soap.limner', 'Heron glasses.limner']);
  await dropFiles(page, [{ name, type: 'application/zip', bytes }]);
  await expect(page.getByRole('button', { name: 'Open Heron glasses', exact: true })).toHaveCount(2, { timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Open Duck race soap', exact: true })).toHaveCount(2);
});
