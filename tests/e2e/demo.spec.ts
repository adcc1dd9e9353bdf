import { expect, type Page } from '@playwright/test';
import { addStep, drag, goTo, openJob, save, setQuantity, settled, stepWords, test } from './bench.ts';
import { areaOf, readCutFile } from './svgGeometry.ts';

/** A decorator's session on each of the demo's pictures, from the picture as it came to what is cut. The crest is gone through in road.spec.ts. */
const separate = (page: Page) => page.locator('.tab', { hasText: 'Separate' });

test('the crest: four films stand as they were left, at once when it is opened again, and follow a change', async ({ page }) => {
  const rolls = page.locator('.rack .roll .name');
  const names = ['Sail white', 'Harbour navy', 'Rust', 'Sand'];
  await openJob(page, 'Crew crest', 'Separate');
  await expect(rolls).toHaveText(names.map((name) => new RegExp(`^${name}`)));
  const facts = await page.locator('.rack .roll .facts').allTextContents();
  // What is shown is kept a moment later.
  await expect.poll(() => page.evaluate(async () => {
    const db = await new Promise<IDBDatabase>((resolve) => {
      const opening = indexedDB.open('limner');
      opening.onsuccess = () => resolve(opening.result);
    });
    const count = await new Promise<number>((resolve) => {
      const counting = db.transaction('results').objectStore('results').count();
      counting.onsuccess = () => resolve(counting.result);
    });
    db.close();
    return count;
  })).toBe(1);
  await page.getByRole('button', { name: '‹ Shelf' }).click();
  await expect(page.getByRole('button', { name: 'Open Crew crest' })).toBeVisible();
  // No moment without films is to be seen from here on.
  await page.evaluate(() => {
    const seen: string[] = [];
    Object.assign(window, { seenWaiting: seen });
    new MutationObserver(() => {
      for (const waiting of document.querySelectorAll('.rack .empty')) seen.push(waiting.textContent);
    }).observe(document.body, { childList: true, subtree: true });
  });
  await page.getByRole('button', { name: 'Open Crew crest' }).click();
  await expect(rolls).toHaveCount(4);
  expect(await page.locator('.rack .roll .facts').allTextContents()).toEqual(facts);
  for (const stage of ['Assemble', 'Lay out', 'Hand off', 'Separate']) await goTo(page, stage);
  expect(await page.evaluate(() => (window as unknown as { seenWaiting: string[] }).seenWaiting)).toEqual([]);
  await goTo(page, 'Assemble');
  await setQuantity(page, 'Width', '200');
  await settled(page);
  await expect(page.locator('.rack .roll .facts')).not.toHaveText(facts);
});

test('the buoy: a shaded scan with a broken line and pencil becomes closed ink', async ({ page }) => {
  await openJob(page, 'Bell buoy tote', 'Clean');
  await addStep(page, 'Light levelling');
  await expect(stepWords(page, 'Light levelling')).toContainText(/light fell off by \d\d %/);
  await addStep(page, 'Gap mending');
  await expect(stepWords(page, 'Gap mending')).toContainText(/[1-9] breaks? closed/, { timeout: 30_000 });
  await addStep(page, 'Line pick');
  await expect(stepWords(page, 'Line pick')).toContainText('% is ink');
  await page.getByRole('radio', { name: 'found' }).click();
  await page.getByRole('radio', { name: 'local' }).click();
  await addStep(page, 'Edge tidying');
  await settled(page);
  await expect(separate(page)).toContainText(/\d+ pieces/);
  // Rays, waves and the buoy; the pencil line across is gone.
  const pieces = Number(/(\d+) pieces/.exec((await separate(page).textContent()) ?? '')?.[1]);
  expect(pieces).toBeGreaterThanOrEqual(6);
  expect(pieces).toBeLessThanOrEqual(12);
});

test('the lettering: counters are lifted with the ground, one is left, few colours make clicks exact', async ({ page }) => {
  await openJob(page, 'Bread, rope and boats', 'Clean');
  await addStep(page, 'Fewer colours');
  await expect(stepWords(page, 'Fewer colours')).toContainText(/found: [2-4] tones/);
  await addStep(page, 'Area lift');
  await drag(page, [0.15, 0.5], [0.15, 0.5]);
  await expect(stepWords(page, 'Area lift')).toContainText('found:');
  await page.getByText('Also enclosed areas of this colour').click();
  await expect(stepWords(page, 'Area lift')).toContainText(/[1-9]\d* enclosed areas/);
  const lifted = Number(/(\d+) enclosed/.exec((await stepWords(page, 'Area lift').textContent()) ?? '')?.[1]);
  await page.getByRole('button', { name: 'Next place' }).click();
  await page.keyboard.press('x');
  await expect(stepWords(page, 'Area lift')).toContainText(`${lifted - 1} enclosed`);
  await page.keyboard.press('Control+z');
  await expect(stepWords(page, 'Area lift')).toContainText(`${lifted} enclosed`);
});

