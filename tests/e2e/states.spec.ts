import { readFile } from 'node:fs/promises';
import { expect } from '@playwright/test';
import { unzipSync } from 'fflate';
import type { Job } from '../../src/core/job/job.ts';
import { newJob } from '../../src/core/job/newJob.ts';
import type { TracedObject } from '../../src/core/job/objects.ts';
import { FIRST_OBJECT_ID, tracedPart, withPicture } from '../../src/core/job/tracedPart.ts';
import { SHEETS } from '../../src/core/layout/sheetStock.ts';
import { readArchive, writeArchive } from '../../src/formats/archive/archive.ts';
import { discFiles } from '../fixtures/files.ts';
import { duckPhoto, shadedSign } from '../fixtures/photos.ts';
import { addStep, choose, dropFiles, goTo, openJob, openShelfWith, save, setQuantity, settled, stepWords, test } from './bench.ts';
import { STAGES, stored } from './walk.ts';

test('a photograph goes through subject lift and every way of separating, with a border', async ({ page }) => {
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'duck portrait.jpg', type: 'image/jpeg', bytes: await duckPhoto() }]);
  await expect(page.getByText('480 × 400', { exact: true })).toBeVisible({ timeout: 30_000 });
  await goTo(page, 'Clean');
  await addStep(page, 'Subject lift');
  await expect(stepWords(page, 'Subject lift')).toContainText('of the picture lifted', { timeout: 40_000 });
  await goTo(page, 'Separate');
  await page.getByRole('button', { name: 'Border and back', exact: true }).click();
  await page.getByRole('region', { name: 'Border and back' }).getByText('Border around everything').click();
  for (const way of ['flat colours', 'tones of a photo', 'back and detail', 'one colour']) {
    await choose(page, 'Way of separating', way);
    await settled(page);
    await expect(page.locator('.rack .roll').first(), way).toContainText('Border', { timeout: 30_000 });
    await expect(page.locator('.tab', { hasText: 'Hand off' }), way).toContainText('ready');
    await expect(page.locator('.app-error'), way).toHaveCount(0);
  }
  await goTo(page, 'Hand off');
  const { bytes } = await save(page, 'Save SVG');
  expect(Object.keys(unzipSync(new Uint8Array(bytes)))).toHaveLength(2);
});

test('soft shading with a rim of a pixel stays in its frame, whatever its tones', async ({ page }) => {
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'sign.png', type: 'image/png', bytes: await shadedSign() }]);
  await expect(page.getByText('520 × 360', { exact: true })).toBeVisible({ timeout: 30_000 });
  await goTo(page, 'Separate');
  await choose(page, 'Way of separating', 'flat colours');
  await settled(page);
  for (const count of ['3', '6', '9']) {
    await setQuantity(page, 'Tones with background', count);
    await settled(page);
    // 280 mm wide, and as much higher or lower as the sign is.
    const fact = (await page.locator('.tab', { hasText: 'Assemble' }).locator('.fact').textContent()) ?? '';
    const [, width, height] = /^(\d+) × (\d+) mm$/.exec(fact) ?? [];
    expect(Number(width), fact).toBe(280);
    expect(Number(height) / Number(width), fact).toBeGreaterThan(0.45);
    expect(Number(height) / Number(width), fact).toBeLessThan(0.75);
  }
});

