import { readFile } from 'node:fs/promises';
import { strFromU8, unzipSync } from 'fflate';
import { expect } from '@playwright/test';
import sharp from 'sharp';
import { addStep, drag, dropFiles, goTo, openJob, openShelfWith, setQuantity, stepWords, table, test } from './bench.ts';


test('specks are walked through by key, one is left alone, and that is undone', async ({ page }) => {
  const specks = Array.from({ length: 14 }, (_, k) => `<circle cx="${40 + 30 * k}" cy="${360 + 12 * (k % 3)}" r="1.3"/>`).join('');
  const buoy = `<svg xmlns="http://www.w3.org/2000/svg" width="480" height="420"><rect width="480" height="420" fill="#fff"/><g fill="#22375f"><circle cx="240" cy="180" r="140"/>${specks}</g></svg>`;
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'buoy.png', type: 'image/png', bytes: new Uint8Array(await sharp(Buffer.from(buoy)).png().toBuffer()) }]);
  await expect(page.getByText(/^Started as/)).toBeVisible({ timeout: 60_000 });
  await goTo(page, 'Clean');
  await page.getByRole('button', { name: /^Sweep/ }).click();
  await setQuantity(page, 'Remove specks smaller than', '20');
  await expect(stepWords(page, 'Sweep')).toContainText(/ 14 found/);
  const found = Number(/(\d+) found/.exec((await stepWords(page, 'Sweep').textContent()) ?? '')?.[1]);
  await table(page).focus();
  await page.keyboard.press('n');
  await page.keyboard.press('n');
  await page.keyboard.press('Shift+N');
  await expect(page.getByRole('region', { name: 'Found' })).toContainText(`1 of ${found}`);
  await page.keyboard.press('x');
  await expect(stepWords(page, 'Sweep')).toContainText(`${found - 1} found`);
  await expect(page.getByRole('region', { name: 'Found' })).toContainText('1 left alone');
  await page.getByRole('button', { name: 'Skip all' }).click();
  await expect(stepWords(page, 'Sweep')).toContainText('· 0 found');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(stepWords(page, 'Sweep')).toContainText(`${found} found`);
});

test('a break in a drawing is shown and its joint refused', async ({ page }) => {
  await openJob(page, 'Bell buoy tote', 'Clean');
  await addStep(page, 'Gap mending');
  await expect(stepWords(page, 'Gap mending')).toContainText(/[1-9] breaks? closed/, { timeout: 30_000 });
  const closed = Number(/\d+/.exec((await stepWords(page, 'Gap mending').textContent()) ?? '')?.[0]);
  await page.getByRole('button', { name: 'Next place' }).click();
  await page.getByRole('button', { name: 'leave', exact: true }).first().click();
  await expect(stepWords(page, 'Gap mending')).toContainText(closed === 2 ? '1 break closed' : `${closed - 1} break`);
});

test('levels are drawn on their histogram, brightened, made black, and compared with the picture as it came', async ({ page }) => {
  await openJob(page, 'Bell buoy tote', 'Clean');
  await addStep(page, 'Levels');
  const black = page.getByRole('slider', { name: 'Black from' });
  await expect(black).toBeVisible();
  await expect(stepWords(page, 'Levels')).toContainText('found:');
  await expect(black).not.toHaveAttribute('aria-valuenow', '0');
  const before = Number(await black.getAttribute('aria-valuenow'));
  await black.focus();
  await page.keyboard.press('Shift+ArrowRight');
  await expect(black).toHaveAttribute('aria-valuenow', String(before + 10));
  await setQuantity(page, 'Contrast', '40');
  await setQuantity(page, 'Brightness', '10');
  await page.getByRole('button', { name: 'Make it black' }).click();
  await expect(stepWords(page, 'Levels')).toContainText('grey');
  await expect(page.getByLabel('Contrast', { exact: true })).toHaveValue('0 %');
  await addStep(page, 'Smoothing');
  await page.getByRole('radio', { name: 'what it takes' }).click();
  await expect(page.locator('.divider .right')).toContainText('8 times as strong');
  await page.getByRole('radio', { name: 'before | after' }).click();
  await page.getByLabel('Right moment').selectOption({ label: '1 after levels' });
  await page.getByRole('button', { name: 'Recipes' }).click();
  await page.getByRole('menuitem', { name: 'Start over from the original picture' }).click();
  await expect(page.locator('.step')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.locator('.step')).toHaveCount(2);
});

