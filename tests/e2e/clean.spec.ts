import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { photoOf, SHEET_PHOTO, tilted } from '../../server/devices/standInCamera.ts';
import { addStep, asItCame, drag, dropFiles, goTo, openShelfWith, test } from './bench.ts';

const words = (name: string) => `.step:has(.name:text-is("${name}")) .words`;

test('the subject of a photo is found, corrected by a stroke, and undone', async ({ page }) => {
  await openShelfWith(page, ['Landing stage']);
  await page.getByRole('button', { name: 'Open Landing stage' }).click();
  await goTo(page, 'Clean');
  await addStep(page, 'Subject lift');
  await expect(page.locator(words('Subject lift'))).toContainText(/^(5|6)\d % of the picture lifted$/, { timeout: 60_000 });
  await page.getByRole('radio', { name: 'clear', exact: true }).click();
  await drag(page, [0.3, 0.5], [0.5, 0.5]);
  await expect(page.locator(words('Subject lift'))).toContainText('1 stroke', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Clear strokes' }).click();
  await expect(page.locator(words('Subject lift'))).not.toContainText('stroke');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.step')).toHaveCount(0);
});

test('a picture is turned and straightened, and what was done to it stays in place', async ({ page }) => {
  await openShelfWith(page, ['Crest, one film']);
  await page.getByRole('button', { name: 'Open Crest, one film' }).click();
  await goTo(page, 'Clean');
  await expect(page.locator(words('Area lift'))).toContainText(/found: [1-9]/);
  const [crop, lift] = [await page.locator(words('Crop')).textContent(), await page.locator(words('Area lift')).textContent()];
  await addStep(page, 'Turn');
  await expect(page.locator('.step .name').first()).toHaveText('Turn');
  await page.getByRole('button', { name: 'Quarter right' }).click();
  const [widthPx, heightPx] = crop!.match(/[\d,]+/g)!;
  await expect(page.locator(words('Crop'))).toHaveText(`${heightPx} × ${widthPx} px`);
  await expect(page.locator(words('Area lift'))).toHaveText(lift!);
  await drag(page, [0.3, 0.4], [0.6, 0.43]);
  await expect(page.locator(words('Turn'))).toContainText(/^90°, straightened by -\d/);
  await expect(page.locator(words('Area lift'))).toContainText('found:');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.locator(words('Crop'))).toHaveText(crop!);
  await expect(page.locator('.step .name').first()).toHaveText('Crop');
});

test('a photo of work on the mark sheet comes out flat and is cut at its true size', async ({ page }) => {
  const photo = photoOf('a4', tilted('a4', 24, 6, -0.05));
  const png = await sharp(photo.data, { raw: { width: SHEET_PHOTO.widthPx, height: SHEET_PHOTO.heightPx, channels: 4 } }).png().toBuffer();
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'sail-mark.png', type: 'image/png', bytes: new Uint8Array(png) }]);
  await asItCame(page);
  await goTo(page, 'Clean');
  await addStep(page, 'Squaring');
  await expect(page.locator(words('Squaring'))).toContainText(/^174 × 261 mm, true to 0(\.\d+)? mm$/, { timeout: 30_000 });
  await page.getByRole('button', { name: /^Cut at true size/ }).click();
  // The work is a square of 60 mm.
  await goTo(page, 'Assemble');
  await expect(page.locator('.tab', { hasText: 'Assemble' })).toContainText('60 × 60 mm');
});

test('a photo without the sheet says what is missing and leaves the picture as it was', async ({ page }) => {
  await openShelfWith(page, ['Crest, one film']);
  await page.getByRole('button', { name: 'Open Crest, one film' }).click();
  await goTo(page, 'Clean');
  await addStep(page, 'Squaring');
  await expect(page.locator(words('Squaring'))).toContainText('skipped: Only');
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('piece');
});

test('a phone’s HEIC file opens like any other, and a cut-short one says so', async ({ page }) => {
  const bytes = new Uint8Array(await readFile(fileURLToPath(new URL('../fixtures/disc.heic', import.meta.url))));
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'buoy.heic', type: 'image/heic', bytes: bytes.slice(0, 700) }]);
  await expect(page.getByText('breaks off before its end', { exact: false })).toBeVisible();
  await dropFiles(page, [{ name: 'buoy.heic', type: 'image/heic', bytes }]);
  await expect(page.locator('.tab', { hasText: 'Picture' })).toContainText('80 × 60 px', { timeout: 30_000 });
  await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('1 piece');
});
