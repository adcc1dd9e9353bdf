import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import { statedDpi } from '../../src/formats/picture/statedDpi.ts';
import { tracedPart } from '../../src/core/job/tracedPart.ts';
import { readArchive } from '../../src/formats/archive/archive.ts';
import { addStep, asItCame, choose, demoPicture, drag, dropFiles, goTo, openShelfWith, save, setQuantity, settled, test } from './bench.ts';
import { areaOf, boxOf, centroidOf, readCutFile } from './svgGeometry.ts';

test('a dropped picture becomes a mirrored, boxed cut file', async ({ page }) => {
  await openShelfWith(page, []);

  await test.step('a picture dropped on the shelf starts a job', async () => {
    await dropFiles(page, [{ name: 'crew-crest.jpg', type: 'image/jpeg', bytes: await readFile(demoPicture('crew-crest.jpg')) }]);
    await expect(page).toHaveURL(/\/picture$/);
    await expect(page.getByText('1,180 × 1,240', { exact: true })).toBeVisible();
    await expect(page.getByText(/^Will cut/)).toBeVisible();
    await page.getByLabel('Name').fill('Spring crew shirt');
    await page.getByLabel('Name').press('Tab');
    await expect(page.locator('.slip h1')).toHaveText('Spring crew shirt');
    await choose(page, 'May it be used', 'our own');
    // This decorator goes the road by hand.
    await asItCame(page);
  });

  await test.step('it is cropped by dragging, the ground lifted by a click and by a pull, rubbed out and brought back', async () => {
    await goTo(page, 'Clean');
    await addStep(page, 'Crop');
    await drag(page, [0.3, 0.14], [0.7, 0.9]);
    await expect(page.locator('.step', { hasText: 'Crop' }).locator('.words')).toContainText('×');
    await page.keyboard.press('Escape');
    await addStep(page, 'Area lift');
    await drag(page, [0.33, 0.18], [0.33, 0.18]);
    await expect(page.locator('.step', { hasText: 'Area lift' })).toContainText('found:');
    await settled(page);
    const found = await page.locator('.step', { hasText: 'Area lift' }).locator('.words').textContent();
    await drag(page, [0.33, 0.18], [0.36, 0.21]);
    await expect(page.locator('.step', { hasText: 'Area lift' })).toContainText('tolerance');
    await page.keyboard.press('Control+z');
    await expect(page.locator('.step', { hasText: 'Area lift' }).locator('.words')).toHaveText(found ?? '');
    await addStep(page, 'Rub out');
    await drag(page, [0.5, 0.2], [0.55, 0.24]);
    await expect(page.locator('.step', { hasText: 'Rub out' })).toContainText('1 stroke');
    await addStep(page, 'Bring back');
    await drag(page, [0.5, 0.2], [0.55, 0.24]);
    await expect(page.locator('.step', { hasText: 'Bring back' })).toContainText('1 stroke');
    await addStep(page, 'Sweep');
    await expect(page.locator('.step', { hasText: 'Sweep' })).toContainText('found');
    await settled(page);
  });

  await test.step('steps are switched, moved and undone', async () => {
    const rub = page.locator('.step', { hasText: 'Rub out' });
    await rub.locator('.el-switch').click();
    await expect(rub).toHaveClass(/off/);
    await page.keyboard.press('Control+z');
    await expect(rub).not.toHaveClass(/off/);
    await rub.getByRole('button', { name: 'Rub out', expanded: false }).click();
    await rub.getByRole('button', { name: 'later' }).click();
    await expect(page.locator('.step .names .name')).toHaveText(['Crop', 'Area lift', 'Bring back', 'Rub out', 'Sweep']);
    await page.keyboard.press('Control+z');
    await expect(page.locator('.step .names .name')).toHaveText(['Crop', 'Area lift', 'Rub out', 'Bring back', 'Sweep']);
    await page.keyboard.press('Control+Shift+z');
    await expect(page.locator('.step .names .name')).toHaveText(['Crop', 'Area lift', 'Bring back', 'Rub out', 'Sweep']);
    await page.keyboard.press('Control+z');
  });

  await test.step('the threshold finds itself and can be set', async () => {
    await goTo(page, 'Separate');
    const slider = page.getByRole('slider', { name: 'Threshold, lightness' });
    const auto = Number(await slider.getAttribute('aria-valuenow'));
    expect(auto).toBeGreaterThan(100);
    expect(auto).toBeLessThan(200);
    await slider.focus();
    await page.keyboard.press('Shift+ArrowLeft');
    await expect(slider).toHaveAttribute('aria-valuenow', String(auto - 10));
    await expect(page.locator('.rack')).toContainText('piece');
  });

  await test.step('it gets a width in inches and a film', async () => {
    await goTo(page, 'Assemble');
    await setQuantity(page, 'Width', '7 1/2 in');
    await expect(page.getByLabel('Width', { exact: true })).toHaveValue('190.5 mm');
    await page.locator('input[type="color"]').fill('#9e2f4b');
    await settled(page);
  });

  await test.step('the sheet is mirrored, boxed and holds two copies', async () => {
    await goTo(page, 'Lay out');
    await expect(page.getByText('Mirrored', { exact: true })).toBeVisible();
    await setQuantity(page, 'Margin', '8');
    await choose(page, 'Sheet', 'Roll 500, 1 m');
    await setQuantity(page, 'On this sheet', '2');
    await settled(page);
    await setQuantity(page, 'Width', '200');
    await expect(page.getByRole('alert')).toContainText('too wide');
    await page.keyboard.press('Control+z');
  });

  let svg = '';
  await test.step('the cut file has the geometry that was asked for', async () => {
    await goTo(page, 'Hand off');
    const file = await save(page, 'Save SVG');
    expect(file.name).toBe('Spring crew shirt.svg');
    svg = file.bytes.toString();
    const cut = readCutFile(svg);
    expect([cut.widthMm, cut.heightMm, cut.viewBox]).toEqual([500, 1000, [0, 0, 500, 1000]]);
    expect(cut.groups).toEqual(['harbour-navy', 'harbour-navy-art', 'harbour-navy-boxes']);
    expect(cut.boxes).toHaveLength(2);
    const rings = cut.art.length / 2;
    const [first, second] = [cut.art.slice(0, rings), cut.art.slice(rings)];
    const art = boxOf(first);
    const box = boxOf(cut.boxes.slice(0, 1));
    expect(art.right - art.left).toBeCloseTo(190.5, 1);
    for (const [inner, outer] of [[art.left - box.left, 8], [art.top - box.top, 8], [box.right - art.right, 8], [box.bottom - art.bottom, 8]]) expect(Math.abs(inner - outer)).toBeLessThan(0.02);
    expect(first.some((ring) => areaOf(ring) < 0)).toBe(true);
    expect(first.filter((ring) => areaOf(ring) > 0).length).toBeGreaterThan(0);
    expect(Math.abs(boxOf(second).left - art.left)).toBeGreaterThan(100);
  });

  await test.step('mirrored is the mirror image of not mirrored', async () => {
    await goTo(page, 'Lay out');
    await choose(page, 'Mirroring', 'not mirrored');
    await goTo(page, 'Hand off');
    await page.getByRole('button', { name: 'Save SVG' }).click();
    await expect(page.getByText('it will read backwards')).toBeVisible();
    const plain = await save(page, 'Export anyway');
    const [a, b] = [readCutFile(svg), readCutFile(plain.bytes.toString())].map((cut) => cut.art.slice(0, cut.art.length / 2));
    const [boxA, boxB] = [boxOf(a), boxOf(b)];
    expect(boxA.left).toBeCloseTo(boxB.left, 2);
    const [[ax, ay], [bx, by]] = [centroidOf(a), centroidOf(b)];
    expect(ax - boxA.left).toBeCloseTo(boxB.right - bx, 1);
    expect(ay).toBeCloseTo(by, 1);
    await page.keyboard.press('Control+z');
  });
});