test('a photo is squared by four corners that are dragged on it', async ({ page }) => {
  await openJob(page, 'Bell buoy tote', 'Clean');
  await addStep(page, 'Squaring');
  await page.getByRole('radio', { name: 'four corners' }).click();
  await expect(stepWords(page, 'Squaring')).toContainText('100 × 121.4 mm, by four corners', { timeout: 30_000 });
  const box = (await table(page).boundingBox())!;
  // The right upper ring, up and to the right.
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await setQuantity(page, 'Red side', '50');
  await expect(stepWords(page, 'Squaring')).toContainText('50 × 60.7 mm');
  await drag(page, [0.7256, 0.197], [0.745, 0.167]);
  await expect(stepWords(page, 'Squaring')).not.toContainText('50 × 60.7 mm');
  await page.getByRole('button', { name: 'Show it flat' }).click();
  await page.keyboard.press('Control+z');
  await expect(stepWords(page, 'Squaring')).toContainText('50 × 60.7 mm');
});

test('an SVG is drawn as a picture at a chosen size, and what was put on it moves along', async ({ page }) => {
  await openShelfWith(page, []);
  const svg = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 60 40"><script>document.title = "run"</script><circle cx="30" cy="20" r="15" fill="#b05030"/><text x="24" y="24" font-size="8">Oar</text></svg>';
  await dropFiles(page, [{ name: 'buoy.svg', type: 'image/svg+xml', bytes: new TextEncoder().encode(svg) }]);
  await expect(page.locator('.tab', { hasText: 'Picture' })).toContainText('2,400 × 1,600 px', { timeout: 30_000 });
  await goTo(page, 'Clean');
  await addStep(page, 'Crop');
  await setQuantity(page, 'Width', '1200');
  await expect(stepWords(page, 'Crop')).toHaveText('1,200 × 1,600 px');
  await goTo(page, 'Picture');
  await setQuantity(page, 'Draw it with', '1200');
  await expect(page.locator('.tab', { hasText: 'Picture' })).toContainText('1,200 × 800 px', { timeout: 30_000 });
  await goTo(page, 'Clean');
  await expect(stepWords(page, 'Crop')).toHaveText('600 × 800 px');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.tab', { hasText: 'Picture' })).toContainText('2,400 × 1,600 px', { timeout: 30_000 });
  expect(await page.title()).toBe('Buoy · Limner');
});

test('a recipe is kept under a name, used on other jobs and files at once, saved as cut files, and put back', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Clean', ['Lighthouse mug', 'Landing stage']);
  await page.getByRole('button', { name: 'Recipes' }).click();
  await page.getByRole('menuitem', { name: 'Save this recipe' }).click();
  await page.getByRole('textbox').last().fill('Flat logos');
  await page.getByRole('button', { name: 'Keep', exact: true }).click();
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await page.getByRole('button', { name: 'Apply a recipe to many…' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('Flat logos');
  for (const name of ['Lighthouse mug', 'Landing stage']) await dialog.getByText(name).click();
  await dialog.getByRole('button', { name: 'Apply to 2 pictures' }).click();
  await expect(dialog.getByText(/^(ready to cut|\d+ places? to look at in the cut check)$/)).toHaveCount(2, { timeout: 60_000 });
  const coming = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save all cut files' }).click();
  const zip = unzipSync(new Uint8Array(await readFile(await (await coming).path())));
  expect(Object.keys(zip).sort()).toEqual(['Landing stage.png', 'Landing stage.svg', 'Lighthouse mug.png', 'Lighthouse mug.svg']);
  expect(strFromU8(zip['Lighthouse mug.svg'])).toContain('<svg');
  await dialog.getByRole('button', { name: 'Undo the whole batch' }).click();
  await dialog.getByRole('button', { name: 'Not now' }).click();
  await page.getByRole('button', { name: 'Open Lighthouse mug', exact: true }).click();
  await expect(page.locator('.tab', { hasText: 'Clean' })).toContainText('as it came');
});

test('the brush stays within a colour, and the crop keeps a shape', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Clean');
  await addStep(page, 'Rub out');
  await page.getByText('Stay within this colour').click();
  await drag(page, [0.45, 0.6], [0.5, 0.6]);
  await expect(stepWords(page, 'Rub out')).toHaveText('1 stroke');
  await page.getByRole('button', { name: /^Crop/ }).click();
  await page.locator('.el-select', { has: page.getByRole('combobox', { name: 'Shape of the frame' }) }).click();
  await page.getByRole('option', { name: 'square', exact: true }).click();
  await expect(stepWords(page, 'Crop')).toHaveText('1,080 × 1,080 px');
  await setQuantity(page, 'Width', '800');
  await expect(stepWords(page, 'Crop')).toHaveText('800 × 800 px');
});