test('the heron: 300 pixels are enlarged without steps and fill a sheet', async ({ page }) => {
  await openJob(page, 'Heron glasses', 'Clean');
  await addStep(page, 'Enlarging');
  await page.getByRole('radio', { name: '4×' }).click();
  await expect(stepWords(page, 'Enlarging')).toHaveText('4 times as large');
  await page.getByRole('button', { name: 'earlier' }).click();
  await settled(page);
  await expect(stepWords(page, 'Area lift')).toContainText('found:');
  await goTo(page, 'Hand off');
  const file = await save(page, 'Save SVG');
  const cut = readCutFile(file.bytes.toString('utf8'));
  expect(cut.boxes).toHaveLength(6);
  // The heron is 70 mm high: all copies together are as much film as one can expect of such a drawing.
  expect(Math.abs(cut.art.reduce((sum, path) => sum + areaOf(path), 0))).toBeGreaterThan(6 * 200);
});

test('the duck: one colour everywhere goes, and made too small it says what would not cut', async ({ page }) => {
  await openJob(page, 'Duck race soap', 'Clean');
  await expect(stepWords(page, 'Colour lift')).toContainText('#ffffff');
  await page.getByRole('button', { name: /^Colour lift/ }).click();
  await setQuantity(page, 'Tolerance (colour difference)', '4');
  await page.getByRole('button', { name: /^Colour lift/ }).click();
  await expect(page.getByRole('region', { name: 'Cut check' })).toContainText('nothing that would cut badly');
  // At a third of the size the wave is too thin for the film.
  await goTo(page, 'Assemble');
  await setQuantity(page, 'Width', '16');
  await goTo(page, 'Clean');
  const check = page.getByRole('region', { name: 'Cut check' });
  await expect(check).toContainText(/\d/);
  await page.getByRole('button', { name: 'Next place' }).click();
  await expect(check).toContainText(/1 of \d+|^Cut check1/);
});

test('the lighthouse: noise is smoothed, four tones are found, the sky is lifted', async ({ page }) => {
  await openJob(page, 'Lighthouse mug', 'Clean');
  await addStep(page, 'Smoothing');
  await expect(stepWords(page, 'Smoothing')).toContainText(/noise \d/);
  await page.getByRole('radio', { name: 'what it takes' }).click();
  await addStep(page, 'Fewer colours');
  await expect(stepWords(page, 'Fewer colours')).toContainText(/found: \d+ tones/);
  await setQuantity(page, 'Tones with background', '4');
  await expect(stepWords(page, 'Fewer colours')).toContainText('4 tones');
  await addStep(page, 'Area lift');
  await drag(page, [0.35, 0.2], [0.35, 0.2]);
  await expect(stepWords(page, 'Area lift')).toContainText('found:');
  await settled(page);
  await expect(separate(page)).toContainText('piece');
});

test('the sign: a photo of twelve megapixels is straightened, its subject lifted, ten steps deep', async ({ page }) => {
  test.setTimeout(240_000);
  await openJob(page, 'Landing stage', 'Clean');
  await addStep(page, 'Turn');
  await setQuantity(page, 'Straighten by', '1.5');
  await addStep(page, 'Subject lift');
  await expect(stepWords(page, 'Subject lift')).toContainText(/\d\d % of the picture lifted/, { timeout: 90_000 });
  for (const name of ['Levels', 'Smoothing', 'Rub out', 'Bring back', 'Sweep', 'Edge tidying']) await addStep(page, name);
  await page.getByRole('button', { name: /^Levels/ }).click();
  await page.getByRole('slider', { name: 'White from' }).focus();
  await page.keyboard.press('ArrowLeft');
  await expect(page.locator('.readout [role="status"]')).not.toHaveText('working…', { timeout: 120_000 });
  await settled(page);
  await expect(separate(page)).toContainText('piece');
});