test('a job of two pictures is shown and handed off as one design, each picture still there', async ({ page }) => {
  const files = await discFiles();
  const first = withPicture(newJob('Two discs'), FIRST_OBJECT_ID, { id: 'png', fileName: 'disc.png', widthPx: 80, heightPx: 60 });
  const { films: _films, ...disc } = tracedPart(first);
  const mark: TracedObject = { ...disc, id: 'mark', separation: { way: 'flat', count: 2, meet: 'stacked' }, size: { by: 'width', sizeMm: 50, turnDeg: 0 }, placement: { a: 1, b: 0, c: 0, d: 1, e: 100, f: 0 } };
  const small: Job = { ...first, objects: [{ ...disc, size: { by: 'width', sizeMm: 90, turnDeg: 0 } }, mark], layout: { ...first.layout, sheet: SHEETS[2] } };
  const two = withPicture(small, 'mark', { id: 'gif', fileName: 'disc.gif', widthPx: 80, heightPx: 60 });
  await openShelfWith(page, []);
  await dropFiles(page, [{ name: 'two.limner', type: 'application/zip', bytes: await writeArchive({ job: two, pictures: new Map([['png', files.png], ['gif', files.gif]]) }) }]);
  await expect(page.getByRole('heading', { name: 'Two discs' })).toBeVisible();
  await goTo(page, 'Assemble');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Assemble' }).locator('.fact')).toHaveText('150 × 90 mm');
  await expect(page.locator('.rack .roll')).toHaveCount(2);
  // A side of the design is no side of a part: the field says whose it is.
  await setQuantity(page, 'Its width', '80');
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Assemble' }).locator('.fact')).toHaveText('150 × 80 mm');
  await goTo(page, 'Hand off');
  const { bytes } = await save(page, 'Save SVG');
  expect(Object.keys(unzipSync(new Uint8Array(bytes)))).toHaveLength(2);
  const kept = await save(page, 'Save job file');
  const { job, pictures } = await readArchive(new Uint8Array(kept.bytes), kept.name);
  expect([job.objects.length, job.pictures.map(({ fileName }) => fileName), pictures.size]).toEqual([2, ['disc.png', 'disc.gif'], 2]);
});

test('a job that is opened while another one is being read is the one that is shown', async ({ page }) => {
  await openShelfWith(page, ['Landing stage', 'Heron glasses']);
  await page.getByRole('button', { name: 'Open Landing stage', exact: true }).click();
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await page.getByRole('button', { name: 'Open Heron glasses', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Heron glasses' })).toBeVisible();
  await settled(page);
  await expect(page.locator('.tab', { hasText: 'Picture' })).not.toContainText('4,000');
  await expect(page.locator('.tab', { hasText: 'Hand off' })).toContainText('ready', { timeout: 30_000 });
});

test('one recipe on jobs of several films gives a sheet for each of them', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Separate', ['Lighthouse mug']);
  await choose(page, 'Way of separating', 'flat colours');
  await expect(page.locator('.rack .roll')).toHaveCount(5, { timeout: 30_000 });
  await settled(page);
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await page.getByRole('button', { name: 'Open Lighthouse mug', exact: true }).click();
  await goTo(page, 'Clean');
  await addStep(page, 'Smoothing');
  await settled(page);
  await page.getByRole('button', { name: 'Recipes' }).click();
  await page.getByRole('menuitem', { name: 'Apply to many' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByText('Crest, one film').click();
  await dialog.getByRole('button', { name: 'Apply to 1 picture' }).click();
  await expect(dialog.getByRole('button', { name: 'Save all cut files' })).toBeVisible({ timeout: 60_000 });
  const coming = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save all cut files' }).click();
  const names = Object.keys(unzipSync(new Uint8Array(await readFile(await (await coming).path()))));
  // With its recipe replaced nothing lifts the paper: white is the background, and four films are left.
  expect(names.filter((name) => name.endsWith('.svg')).length).toBe(4);
});

test('walking with Tab through every field of every stage changes nothing', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Separate');
  await choose(page, 'Way of separating', 'flat colours');
  await settled(page);
  for (const stage of STAGES) {
    await goTo(page, stage);
    await settled(page);
    const before = await stored(page);
    await page.locator('.tab', { hasText: stage }).first().focus();
    let visited = 0;
    for (let k = 0; k < 60; k++) {
      await page.keyboard.press('Tab');
      if (await page.evaluate(() => document.activeElement?.matches('input:not([type="color"])') === true)) visited++;
    }
    await settled(page);
    expect(await stored(page), stage).toBe(before);
    if (stage !== 'Hand off') expect(visited, stage).toBeGreaterThan(0);
  }
});

test('what was taken back on another stage is said, also from a list', async ({ page }) => {
  await openJob(page, 'Crest, one film', 'Assemble');
  await setQuantity(page, 'Width', '150');
  await goTo(page, 'Lay out');
  await page.getByRole('combobox', { name: 'Sheet', exact: true }).focus();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone: Finished width')).toBeVisible();
  await expect(page.locator('.tab', { hasText: 'Assemble' })).toContainText('240');
});
