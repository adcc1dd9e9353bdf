import { expect } from '@playwright/test';
import { addStep, drag, openJob, settled, table, test } from './bench.ts';

const clean = (page: Parameters<typeof openJob>[0]) => page.locator('.tab', { hasText: 'Clean' });

test('a tab that is killed in the middle of work loses nothing that is a second old', async ({ page, context }) => {
  await openJob(page, 'Crest, one film', 'Clean');
  for (let k = 0; k < 3; k++) {
    const before = Number(/(\d+) steps/.exec((await clean(page).textContent()) ?? '')?.[1]);
    await addStep(page, 'Rub out');
    await drag(page, [0.4 + k * 0.05, 0.4], [0.45 + k * 0.05, 0.45]);
    await expect(clean(page)).toContainText(`${before + 1} steps`);
    await page.waitForTimeout(1000);
    // One more stroke that may be lost, with the engine at work.
    await drag(page, [0.5, 0.6], [0.55, 0.62]);
    const url = page.url();
    await page.close({ runBeforeUnload: false });
    page = await context.newPage();
    await page.goto(url);
    await expect(clean(page)).toContainText(`${before + 1} steps`, { timeout: 30_000 });
    await settled(page);
  }
});

test('a worker that dies is started anew, and the work goes on', async ({ page }) => {
  await openJob(page, 'Lighthouse mug', 'Clean');
  const errors: string[] = [];
  page.on('console', (message) => errors.push(message.text()));
  for (let k = 0; k < 2; k++) {
    const [worker] = page.workers();
    // An error that nobody catches, as when memory runs out.
    await worker.evaluate(() => void setTimeout(() => dispatchEvent(new ErrorEvent('error')), 0)).catch(() => undefined);
    await worker.evaluate(() => void setTimeout(() => { throw new RangeError('out of memory'); }, 0)).catch(() => undefined);
    await addStep(page, 'Levels');
    await expect(page.locator('.step .words').last()).toContainText('found:', { timeout: 30_000 });
    await settled(page);
    await expect(page.locator('.tab', { hasText: 'Separate' })).toContainText('piece');
  }
});

test('two tabs on one job: what is done in one appears in the other, and undo brings one’s own back', async ({ page, context }) => {
  await openJob(page, 'Heron glasses', 'Clean');
  const other = await context.newPage();
  await other.goto(page.url());
  await expect(clean(other)).toContainText('1 step', { timeout: 30_000 });
  await expect(table(other)).toBeVisible({ timeout: 30_000 });
  await addStep(page, 'Sweep');
  await expect(clean(other)).toContainText('2 steps');
  await addStep(other, 'Smoothing');
  await expect(clean(page)).toContainText('3 steps');
  await page.keyboard.press('Control+z');
  await expect(clean(page)).toContainText('2 steps');
  await expect(clean(other)).toContainText('2 steps');
  await other.close();
});