test('the art and the whole job are kept in files, come in again as they were, and a reload comes back to where one was', async ({ page }) => {
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'crew-crest.jpg', type: 'image/jpeg', bytes: await readFile(demoPicture('crew-crest.jpg')) }]);
  await expect(page).toHaveURL(/\/picture$/);
  await asItCame(page);
  await page.getByLabel('Name').fill('Spring crew shirt');
  await page.getByLabel('Name').press('Tab');
  await choose(page, 'May it be used', 'our own');
  await goTo(page, 'Clean');
  await addStep(page, 'Area lift');
  await drag(page, [0.33, 0.18], [0.33, 0.18]);
  await expect(page.locator('.step', { hasText: 'Area lift' })).toContainText('found:');
  await addStep(page, 'Sweep');
  await expect(page.locator('.step', { hasText: 'Sweep' })).toContainText('found');
  await goTo(page, 'Lay out');
  await setQuantity(page, 'On this sheet', '2');
  await settled(page);

  let file: Awaited<ReturnType<typeof save>> = { name: '', bytes: Buffer.alloc(0) };
  await test.step('both files hold what was made', async () => {
    await goTo(page, 'Hand off');
    const png = await save(page, 'Save cleaned art');
    expect(statedDpi(new Uint8Array(png.bytes), 'png')).toBeGreaterThan(60);
    file = await save(page, 'Save job file');
    expect(file.name).toBe('Spring crew shirt.limner');
    const archive = await readArchive(new Uint8Array(file.bytes), file.name);
    expect(tracedPart(archive.job).recipe).toHaveLength(2);
    expect(archive.job.layout.copies).toBe(2);
    expect(archive.job.rights.use).toBe('ours');
  });

  await test.step('the job file comes in as a job of its own', async () => {
    await page.goto('/');
    await dropFiles(page, [{ name: file.name, type: 'application/zip', bytes: file.bytes }]);
    await expect(page).toHaveURL(/\/picture$/);
    await goTo(page, 'Clean');
    await expect(page.locator('.step')).toHaveCount(2);
    await settled(page);
  });

  await test.step('a reload comes back to the same place and state', async () => {
    const url = page.url();
    await page.reload();
    await expect(page).toHaveURL(url);
    await expect(page.locator('.slip h1')).toHaveText('Spring crew shirt');
    await expect(page.locator('.step')).toHaveCount(2);
    await page.goto('/');
    await expect(page.getByRole('button', { name: 'Open Spring crew shirt' })).toHaveCount(2);
  });
});
