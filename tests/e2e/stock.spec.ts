import { expect, type Locator, type Page } from '@playwright/test';
import sharp from 'sharp';
import { photoOf, tilted } from '../../server/devices/standInCamera.ts';
import { addStep, choose, dropFiles, goTo, openJob, openShelfWith, save, setQuantity, settled, test, unfold } from './bench.ts';
import { boxOf, readCutFile } from './svgGeometry.ts';
import { stored } from './walk.ts';

const card = (page: Page, name: string): Locator => page.getByRole('region', { name, exact: true });

test('what is left of a film is used before a new sheet, and what this job leaves goes on the shelf', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Lay out');
  await choose(page, 'How they lie', 'nested by their outlines');
  await settled(page);
  await unfold(page, 'Remnants first');
  await setQuantity(page, 'Width of a remnant', '110');
  await setQuantity(page, 'Its length', '130');
  const remnants = card(page, 'Remnants first');
  await remnants.getByRole('button', { name: 'Use this remnant' }).click();
  await expect(remnants).toContainText('1 of 1 used before a new sheet');
  await settled(page);
  await expect(page.getByRole('group', { name: 'Which sheet' })).toContainText('sheet 1 of 2');
  await remnants.getByRole('button', { name: 'Put it on the shelf' }).click();
  await expect(remnants.getByText(/^on the shelf:/)).toHaveCount(1);
  await goTo(page, 'Hand off');
  await page.getByRole('button', { name: 'Save this sheet alone' }).waitFor();
  const { bytes } = await save(page, 'Save this sheet alone');
  expect(readCutFile(bytes.toString())).toMatchObject({ widthMm: 110, heightMm: 130 });
});

test('the outline of a design becomes a remnant; a sheet is filled with nested copies', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Lay out');
  await unfold(page, 'Remnants');
  await card(page, 'Remnants').getByRole('button', { name: 'Keep it as a remnant' }).click();
  await expect(page.getByText(/lies on the shelf: jobs of/)).toBeVisible();
  await choose(page, 'How they lie', 'nested by their outlines');
  await settled(page);
  await expect(card(page, 'Remnants first').getByText(/^on the shelf:/)).toHaveCount(1);
  // As many as one sheet of each film holds.
  await page.getByRole('button', { name: 'Fill the sheet' }).click();
  await expect(page.getByRole('textbox', { name: 'Copies', exact: true })).not.toHaveValue('1', { timeout: 60_000 });
  await settled(page);
  await expect(page.getByRole('group', { name: 'Which sheet' })).toHaveCount(0);
});

test('what was stamped on the mark sheet is cut where it lies, with blanks beside it', async ({ page }) => {
  const photo = photoOf('a4', tilted('a4', 20, 5, -0.05));
  const png = await sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 4 } }).png().toBuffer();
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'stamped.png', type: 'image/png', bytes: png }]);
  await settled(page);
  await goTo(page, 'Clean');
  await addStep(page, 'Squaring');
  await settled(page);
  await goTo(page, 'Separate');
  await choose(page, 'Way of separating', 'one colour');
  await settled(page);
  await goTo(page, 'Lay out');
  const work = card(page, 'Work on the sheet');
  await work.getByRole('button', { name: 'Cut it where it lies' }).click();
  await setQuantity(page, 'On this sheet', '4');
  await settled(page);
  await expect(work).toContainText('further copies are blanks on what is free');
  expect(await stored(page)).toContain('"work":{');
  await goTo(page, 'Hand off');
  const { bytes } = await save(page, 'Save SVG');
  const { art, widthMm } = readCutFile(bytes.toString());
  expect(widthMm).toBe(210);
  const places = art.map((ring) => boxOf([ring])).filter(({ left, right }) => right - left > 50);
  // The stamp is 60 mm wide, 60 mm from the left and 90 mm from the top of the paper.
  expect(places.some(({ left, top }) => Math.abs(left - 60) < 0.3 && Math.abs(top - 90) < 0.3)).toBe(true);
  expect(places.length).toBeGreaterThanOrEqual(3);
});
